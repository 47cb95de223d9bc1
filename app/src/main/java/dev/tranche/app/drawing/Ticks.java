package dev.tranche.app.drawing;

/** Steps for rulers that people can count in: 1, 2 or 5 times a power of ten. */
final class Ticks {
    private static final double[] NICE = {1, 2, 5, 10};

    private Ticks() {}

    /** The smallest nice step that cuts {@code range} into at most {@code most} pieces. */
    static double step(double range, int most) {
        double least = range / most;
        double power = Math.pow(10, Math.floor(Math.log10(least)));
        for (double nice : NICE) {
            if (nice * power >= least * 0.999999) {
                return nice * power;
            }
        }
        return 10 * power;
    }
}
