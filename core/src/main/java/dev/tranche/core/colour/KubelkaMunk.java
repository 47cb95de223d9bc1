package dev.tranche.core.colour;

/**
 * Kubelka and Munk's two constants of one channel of light: K, what a plastic absorbs, and S, what it scatters, in the
 * ratio that the reflectance R of a piece so thick that nothing shows through tells: K/S = (1 − R)² / 2R, and back R = 1 +
 * K/S − √((K/S)² + 2 K/S).
 *
 * <p>Sources: P. Kubelka, F. Munk, "Ein Beitrag zur Optik der Farbanstriche", Zeitschrift für technische Physik 12 (1931);
 * P. Kubelka, "New Contributions to the Optics of Intensely Light-Scattering Materials", Journal of the Optical Society of
 * America 38 (1948).
 */
final class KubelkaMunk {
    private static final double DARKEST = 0.02;
    private static final double LIGHTEST = 0.95;

    private KubelkaMunk() {}

    /** A reflectance that plastics can have: 0.02…0.95. */
    static double limited(double reflectance) {
        return Math.min(LIGHTEST, Math.max(DARKEST, reflectance));
    }

    static LinearRgb limited(LinearRgb c) {
        return new LinearRgb(limited(c.red()), limited(c.green()), limited(c.blue()));
    }

    /** K/S of a thick piece, its reflectance taken as {@link #limited}. */
    static double ratio(double reflectance) {
        double r = limited(reflectance);
        return (1 - r) * (1 - r) / (2 * r);
    }

    /** Reflectance of a thick piece. */
    static double reflectance(double ratio) {
        return 1 + ratio - Math.sqrt(ratio * ratio + 2 * ratio);
    }

    /**
     * Reflectance of a layer over a background: (1 − R₉ (a − b coth bSx)) / (a − R₉ + b coth bSx), with a = 1 + K/S and b =
     * √(a² − 1).
     *
     * @param thick reflectance of a thick piece of it
     * @param background R₉
     * @param depth S times its thickness
     */
    static double over(double thick, double background, double depth) {
        double a = 1 + ratio(thick);
        double b = Math.sqrt(a * a - 1);
        double x = b * depth;
        if (x == 0) {
            return background;
        }
        double coth = 1 / Math.tanh(x);
        return (1 - background * (a - b * coth)) / (a - background + b * coth);
    }

    /** What comes through a layer: b / (a sinh bSx + b cosh bSx). */
    static double through(double thick, double depth) {
        double a = 1 + ratio(thick);
        double b = Math.sqrt(a * a - 1);
        double x = b * depth;
        return b / (a * Math.sinh(x) + b * Math.cosh(x));
    }
}
