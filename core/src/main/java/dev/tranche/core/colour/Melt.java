package dev.tranche.core.colour;

/**
 * What two plastics look like once they have run together.
 *
 * <p>Each linear channel is taken as the reflectance R of a thick, opaque layer, limited to 0.02…0.95. Kubelka
 * and Munk's ratio of absorption to scattering, K/S = (1 − R)² / 2R, adds up by volume fraction, and R comes
 * back as 1 + K/S − √((K/S)² + 2 K/S). Source: Kubelka and Munk, "Ein Beitrag zur Optik der Farbanstriche",
 * Zeitschrift für technische Physik 12 (1931).
 */
public final class Melt {
    private static final double DARKEST = 0.02;
    private static final double LIGHTEST = 0.95;

    private Melt() {}

    /**
     * @param share volume fraction of {@code first}, 0…1; the rest is {@code second}
     * @return the reflectance of the mix
     */
    public static LinearRgb mix(LinearRgb first, LinearRgb second, double share) {
        if (!(share >= 0 && share <= 1)) {
            throw new IllegalArgumentException("a volume fraction lies between 0 and 1, not " + share);
        }
        return new LinearRgb(
                channel(first.red(), second.red(), share),
                channel(first.green(), second.green(), share),
                channel(first.blue(), second.blue(), share));
    }

    private static double channel(double first, double second, double share) {
        double ks = share * absorption(first) + (1 - share) * absorption(second);
        return 1 + ks - Math.sqrt(ks * ks + 2 * ks);
    }

    private static double absorption(double reflectance) {
        double r = Math.min(LIGHTEST, Math.max(DARKEST, reflectance));
        return (1 - r) * (1 - r) / (2 * r);
    }
}
