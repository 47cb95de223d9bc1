package dev.tranche.core.gcode;

/**
 * In which units a file gives its numbers.
 *
 * @param inches G20 in force
 * @param diameter of the filament, mm, where the extruder counts volume (M200 D); 0 where it counts length
 */
public record Units(boolean inches, double diameter) {
    public static final Units MILLIMETRES = new Units(false, 0);

    private static final double INCH = 25.4;

    /** mm in the unit of places. */
    public double places() {
        return inches ? INCH : 1;
    }

    /** mm of filament in the unit of the extruder: a mm³ or a cubic inch of volume, or a unit of length. */
    public double filament() {
        return countsVolume() ? Math.pow(places(), 3) / (Math.PI * diameter * diameter / 4) : places();
    }

    public boolean countsVolume() {
        return diameter > 0;
    }

    Units inInches(boolean other) {
        return new Units(other, diameter);
    }

    Units countingVolumeOf(double filament) {
        return new Units(inches, filament);
    }
}
