package dev.tranche.app.drawing;

/** Steps for rulers that people can count in. */
public final class Ticks {
    private static final double[] NICE = {1, 2, 5, 10};
    private static final int[] TIMES = {
        1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400
    };
    private static final int DAY = 86_400;

    private Ticks() {}

    /** The smallest step that cuts {@code range} into at most {@code most} pieces: 1, 2 or 5 times a power of ten. */
    public static double step(double range, int most) {
        double least = range / most;
        double power = Math.pow(10, Math.floor(Math.log10(least)));
        for (double nice : NICE) {
            if (nice * power >= least * 0.999999) {
                return nice * power;
            }
        }
        return 10 * power;
    }

    /** As {@link #step}, in seconds: parts of a minute, an hour or a day that come out even, or whole days. */
    public static long seconds(double range, int most) {
        for (int step : TIMES) {
            if (range / step <= most) {
                return step;
            }
        }
        return DAY * (long) step(range / DAY, most);
    }
}
