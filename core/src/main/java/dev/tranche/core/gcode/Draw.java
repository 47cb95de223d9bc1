package dev.tranche.core.gcode;

/**
 * How far filament is drawn back into a nozzle.
 *
 * @param length mm, by moves of the extruder, since it last came out; 0 or more
 * @param byFirmware whether the firmware itself has drawn it back as well (G10), and not pushed it out again (G11)
 */
public record Draw(double length, boolean byFirmware) {
    public static final Draw NONE = new Draw(0, false);

    public static Draw of(double length) {
        return new Draw(length, false);
    }

    /** Whether a file can go on from one as from the other; to 1 µm. */
    public boolean isAs(Draw other) {
        return Math.abs(length - other.length) < 0.001 && byFirmware == other.byFirmware;
    }
}
