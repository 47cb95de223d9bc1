package dev.tranche.core.purge;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Volume;

/**
 * Purge from colour and dead volume.
 *
 * @param deadVolume V₀; 60 mm³ unless measured
 * @param settings how clean, and by what factor
 */
public record PurgeModel(Volume deadVolume, PurgeSettings settings) {
    private static final double OTHER_PLASTIC = 1.5;
    private static final int BISECTIONS = 60;

    public static PurgeModel usual(Volume deadVolume) {
        return new PurgeModel(deadVolume, PurgeSettings.USUAL);
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
        return new Purge(
                unscaled.times(material * settings.factor()), share, difference, unscaled, material, settings.factor());
    }

    /**
     * c*: the largest share of {@code out} for which the mix differs from {@code in} by no more than τ, by
     * bisection; the difference grows with the share. {@code in} is taken as the melt shows it, within the limits
     * of {@link Melt}.
     */
    private double cleanShare(LinearRgb out, LinearRgb in) {
        Lab target = Melt.mix(out, in, 0).lab();
        if (Melt.mix(out, in, 1).lab().differenceTo(target) <= settings.tolerance()) {
            return 1;
        }
        double clean = 0;
        double dirty = 1;
        for (int i = 0; i < BISECTIONS; i++) {
            double share = (clean + dirty) / 2;
            if (Melt.mix(out, in, share).lab().differenceTo(target) <= settings.tolerance()) {
                clean = share;
            } else {
                dirty = share;
            }
        }
        return Math.max(clean, 1e-12);
    }
}
