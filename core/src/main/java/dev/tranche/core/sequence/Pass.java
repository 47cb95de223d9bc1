package dev.tranche.core.sequence;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.plan.SpoolId;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * One colour of one layer being printed.
 *
 * @param layer from 1
 * @param from share of the layer's work that is done before, 0…1
 * @param to share that is done after it
 * @param plastic share of the layer's plastic that goes into it, 0…1
 * @param door where a sliced file begins with it, if it has a place there for lines
 * @param thing that is printed by itself, by its place among all; nothing where all are printed together
 */
public record Pass(
        int layer, SpoolId spool, double from, double to, double plastic, Optional<Door> door, OptionalInt thing) {
    public Pass {
        if (layer < 1 || !(from >= 0 && to >= from && to <= 1)) {
            throw new IllegalArgumentException("layer " + layer + " from " + from + " to " + to);
        }
    }

    /** Of all things together. */
    public Pass(int layer, SpoolId spool, double from, double to, double plastic, Optional<Door> door) {
        this(layer, spool, from, to, plastic, door, OptionalInt.empty());
    }

    /** The same of one thing alone. */
    Pass of(int number) {
        return new Pass(layer, spool, from, to, plastic, door, OptionalInt.of(number));
    }

    /** As much of the layer's plastic as of its work. */
    Pass(int layer, SpoolId spool, double from, double to) {
        this(layer, spool, from, to, to - from, Optional.empty());
    }

    /** Whether the layer begins with it. */
    public boolean first() {
        return from == 0;
    }

    public double share() {
        return to - from;
    }
}
