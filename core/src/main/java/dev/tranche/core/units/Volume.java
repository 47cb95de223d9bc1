package dev.tranche.core.units;

import dev.tranche.core.speech.Refusal;

/**
 * A volume of plastic.
 *
 * @param cubicMillimetres mm³, finite, not negative
 */
public record Volume(double cubicMillimetres) {
    public static final Volume NONE = new Volume(0);

    public Volume {
        if (!(cubicMillimetres >= 0) || Double.isInfinite(cubicMillimetres)) {
            throw Refusal.of("A volume of %s mm³ cannot be; give 0 or more.", cubicMillimetres);
        }
    }

    public Volume plus(Volume other) {
        return new Volume(cubicMillimetres + other.cubicMillimetres);
    }

    /** What of it is left; nothing where {@code other} is more. */
    public Volume less(Volume other) {
        return new Volume(Math.max(0, cubicMillimetres - other.cubicMillimetres));
    }

    public Volume times(double factor) {
        return new Volume(cubicMillimetres * factor);
    }

    /**
     * Mass of this volume of a material.
     *
     * @param density g/cm³
     * @return grams
     */
    public double grams(double density) {
        return cubicMillimetres * density / 1000;
    }
}
