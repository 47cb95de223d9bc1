package dev.tranche.core.gcode;

import dev.tranche.core.machine.Dialect.Counting;

/**
 * Lines whose filament firmwares count differently, and to which of them they are lines of plastic: as thick as a nozzle lays
 * them. A program writes for one firmware, and what it wrote tells which.
 */
final class Readings {
    /** mm of filament on a mm of way: from 0.2 × 0.05 mm out of 2.85 mm to 1.5 × 0.8 mm out of 1.75 mm (common practice). */
    private static final double THINNEST = 0.0015;

    private static final double THICKEST = 0.5;
    /** Shorter lines say little, mm. */
    private static final double SHORTEST = 0.5;
    /** So few say nothing. */
    private static final int FEWEST = 10;

    private boolean differ;
    /** As the file last gave it, mm. */
    private double said;

    private int lines;
    private int byItself;
    private int withPlaces;

    /**
     * @param modes which firmwares read differently
     * @param number of the line's filament, mm
     * @param way mm, 0 where the nozzle stands
     */
    void saw(Modes modes, double number, double way) {
        differ = true;
        if (way > SHORTEST) {
            boolean added = isPlastic(number, way);
            boolean counted = isPlastic(number - said, way);
            lines++;
            byItself += (modes.relativeFilament() ? added : counted) ? 1 : 0;
            withPlaces += (modes.relativeFilament() ? counted : added) ? 1 : 0;
        }
        said = number;
    }

    /** After G92. */
    void redefined(double count) {
        said = count;
    }

    private static boolean isPlastic(double filament, double way) {
        return filament > THINNEST * way && filament < THICKEST * way;
    }

    boolean differ() {
        return differ;
    }

    /** How filament has to be counted for most of it to be lines of plastic; not said where both or neither makes them so. */
    Counting sense() {
        if (lines < FEWEST) {
            return Counting.NOT_SAID;
        }
        if (isMost(byItself) && !isMost(withPlaces)) {
            return Counting.BY_ITSELF;
        }
        return isMost(withPlaces) && !isMost(byItself) ? Counting.WITH_PLACES : Counting.NOT_SAID;
    }

    /** A firmware that is not meant makes plastic of some lines by chance. */
    private boolean isMost(int count) {
        return count > 0.8 * lines;
    }
}
