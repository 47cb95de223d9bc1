package dev.tranche.core.colour;

import java.util.List;

/**
 * What plastics look like once they have run together: each linear channel is taken as the reflectance of a thick, opaque
 * layer, whose {@link KubelkaMunk} ratio of absorption to scattering adds up by volume fraction.
 */
public final class Melt {
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
                KubelkaMunk.reflectance(
                        share * KubelkaMunk.ratio(first.red()) + (1 - share) * KubelkaMunk.ratio(second.red())),
                KubelkaMunk.reflectance(
                        share * KubelkaMunk.ratio(first.green()) + (1 - share) * KubelkaMunk.ratio(second.green())),
                KubelkaMunk.reflectance(
                        share * KubelkaMunk.ratio(first.blue()) + (1 - share) * KubelkaMunk.ratio(second.blue())));
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
            red += shares.get(i) * KubelkaMunk.ratio(plastics.get(i).red());
            green += shares.get(i) * KubelkaMunk.ratio(plastics.get(i).green());
            blue += shares.get(i) * KubelkaMunk.ratio(plastics.get(i).blue());
        }
        return new LinearRgb(
                KubelkaMunk.reflectance(red), KubelkaMunk.reflectance(green), KubelkaMunk.reflectance(blue));
    }
}
