package dev.tranche.core.purge;

import dev.tranche.core.speech.Refusal;

/**
 * How a plan wants to be purged.
 *
 * @param tolerance τ, the CIEDE2000 up to which a mix counts as clean: 2, or 1 for strict
 * @param factor by which every purge is multiplied; 1, and 1.2 is in common use
 * @param place where it goes
 */
public record PurgeSettings(double tolerance, double factor, PurgePlace place) {
    public static final PurgeSettings USUAL = new PurgeSettings(2, 1, new PurgePlace.Bin());

    public PurgeSettings {
        if (!(tolerance >= 0.1 && tolerance <= 20)) {
            throw Refusal.of("A colour tolerance of %s is out of range; 2 is usual, 1 is strict.", tolerance);
        }
        if (!(factor >= 0.1 && factor <= 10)) {
            throw Refusal.of("A purge factor of %s is out of range; give 0.1 to 10.", factor);
        }
    }

    /** Into the bin. */
    public PurgeSettings(double tolerance, double factor) {
        this(tolerance, factor, new PurgePlace.Bin());
    }

    public PurgeSettings into(PurgePlace other) {
        return new PurgeSettings(tolerance, factor, other);
    }
}
