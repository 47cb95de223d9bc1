package dev.tranche.core.speech;

import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * Rounds the parts of a sum so that they add up to the sum as it is rounded: each down to the unit shown, and what is then
 * missing to those that lost most.
 *
 * <p>Source: the method of largest remainders (A. Hamilton, 1792); M. L. Balinski, H. P. Young, "Fair Representation" (1982).
 */
public final class Shares {
    private Shares() {}

    /**
     * @param parts 0 or more
     * @param unit that is shown, such as 0.1
     * @return whole numbers of {@code unit}, one a part; their sum is that of the parts, rounded
     */
    public static long[] of(double[] parts, double unit) {
        return of(Math.round(Arrays.stream(parts).sum() / unit), parts, unit);
    }

    /**
     * As {@link #of(double[], double)}, for a sum that has been rounded by what it is a part of.
     *
     * @param sum as it is shown, in {@code unit}
     */
    public static long[] of(long sum, double[] parts, double unit) {
        long[] shares = new long[parts.length];
        long given = 0;
        for (int i = 0; i < parts.length; i++) {
            shares[i] = (long) Math.floor(parts[i] / unit + 1e-9);
            given += shares[i];
        }
        int[] byLoss = IntStream.range(0, parts.length)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> shares[i] - parts[i] / unit))
                .mapToInt(Integer::intValue)
                .toArray();
        for (int i = 0; given < sum && parts.length > 0; i = (i + 1) % parts.length) {
            shares[byLoss[i]]++;
            given++;
        }
        for (int i = parts.length - 1; given > sum && i >= 0; i--) {
            if (shares[byLoss[i]] > 0) {
                shares[byLoss[i]]--;
                given--;
            }
        }
        return shares;
    }
}
