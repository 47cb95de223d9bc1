package dev.tranche.core.sequence;

import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.function.BiFunction;

/**
 * What every swap of a plan costs, as whole numbers that can be added without rounding and compared: the aim first,
 * then what decides between equals.
 *
 * <p>With up to 100,000 swaps no sum overflows.
 */
final class SwapCosts {
    /** Above any sum of purges in hundredths of mm³. */
    private static final long ONE_SWAP = 10_000_000_000_000L;

    private static final double PURGE_STEPS = 100;
    private static final double MONEY_STEPS = 100_000;
    /** Above any number of swaps. */
    private static final long TIE = 100_000;

    private final List<SpoolId> spools;
    private final long[][] weights;

    private SwapCosts(List<SpoolId> spools, long[][] weights) {
        this.spools = spools;
        this.weights = weights;
    }

    /** @param toll from the spool that comes out to the one that goes in */
    static SwapCosts of(List<SpoolId> spools, Aim aim, BiFunction<SpoolId, SpoolId, Toll> toll) {
        long[][] weights = new long[spools.size()][spools.size()];
        for (int out = 0; out < weights.length; out++) {
            for (int in = 0; in < weights.length; in++) {
                weights[out][in] = out == in ? 0 : weight(aim, toll.apply(spools.get(out), spools.get(in)));
            }
        }
        return new SwapCosts(List.copyOf(spools), weights);
    }

    private static long weight(Aim aim, Toll toll) {
        return switch (aim) {
            case SWAPS -> (toll.swap() ? ONE_SWAP : 1) + Math.round(toll.purge() * PURGE_STEPS);
            case PURGE -> Math.round(toll.purge() * PURGE_STEPS) * TIE + 1;
            case MONEY -> Math.round(toll.money() * MONEY_STEPS) * TIE + 1;
        };
    }

    List<SpoolId> spools() {
        return spools;
    }

    int size() {
        return spools.size();
    }

    /** From spool {@code out} to {@code in}, by place. */
    long of(int out, int in) {
        return weights[out][in];
    }
}
