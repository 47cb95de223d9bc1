package dev.tranche.app.desk;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.geometry.Placement;

/** Scale in percent, turn in degrees and lift in mm, as typed; the three axes are only looked at where they differ. */
record PlacementForm(String scale, String scaleX, String scaleY, String scaleZ, String turn, String lift) {
    Placement on(Placement before) {
        Placement turned = before.turned(Numbers.decimal("turn", turn))
                .lifted(Numbers.decimal("lift", lift == null || lift.isBlank() ? "0" : lift));
        if (scale != null && !scale.isBlank()) {
            double all = Numbers.decimal("scale", scale) / 100;
            return turned.scaled(all, all, all);
        }
        return turned.scaled(
                Numbers.decimal("scale of X", scaleX) / 100,
                Numbers.decimal("scale of Y", scaleY) / 100,
                Numbers.decimal("scale of Z", scaleZ) / 100);
    }
}
