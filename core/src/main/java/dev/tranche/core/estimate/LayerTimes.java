package dev.tranche.core.estimate;

import java.util.List;

/**
 * When each layer is printed, s from the start, with every stop before.
 *
 * @param begins its first plastic, by layer
 * @param ends its last plastic, by layer
 */
public record LayerTimes(List<Double> begins, List<Double> ends) {
    public LayerTimes {
        begins = List.copyOf(begins);
        ends = List.copyOf(ends);
    }

    /** When the first plastic of {@code layer}, from 1, is laid. */
    public double begin(int layer) {
        return begins.get(layer - 1);
    }

    public double end(int layer) {
        return ends.get(layer - 1);
    }
}
