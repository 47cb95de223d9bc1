package dev.tranche.app.stored;

import dev.tranche.core.plan.SpoolId;

/** A spool of the shelf, by its number there; below 0 a mixture of the plan, by its own. */
public record SpoolNumber(long value) {

    public static SpoolNumber of(SpoolId s) {
        return new SpoolNumber(s.value());
    }

    public SpoolId id() {
        return new SpoolId(value);
    }
}
