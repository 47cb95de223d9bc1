package dev.tranche.core.colour;

/**
 * A plastic in layers so thin that what lies beneath shows through.
 *
 * <p>What is seen follows from {@link KubelkaMunk}; K/S from the colour of a thick piece. S is one for all channels, and such
 * that at the cover depth the luminance over black is 0.98 of that over white, which is how ISO 6504-3 and ASTM D2805
 * define hiding.
 *
 * @param thick reflectance of a piece so thick that nothing shows through
 * @param scattering S, 1/mm
 */
public record Film(LinearRgb thick, double scattering) {
    /** Luminance over black divided by that over white at which a layer counts as hiding. */
    public static final double HIDING = 0.98;

    private static final double BLACK = 0;
    private static final double WHITE = 1;

    /** @param coverDepth thickness at which it hides what lies under it, mm, above 0 */
    public static Film of(Srgb colour, double coverDepth) {
        if (!(coverDepth > 0)) {
            throw new IllegalArgumentException("a cover depth is above 0 mm, not " + coverDepth);
        }
        LinearRgb thick = KubelkaMunk.limited(colour.linear());
        double low = 1e-6;
        double high = 1e6;
        // Until no double lies between them.
        for (double middle = 1; low < middle && middle < high; middle = Math.sqrt(low * high)) {
            if (new Film(thick, middle).contrast(1) < HIDING) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return new Film(thick, high / coverDepth);
    }

    /** Luminance over black divided by luminance over white, of a layer {@code thickness} mm thick. */
    public double contrast(double thickness) {
        LinearRgb black = over(new LinearRgb(BLACK, BLACK, BLACK), thickness);
        return black.luminance()
                / over(new LinearRgb(WHITE, WHITE, WHITE), thickness).luminance();
    }

    /** What is seen of a layer {@code thickness} mm thick on something that gives back {@code background}. */
    public LinearRgb over(LinearRgb background, double thickness) {
        double depth = scattering * thickness;
        return new LinearRgb(
                KubelkaMunk.over(thick.red(), background.red(), depth),
                KubelkaMunk.over(thick.green(), background.green(), depth),
                KubelkaMunk.over(thick.blue(), background.blue(), depth));
    }

    /** A layer of it {@code thickness} mm thick, by itself. */
    public Slab slab(double thickness) {
        double depth = scattering * thickness;
        LinearRgb back = over(new LinearRgb(BLACK, BLACK, BLACK), thickness);
        return new Slab(
                back,
                back,
                new LinearRgb(
                        KubelkaMunk.through(thick.red(), depth),
                        KubelkaMunk.through(thick.green(), depth),
                        KubelkaMunk.through(thick.blue(), depth)));
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
