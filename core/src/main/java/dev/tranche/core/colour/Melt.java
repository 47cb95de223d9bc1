package dev.tranche.core.colour;

import java.util.List;

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
                reflectance(share * absorption(first.red()) + (1 - share) * absorption(second.red())),
                reflectance(share * absorption(first.green()) + (1 - share) * absorption(second.green())),
                reflectance(share * absorption(first.blue()) + (1 - share) * absorption(second.blue())));
    }

    /**
     * Any number of plastics run together.
     *
     * @param shares volume fractions, one a plastic, 0 or more, that sum to 1
     */
    public static LinearRgb mix(List<LinearRgb> plastics, List<Double> shares) {
        if (plastics.isEmpty() || plastics.size() != shares.size()) {
            throw new IllegalArgumentException(plastics.size() + " plastics and " + shares.size() + " shares");
        }
        double red = 0;
        double green = 0;
        double blue = 0;
        for (int i = 0; i < plastics.size(); i++) {
            red += shares.get(i) * absorption(plastics.get(i).red());
            green += shares.get(i) * absorption(plastics.get(i).green());
            blue += shares.get(i) * absorption(plastics.get(i).blue());
        }
        return new LinearRgb(reflectance(red), reflectance(green), reflectance(blue));
    }

    private static double reflectance(double ks) {
        return 1 + ks - Math.sqrt(ks * ks + 2 * ks);
    }

    private static double absorption(double reflectance) {
        double r = Math.min(LIGHTEST, Math.max(DARKEST, reflectance));
        return (1 - r) * (1 - r) / (2 * r);
    }
}
