package dev.tranche.core.sequence;

import dev.tranche.core.plan.SpoolId;

/**
 * One colour of one layer being printed.
 *
 * @param layer from 1
 * @param from share of the layer's work that is done before, 0…1
 * @param to share that is done after it
 */
public record Pass(int layer, SpoolId spool, double from, double to) {
    public Pass {
        if (layer < 1 || !(from >= 0 && to >= from && to <= 1)) {
            throw new IllegalArgumentException("layer " + layer + " from " + from + " to " + to);
        }
    }

    /** Whether the layer begins with it. */
    public boolean first() {
        return from == 0;
    }

    public double share() {
        return to - from;
    }
}
