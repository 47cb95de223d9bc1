package dev.tranche.core.sequence;

import dev.tranche.core.plan.SpoolId;

/**
 * Layers that are printed colour by colour.
 *
 * @param first from 1, as {@code last}
 * @param end why it reaches no higher
 */
public record Band(int first, int last, End end) {

    /** Why a band ends where it does. */
    public sealed interface End {
        /** The nozzle cannot dip deeper beside what stands already. */
        record Reach() implements End {}

        /**
         * Each of two colours would have to be printed before the other: {@code upper} rests on {@code lower} at the
         * first layer of the next band, and further down it is the other way round.
         */
        record Circle(SpoolId upper, SpoolId lower) implements End {}

        /** The print halts after it. */
        record Halt() implements End {}

        /** In the sliced file the layer above lies over another colour of those beneath. */
        record File() implements End {}

        /** The print is done. */
        record Top() implements End {}
    }

    public int layers() {
        return last - first + 1;
    }
}
