package dev.tranche.core.colour;

/**
 * Linear light on the sRGB primaries; 1 is the white point, D65. Read as reflectance, it is what a plastic
 * gives back of the light in three broad bands.
 */
public record LinearRgb(double red, double green, double blue) {

    /** Relative luminance Y, 0…1, with the weights of IEC 61966-2-1. */
    public double luminance() {
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
    }

    /** CIE 1976 L*a*b* for D65 and the 2° observer (CIE 15), through the matrix of IEC 61966-2-1. */
    public Lab lab() {
        double x = 0.4124 * red + 0.3576 * green + 0.1805 * blue;
        double y = luminance();
        double z = 0.0193 * red + 0.1192 * green + 0.9505 * blue;
        double fx = f(x / 0.9505);
        double fy = f(y);
        double fz = f(z / 1.0890);
        return new Lab(116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz));
    }

    private static double f(double t) {
        double limit = 6.0 / 29;
        return t > limit * limit * limit ? Math.cbrt(t) : t / (3 * limit * limit) + 4.0 / 29;
    }
}
