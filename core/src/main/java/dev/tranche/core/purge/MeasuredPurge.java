package dev.tranche.core.purge;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Volume;

/**
 * What a hobbyist found it takes on one printer: overrides the model for this pair, in this direction.
 *
 * @param out spool that comes out, {@code in} that goes in; not the same
 * @param volume pushed until the new colour was clean; at most 5000 mm³, two metres of common filament
 */
public record MeasuredPurge(SpoolId out, SpoolId in, Volume volume) {
    private static final double MOST = 5_000;

    public MeasuredPurge {
        if (out.equals(in)) {
            throw new Refusal("A purge lies between two different spools; choose another for one of them.");
        }
        if (volume.cubicMillimetres() <= 0 || volume.cubicMillimetres() > MOST) {
            throw Refusal.of(
                    "A measured purge of %.0f mm³ cannot be; give more than 0 and at most %.0f mm³, about two metres of 1.75 mm filament.",
                    volume.cubicMillimetres(), MOST);
        }
    }

    boolean isFor(SpoolId from, SpoolId to) {
        return out.equals(from) && in.equals(to);
    }
}
