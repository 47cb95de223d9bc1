package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Volume;
import java.math.BigDecimal;

/**
 * What a print takes of one spool.
 *
 * @param plastic in the part
 * @param purge pushed through when this spool goes in
 * @param tower what the tower takes of it beyond purge
 * @param printSeconds printing with it
 * @param swapSeconds of the stops that put it in or leave it in
 * @param towerSeconds printing the tower with it
 */
public record SpoolUse(
        Spool spool,
        Volume plastic,
        Volume purge,
        Volume tower,
        double printSeconds,
        double swapSeconds,
        double towerSeconds) {
    public double grams() {
        return plastic.plus(purge).plus(tower).grams(spool.density());
    }

    /** What is thrown away. */
    public double wasteGrams() {
        return purge.plus(tower).grams(spool.density());
    }

    public double seconds() {
        return printSeconds + swapSeconds + towerSeconds;
    }

    public boolean isEnough() {
        return grams() <= spool.gramsLeft();
    }

    /** In the user's currency, unrounded. */
    public BigDecimal cost() {
        return cost(grams());
    }

    public BigDecimal wasteCost() {
        return cost(wasteGrams());
    }

    private BigDecimal cost(double grams) {
        return spool.pricePerKilogram().multiply(BigDecimal.valueOf(grams)).movePointLeft(3);
    }
}
