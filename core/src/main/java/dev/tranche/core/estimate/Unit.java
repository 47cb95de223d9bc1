package dev.tranche.core.estimate;

/** What a figure counts; how it is written out is the screen's affair. */
public enum Unit {
    COUNT(1),
    MILLIMETRES(1),
    CUBIC_MILLIMETRES(1),
    GRAMS(0.1),
    SECONDS(1),
    MONEY(0.01),
    /** Shown to as many places as it takes. */
    RATIO(0);

    private final double shown;

    Unit(double shown) {
        this.shown = shown;
    }

    /** What it is shown in, as fine as a caliper, a kitchen scale or a clock could check; 0 if that depends. */
    public double shown() {
        return shown;
    }
}
