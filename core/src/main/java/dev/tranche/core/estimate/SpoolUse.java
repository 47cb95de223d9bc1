package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Volume;
import java.math.BigDecimal;

/**
 * What a print takes of one spool.
 *
 * @param plastic in the part
 * @param purge pushed through when this spool goes in
 * @param printSeconds printing with it
 * @param swapSeconds of the stops that put it in or leave it in
 */
public record SpoolUse(Spool spool, Volume plastic, Volume purge, double printSeconds, double swapSeconds) {
    public double grams() {
        return plastic.plus(purge).grams(spool.density());
    }

    public double seconds() {
        return printSeconds + swapSeconds;
    }

    public boolean isEnough() {
        return grams() <= spool.gramsLeft();
    }

    /** In the user's currency, unrounded. */
    public BigDecimal cost() {
        return cost(grams());
    }

    public BigDecimal purgeCost() {
        return cost(purge.grams(spool.density()));
    }

    private BigDecimal cost(double grams) {
        return spool.pricePerKilogram().multiply(BigDecimal.valueOf(grams)).movePointLeft(3);
    }
}
