package dev.tranche.core.purge;

import dev.tranche.core.units.Volume;

/**
 * The purge between two spools and how it came about.
 *
 * @param volume to push through: V₀ ln(1/c*) rounded up to whole mm³, times the factors
 * @param cleanShare c*, the largest share of the old colour that cannot be told from the new one; 1 if none needs
 *     to be cleared
 * @param difference CIEDE2000 between the two colours unmixed
 * @param unscaled the volume before the factors
 * @param materialFactor 1, or more when the two are of different classes of plastic
 * @param planFactor what the plan multiplies every purge by
 * @param least that the nozzle needs, whatever the colours
 * @param measured whether {@code unscaled} was measured by the hobbyist instead of computed
 */
public record Purge(
        Volume volume,
        double cleanShare,
        double difference,
        Volume unscaled,
        double materialFactor,
        double planFactor,
        boolean measured,
        Volume least) {

    /** Whether the colours alone would need less than the nozzle does. */
    public boolean isForNozzle() {
        return volume.equals(least) && least.cubicMillimetres() > 0;
    }
}
