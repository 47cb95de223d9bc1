package dev.tranche.core.purge;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Volume;
import java.util.Map;

/**
 * A block on the bed that purge is printed into, and that every layer up to the last swap has to carry.
 *
 * @param width mm
 * @param depth mm: what the largest purge of a layer needs at that width
 * @param plastic in the whole block
 * @param purge the part of it that had to be pushed through anyway
 */
public record Tower(double width, double depth, Volume plastic, Volume purge) {

    /**
     * Depth d = largest layer purge / (w h); per layer up to the last swap the larger of that layer's purge and its
     * shell, 2 (w + d) · line width · h.
     *
     * @param purges of the layers that begin with a swap, by layer
     * @param lineWidth mm
     */
    public static Tower of(double width, LayerGrid grid, Map<Integer, Volume> purges, double lineWidth) {
        double depth = 0;
        int last = 0;
        double pushed = 0;
        for (Map.Entry<Integer, Volume> entry : purges.entrySet()) {
            double h = grid.thickness(entry.getKey()).millimetres();
            depth = Math.max(depth, entry.getValue().cubicMillimetres() / (width * h));
            last = Math.max(last, entry.getKey());
            pushed += entry.getValue().cubicMillimetres();
        }
        double plastic = 0;
        for (int layer = 1; layer <= last; layer++) {
            double shell =
                    2 * (width + depth) * lineWidth * grid.thickness(layer).millimetres();
            plastic += Math.max(shell, purges.getOrDefault(layer, Volume.NONE).cubicMillimetres());
        }
        return new Tower(width, depth, new Volume(plastic), new Volume(pushed));
    }

    /** What leaving the tower out saves. */
    public Volume idle() {
        return new Volume(plastic.cubicMillimetres() - purge.cubicMillimetres());
    }
}
