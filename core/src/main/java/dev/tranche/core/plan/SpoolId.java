package dev.tranche.core.plan;

import java.util.function.UnaryOperator;

/**
 * Which spool of the shelf; or, below 0, which {@link Mixture} of a plan, that is printed as if it came from a spool of its
 * own.
 */
public record SpoolId(long value) {

    public boolean isMixture() {
        return value < 0;
    }

    /** As a spool of another shelf is known; a mixture stays what it is. */
    SpoolId renumbered(UnaryOperator<SpoolId> other) {
        return isMixture() ? this : other.apply(this);
    }
}
