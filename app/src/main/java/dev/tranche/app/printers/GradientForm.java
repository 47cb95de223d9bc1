package dev.tranche.app.printers;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.rig.Gradient;
import dev.tranche.core.units.Height;

/** A gradient to try, as typed: from and to which height, between which extruders, in a print of which layers. */
record GradientForm(String from, String to, String first, String last, String layer, String print) {
    Gradient gradient() {
        return new Gradient(
                Height.parse(from),
                Height.parse(to),
                Numbers.whole("first extruder", first),
                Numbers.whole("last extruder", last));
    }

    LayerGrid grid() {
        Height h = Height.parse(layer);
        return new LayerGrid(h, h, Height.parse(print));
    }
}
