package dev.tranche.core.purge;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Volume;

/**
 * Purge from colour and dead volume.
 *
 * @param deadVolume V₀; 60 mm³ unless measured
 * @param tolerance τ, the CIEDE2000 up to which a mix counts as clean: 2, or 1 for strict
 * @param factor by which the plan multiplies every purge; 1, and 1.2 is in common use
 */
public record PurgeModel(Volume deadVolume, double tolerance, double factor) {
    private static final double OTHER_PLASTIC = 1.5;
    private static final int BISECTIONS = 60;

    public PurgeModel {
        if (!(tolerance >= 0.1 && tolerance <= 20)) {
            throw Refusal.of("A colour tolerance of %s is out of range; 2 is usual, 1 is strict.", tolerance);
        }
        if (!(factor >= 0.1 && factor <= 10)) {
            throw Refusal.of("A purge factor of %s is out of range; give 0.1 to 10.", factor);
        }
    }

    public static PurgeModel usual(Volume deadVolume) {
        return new PurgeModel(deadVolume, 2, 1);
    }

    /** What it takes for {@code in} to print clean after {@code out}. */
    public Purge between(Spool out, Spool in) {
        double difference = out.colour().lab().differenceTo(in.colour().lab());
        double share = out.id().equals(in.id())
                ? 1
                : cleanShare(out.colour().linear(), in.colour().linear());
        double volume = share >= 1 ? 0 : Math.ceil(deadVolume.cubicMillimetres() * Math.log(1 / share));
        double material = out.material() == in.material() ? 1 : OTHER_PLASTIC;
        Volume unscaled = new Volume(volume);
        return new Purge(unscaled.times(material * factor), share, difference, unscaled, material, factor);
    }

    /**
     * c*: the largest share of {@code out} for which the mix differs from {@code in} by no more than τ, by
     * bisection; the difference grows with the share. {@code in} is taken as the melt shows it, within the limits
     * of {@link Melt}.
     */
    private double cleanShare(LinearRgb out, LinearRgb in) {
        Lab target = Melt.mix(out, in, 0).lab();
        if (Melt.mix(out, in, 1).lab().differenceTo(target) <= tolerance) {
            return 1;
        }
        double clean = 0;
        double dirty = 1;
        for (int i = 0; i < BISECTIONS; i++) {
            double share = (clean + dirty) / 2;
            if (Melt.mix(out, in, share).lab().differenceTo(target) <= tolerance) {
                clean = share;
            } else {
                dirty = share;
            }
        }
        return Math.max(clean, 1e-12);
    }
}
