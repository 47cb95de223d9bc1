package dev.tranche.core.colour;

/**
 * A plastic in layers so thin that what lies beneath shows through.
 *
 * <p>Kubelka and Munk: a layer of thickness x over a background of reflectance R₉ gives back R = (1 − R₉ (a − b coth
 * bSx)) / (a − R₉ + b coth bSx), with a = 1 + K/S and b = √(a² − 1). K/S follows from the colour of a thick piece,
 * limited to 0.02…0.95 a channel; S is one for all channels, and such that at the cover depth the luminance over black
 * is 0.98 of that over white, which is how ISO 6504-3 and ASTM D2805 define hiding. Source: P. Kubelka, "New
 * Contributions to the Optics of Intensely Light-Scattering Materials", Journal of the Optical Society of America 38
 * (1948).
 *
 * @param thick reflectance of a piece so thick that nothing shows through
 * @param scattering S, 1/mm
 */
public record Film(LinearRgb thick, double scattering) {
    /** Luminance over black divided by that over white at which a layer counts as hiding. */
    public static final double HIDING = 0.98;

    private static final double BLACK = 0;
    private static final double WHITE = 1;
    private static final double DARKEST = 0.02;
    private static final double LIGHTEST = 0.95;

    /** @param coverDepth thickness at which it hides what lies under it, mm, above 0 */
    public static Film of(Srgb colour, double coverDepth) {
        if (!(coverDepth > 0)) {
            throw new IllegalArgumentException("a cover depth is above 0 mm, not " + coverDepth);
        }
        LinearRgb thick = limited(colour.linear());
        double low = 1e-6;
        double high = 1e6;
        for (int i = 0; i < 200; i++) {
            double middle = Math.sqrt(low * high);
            if (new Film(thick, middle).contrast(1) < HIDING) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return new Film(thick, high / coverDepth);
    }

    private static LinearRgb limited(LinearRgb c) {
        return new LinearRgb(limited(c.red()), limited(c.green()), limited(c.blue()));
    }

    private static double limited(double reflectance) {
        return Math.min(LIGHTEST, Math.max(DARKEST, reflectance));
    }

    /** Luminance over black divided by luminance over white, of a layer {@code thickness} mm thick. */
    public double contrast(double thickness) {
        LinearRgb black = over(new LinearRgb(BLACK, BLACK, BLACK), thickness);
        return black.luminance()
                / over(new LinearRgb(WHITE, WHITE, WHITE), thickness).luminance();
    }

    /** What is seen of a layer {@code thickness} mm thick on something that gives back {@code background}. */
    public LinearRgb over(LinearRgb background, double thickness) {
        return new LinearRgb(
                over(thick.red(), background.red(), thickness),
                over(thick.green(), background.green(), thickness),
                over(thick.blue(), background.blue(), thickness));
    }

    private double over(double own, double background, double thickness) {
        double a = 1 + (1 - own) * (1 - own) / (2 * own);
        double b = Math.sqrt(a * a - 1);
        double x = b * scattering * thickness;
        if (x == 0) {
            return background;
        }
        double coth = 1 / Math.tanh(x);
        return (1 - background * (a - b * coth)) / (a - background + b * coth);
    }

    /**
     * How many layers it takes until nobody sees what lies beneath: the least number whose colour over {@code under}
     * differs from that of a thick piece by at most {@code tolerance}, by CIEDE2000.
     *
     * @param layer thickness of one, mm
     */
    public int layersToHide(LinearRgb under, double layer, double tolerance) {
        Lab own = thick.lab();
        int layers = 1;
        while (layers < 1000 && over(under, layers * layer).lab().differenceTo(own) > tolerance) {
            layers++;
        }
        return layers;
    }
}
