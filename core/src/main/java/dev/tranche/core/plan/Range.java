package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.Optional;

/**
 * The heights a region covers.
 *
 * @param from as asked for
 * @param to as asked for; without it, to the top
 */
public record Range(Height from, Optional<Height> to) {
    public static final Range ALL = new Range(Height.ZERO, Optional.empty());

    public Range {
        if (to.isPresent() && !to.get().isAbove(from)) {
            throw Refusal.of(
                    "A range from %s to %s mm holds nothing; give an end above its beginning.", from, to.get());
        }
    }

    public static Range between(Height from, Height to) {
        return new Range(from, Optional.of(to));
    }

    /** Just the layers {@code first} to {@code last} of {@code grid}. */
    public static Range ofLayers(LayerGrid grid, int first, int last) {
        return new Range(grid.bottom(first), last >= grid.count() ? Optional.empty() : Optional.of(grid.top(last)));
    }

    /** The first layer it covers; one more than there are if it lies above the print. */
    public int first(LayerGrid grid) {
        return from.equals(Height.ZERO) ? 1 : grid.firstAbove(from);
    }

    /** The last layer it covers; below the first if it covers none. */
    public int last(LayerGrid grid) {
        return to.map(t -> grid.firstAbove(t) - 1).orElse(grid.count());
    }

    public boolean covers(int layer, LayerGrid grid) {
        return layer >= first(grid) && layer <= last(grid);
    }

    Range scaledBy(double factor) {
        Height low = Height.ofMillimetres(from.millimetres() * factor);
        Optional<Height> high = to.map(t -> Height.ofMillimetres(t.millimetres() * factor));
        return high.isPresent() && !high.get().isAbove(low) ? this : new Range(low, high);
    }
}
