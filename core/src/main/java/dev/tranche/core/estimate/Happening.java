package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.Optional;

/** One thing that happens in a print; they follow one another without a gap. */
sealed interface Happening {
    /** How long it takes. */
    double seconds();

    /**
     * What comes before layer 1.
     *
     * @param spool that is loaded
     * @param work heating, a priming line, a raft
     * @param cleared what is pushed out of the nozzle first
     */
    record Beginning(Spool spool, BasePrint.LayerWork work, Optional<FirstLoad> load, Optional<Cleared> cleared)
            implements Happening {
        @Override
        public double seconds() {
            return work.seconds() + loadSeconds();
        }

        double loadSeconds() {
            return load.map(FirstLoad::seconds).orElse(0.0);
        }
    }

    /** One colour of one layer. */
    record Printing(Pass pass, Spool spool, Volume plastic, double seconds) implements Happening {}

    /**
     * The tower grows.
     *
     * @param spool that is printed onto it
     * @param beyondPurge what it takes that is no purge
     */
    record Towering(Spool spool, Volume beyondPurge, double seconds) implements Happening {}

    /** Another spool is put in. */
    record Swapping(Swap swap) implements Happening {
        @Override
        public double seconds() {
            return swap.seconds();
        }
    }

    /** The nozzle is told what to blend. */
    record Turning(Turn turn) implements Happening {
        @Override
        public double seconds() {
            return 0;
        }
    }

    /** The print stops and goes on with the same spool. */
    record Halting(Pause pause) implements Happening {
        @Override
        public double seconds() {
            return pause.seconds();
        }
    }
}
