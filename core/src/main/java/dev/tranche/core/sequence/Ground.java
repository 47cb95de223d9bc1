package dev.tranche.core.sequence;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * All that bands come of.
 *
 * @param layers from the bed up
 * @param halts layers, from 1, before which the print halts
 * @param lineWidth of the plastic, mm
 * @param reach of the nozzle beside standing plastic
 * @param apart layers, from 1, that cannot be begun before those beneath them are done, as the sliced file has them
 */
record Ground(
        List<LayerColours> layers,
        LayerGrid grid,
        List<SpoolId> palette,
        Set<Integer> halts,
        double lineWidth,
        Height reach,
        Set<Integer> apart) {

    static Ground of(Colouring colouring, double lineWidth, Height reach, Set<Integer> apart) {
        LayerGrid grid = colouring.model().grid();
        return new Ground(
                colouring.layers(),
                grid,
                colouring.plan().palette(),
                colouring.plan().halts().on(grid).stream()
                        .map(h -> grid.snap(h.wished()).layer())
                        .collect(Collectors.toSet()),
                lineWidth,
                reach,
                apart);
    }

    /** Layer {@code number}, from 1. */
    LayerColours layer(int number) {
        return layers.get(number - 1);
    }

    /** Whether a band that was found on {@code earlier} ground is one of this too: why it ends lies in the layer above it. */
    boolean bears(Band band, Ground earlier) {
        if (!grid.equals(earlier.grid)
                || !palette.equals(earlier.palette)
                || lineWidth != earlier.lineWidth
                || !reach.equals(earlier.reach)) {
            return false;
        }
        for (int layer = band.first(); layer <= Math.min(band.last() + 1, layers.size()); layer++) {
            if (!layer(layer).tints().equals(earlier.layer(layer).tints())
                    || halts.contains(layer) != earlier.halts.contains(layer)
                    || apart.contains(layer) != earlier.apart.contains(layer)) {
                return false;
            }
        }
        return true;
    }
}
