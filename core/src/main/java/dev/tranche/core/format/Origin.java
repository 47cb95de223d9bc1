package dev.tranche.core.format;

import dev.tranche.core.speech.Refusal;

/**
 * From where a file's X and Y are told. What is cut out of a map often lies whole countries away from the map's origin,
 * further than a mesh can hold exactly; such a model is brought near by whole kilometres, so that models of one map that lie
 * in several files stay as they lie to one another.
 *
 * @param x mm, {@code y} likewise; 0 for all that begins less than a kilometre away
 */
record Origin(double x, double y) {
    private static final double KILOMETRE = 1_000_000;

    /** So far a model may reach from its origin, mm, so that one that begins before the kilometre may go on beyond it. */
    private static final double REACH = 1_500_000;

    /** Farther than any map of the earth reaches, mm. */
    private static final double FARTHEST = 1e11;

    /** From here on a float of a file knows no millimetres any more. */
    private static final double FLOATS = 1 << 24;

    /** Of a model that begins there, in a file that writes numbers out. */
    static Origin near(double x, double y) {
        return new Origin(kilometres(x, FARTHEST), kilometres(y, FARTHEST));
    }

    /** Of a model that begins there, in a file of floats. */
    static Origin nearInFloats(float x, float y) {
        return new Origin(kilometres(x, FLOATS), kilometres(y, FLOATS));
    }

    private static double kilometres(double millimetres, double farthest) {
        double away = Math.abs(millimetres);
        return away >= KILOMETRE && away < farthest ? KILOMETRE * Math.rint(millimetres / KILOMETRE) : 0;
    }

    float x(double inFile) {
        return (float) (inFile - x);
    }

    float y(double inFile) {
        return (float) (inFile - y);
    }

    /** Whether a corner, told from here, can be one of a model. */
    static boolean reaches(float x, float y, float z) {
        return Math.abs(x) < REACH && Math.abs(y) < REACH && Math.abs(z) < KILOMETRE;
    }

    /** @param has what has a corner there in the file, and its verb */
    static Refusal beyond(String has, double x, double y, double z) {
        return Refusal.of(
                "%s a corner at (%s, %s, %s), which is %s.",
                has,
                x,
                y,
                z,
                Double.isFinite(x) && Double.isFinite(y) && Double.isFinite(z)
                        ? "hundreds of metres away from the model or from its origin; repair the model in the program that made it, or move it to the origin, and export it again"
                        : "no place; repair or export the model again");
    }
}
