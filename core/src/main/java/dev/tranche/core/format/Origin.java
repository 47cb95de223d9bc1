package dev.tranche.core.format;

/**
 * From where a file's X and Y are told. What is cut out of a map often lies whole countries away from the map's origin,
 * further than a mesh can hold exactly; such a model is brought near by whole kilometres, so that models of one map that lie
 * in several files stay as they lie to one another.
 *
 * @param x mm, {@code y} likewise; 0 for all that lies less than a kilometre away
 */
record Origin(double x, double y) {
    private static final double KILOMETRE = 1_000_000;

    /** Farther than any map of the earth reaches, mm. */
    private static final double FARTHEST = 1e11;

    /** Of a model with a corner there. */
    static Origin near(double x, double y) {
        return new Origin(kilometres(x), kilometres(y));
    }

    private static double kilometres(double millimetres) {
        double away = Math.abs(millimetres);
        return away >= KILOMETRE && away < FARTHEST ? KILOMETRE * Math.rint(millimetres / KILOMETRE) : 0;
    }

    float x(double inFile) {
        return (float) (inFile - x);
    }

    float y(double inFile) {
        return (float) (inFile - y);
    }
}
