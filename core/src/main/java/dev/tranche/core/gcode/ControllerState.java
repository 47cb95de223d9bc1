package dev.tranche.core.gcode;

/**
 * What a printer knows at one line of a file, as far as a macro has to leave it as it was.
 *
 * @param x mm, in the coordinates the file uses, as {@code y} and {@code z}
 * @param e the extruder's count, mm
 * @param retracted mm of filament drawn back since it last came out; 0 or more
 * @param drawn whether the firmware itself has drawn filament back (G10), and not pushed it out again (G11)
 * @param feed mm/s
 * @param modes in which places and filament are counted
 * @param inches G20 in force
 * @param nozzleTemperature last asked for, °C; {@link #UNKNOWN} if none was
 */
public record ControllerState(
        double x,
        double y,
        double z,
        double e,
        double retracted,
        boolean drawn,
        double feed,
        Modes modes,
        boolean inches,
        double nozzleTemperature) {

    /** The temperature of a nozzle that the file never sets: whoever starts the print has heated it. */
    public static final double UNKNOWN = -1;

    /** Hot, absolute, in millimetres, standing at a place. */
    public static ControllerState standingAt(double x, double y, double z, double nozzleTemperature) {
        return new ControllerState(x, y, z, 0, 0, false, 50, Modes.ABSOLUTE, false, nozzleTemperature);
    }

    /** Whether a file that goes on from {@code other} prints as if it had never been left; to 1 µm. */
    public boolean continuesAs(ControllerState other) {
        double near = 0.0015;
        return Math.abs(x - other.x) < near
                && Math.abs(y - other.y) < near
                && Math.abs(z - other.z) < near
                && Math.abs(e - other.e) < near
                && Math.abs(feed - other.feed) < near
                && modes.means(other.modes)
                && inches == other.inches;
    }
}
