package dev.tranche.core.purge;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * A block on the bed that purge is printed into, and that every layer up to the last swap has to carry.
 *
 * @param width mm
 * @param depth mm: what the largest purge of a layer needs at that width
 * @param layers plastic in each, from the bed to the last swap
 * @param purges the part of each that had to be pushed through anyway
 */
public record Tower(double width, double depth, List<Volume> layers, List<Volume> purges) {
    public Tower {
        layers = List.copyOf(layers);
        purges = List.copyOf(purges);
    }

    /**
     * Depth d = largest layer purge / (w h); per layer up to the last swap the larger of that layer's purge and its
     * shell, 2 (w + d) · line width · h.
     *
     * @param purges by layer
     * @param lineWidth mm
     */
    public static Tower of(double width, LayerGrid grid, Map<Integer, Volume> purges, double lineWidth) {
        double depth = 0;
        int last = 0;
        for (Map.Entry<Integer, Volume> entry : purges.entrySet()) {
            double h = grid.thickness(entry.getKey()).millimetres();
            depth = Math.max(depth, entry.getValue().cubicMillimetres() / (width * h));
            last = Math.max(last, entry.getKey());
        }
        List<Volume> layers = new ArrayList<>();
        List<Volume> pushed = new ArrayList<>();
        for (int layer = 1; layer <= last; layer++) {
            double shell =
                    2 * (width + depth) * lineWidth * grid.thickness(layer).millimetres();
            Volume purge = purges.getOrDefault(layer, Volume.NONE);
            layers.add(new Volume(Math.max(shell, purge.cubicMillimetres())));
            pushed.add(purge);
        }
        return new Tower(width, depth, layers, pushed);
    }

    /** All of it. */
    public Volume plastic() {
        return layers.stream().reduce(Volume.NONE, Volume::plus);
    }

    /** What leaving the tower out saves. */
    public Volume idle() {
        return IntStream.rangeClosed(1, layers.size()).mapToObj(this::idle).reduce(Volume.NONE, Volume::plus);
    }

    /** What {@code layer}, from 1, holds beyond purge; nothing above the tower. */
    public Volume idle(int layer) {
        return layer > layers.size()
                ? Volume.NONE
                : new Volume(layers.get(layer - 1).cubicMillimetres()
                        - purges.get(layer - 1).cubicMillimetres());
    }
}
