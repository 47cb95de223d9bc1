package dev.tranche.app.desk;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.units.Height;
import java.util.Optional;

/** A region as it is typed; what only zones have is missing where it is by part. */
record RegionForm(
        String name,
        String from,
        String to,
        String x,
        String y,
        String width,
        String depth,
        String turn,
        Boolean mirrored) {
    Region on(Region before, LayerGrid grid) {
        boolean toTop = to == null || to.isBlank() || to.strip().equalsIgnoreCase("top");
        Optional<Height> end = toTop ? Optional.empty() : Optional.of(grid.endAt(to));
        boolean fromBed = from == null || from.isBlank() || from.strip().equalsIgnoreCase("bed");
        Height begin = fromBed ? Height.ZERO : grid.startFrom(from);
        Region changed = before.named(name).over(new Range(begin, end));
        return before.shape() instanceof Shape.Zone zone ? changed.of(zone(zone)) : changed;
    }

    private Shape.Zone zone(Shape.Zone before) {
        return new Shape.Zone(
                outline(before.outline()),
                Numbers.decimal("X", x),
                Numbers.decimal("Y", y),
                Numbers.decimal("turn", turn),
                Boolean.TRUE.equals(mirrored));
    }

    private Outline outline(Outline before) {
        double wide = Numbers.decimal("width", width);
        if (before instanceof Outline.Box) {
            return new Outline.Box(wide, Numbers.decimal("depth", depth));
        }
        return before.wide(wide);
    }
}
