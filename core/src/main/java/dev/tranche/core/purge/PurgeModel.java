package dev.tranche.core.purge;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Purge from colour and dead volume.
 *
 * @param deadVolume V₀; 60 mm³ unless measured
 * @param settings how clean, and by what factor
 * @param measured pairs for which the hobbyist knows better
 * @param refills whether the nozzle is empty after a swap and has to fill again, as it is unless it blends
 */
public record PurgeModel(Volume deadVolume, PurgeSettings settings, List<MeasuredPurge> measured, boolean refills) {
    private static final double OTHER_PLASTIC = 1.5;
    /** Dead volumes that leave a twentieth of another material: e⁻³. */
    private static final double BETWEEN_MATERIALS = 3;

    private static final int BISECTIONS = 60;

    public PurgeModel {
        measured = List.copyOf(measured);
    }

    /** Of colours alone, without the least that a nozzle needs. */
    public PurgeModel(Volume deadVolume, PurgeSettings settings, List<MeasuredPurge> measured) {
        this(deadVolume, settings, measured, false);
    }

    public static PurgeModel usual(Volume deadVolume) {
        return new PurgeModel(deadVolume, PurgeSettings.USUAL, List.of());
    }

    public PurgeModel into(PurgePlace place) {
        return new PurgeModel(deadVolume, settings.into(place), measured, refills);
    }

    /** As if nothing had been measured. */
    public PurgeModel computed() {
        return new PurgeModel(deadVolume, settings, List.of(), refills);
    }

    /** What is pushed through whatever the colours: V₀ where the nozzle fills again, 3 V₀ between materials. */
    private Volume least(Spool out, Spool in) {
        if (out.id().equals(in.id())) {
            return Volume.NONE;
        }
        return out.material() != in.material()
                ? deadVolume.times(BETWEEN_MATERIALS)
                : refills ? deadVolume : Volume.NONE;
    }

    /** What it takes for {@code in} to print clean after {@code out}. */
    public Purge between(Spool out, Spool in) {
        double difference = out.colour().lab().differenceTo(in.colour().lab());
        double share = out.id().equals(in.id())
                ? 1
                : cleanShare(out.colour().linear(), in.colour().linear());
        Optional<MeasuredPurge> known =
                measured.stream().filter(m -> m.isFor(out.id(), in.id())).findFirst();
        Volume unscaled = known.map(MeasuredPurge::volume)
                .orElseGet(() -> new Volume(Math.ceil(deadVolume.cubicMillimetres() * Math.log(1 / share))));
        double material = known.isPresent() || out.material() == in.material() ? 1 : OTHER_PLASTIC;
        Volume washed = unscaled.times(material * settings.factor());
        Volume least = known.isPresent() ? Volume.NONE : least(out, in);
        return new Purge(
                washed.cubicMillimetres() >= least.cubicMillimetres() ? washed : least,
                share,
                difference,
                unscaled,
                material,
                settings.factor(),
                known.isPresent(),
                least);
    }

    /**
     * The dead volume that fits the measured pairs best: least squares of V = V₀ ln(1/c*) through the origin, V₀ =
     * Σ V ln(1/c*) / Σ ln²(1/c*).
     *
     * @param shelf the spools the pairs name; pairs with others are left out
     * @return nothing if no pair says anything about it
     */
    public Optional<Volume> fittedDeadVolume(Map<SpoolId, Spool> shelf) {
        double products = 0;
        double squares = 0;
        for (MeasuredPurge m : measured) {
            Spool out = shelf.get(m.out());
            Spool in = shelf.get(m.in());
            if (out != null && in != null && out.material() == in.material()) {
                double washes = Math.log(
                        1 / cleanShare(out.colour().linear(), in.colour().linear()));
                products += washes * m.volume().cubicMillimetres();
                squares += washes * washes;
            }
        }
        return squares == 0 ? Optional.empty() : Optional.of(new Volume(products / squares));
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
