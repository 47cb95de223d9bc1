package dev.tranche.core.rehearse;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.util.Optional;

/**
 * What a person does at one stop.
 *
 * @param puts in this spool, if one is changed there
 * @param late by so much, beside the time they usually take
 * @param pushes the purge that is left to them
 */
public record Deed(Optional<SpoolId> puts, Duration late, boolean pushes) {
    public Deed {
        if (late.isNegative() || late.compareTo(Duration.ofDays(7)) > 0) {
            throw new Refusal("A person is late by 0 minutes to 7 days.");
        }
    }

    /** At once, and as the list says. */
    public static Deed asPlanned(Encounter stop) {
        return new Deed(stop.wanted(), Duration.ZERO, true);
    }

    public Deed putting(SpoolId other) {
        return new Deed(Optional.of(other), late, pushes);
    }

    public Deed late(Duration by) {
        return new Deed(puts, by, pushes);
    }
}
