package dev.tranche.core.gcode;

/**
 * What a printer knows at one line of a file, as far as a macro has to leave it as it was.
 *
 * @param x mm, in the coordinates the file uses, as {@code y} and {@code z}
 * @param e the extruder's count, mm
 * @param draw how far filament is drawn back
 * @param awaited how far the file takes it to be drawn back where it goes on: at a change of tools, as far as the next tool's
 *     was when it was left
 * @param feed mm/s
 * @param modes in which places and filament are counted
 * @param units in which numbers are given
 * @param nozzleTemperature last asked for, °C; {@link #UNKNOWN} if none was
 * @param nozzleNow what the nozzle has come to by then, °C
 * @param trim fans, accelerations, flow
 */
public record ControllerState(
        double x,
        double y,
        double z,
        double e,
        Draw draw,
        Draw awaited,
        double feed,
        Modes modes,
        Units units,
        double nozzleTemperature,
        double nozzleNow,
        Trim trim) {

    /** The temperature of a nozzle that the file never sets: whoever starts the print has heated it. */
    public static final double UNKNOWN = -1;

    /** Hot, absolute, in millimetres, standing at a place. */
    public static ControllerState standingAt(double x, double y, double z, double nozzleTemperature) {
        return new ControllerState(
                x,
                y,
                z,
                0,
                Draw.NONE,
                Draw.NONE,
                50,
                Modes.ABSOLUTE,
                Units.MILLIMETRES,
                nozzleTemperature,
                Math.max(Heater.ROOM, nozzleTemperature),
                Trim.NONE);
    }

    /** The same at another height. */
    public ControllerState at(double height) {
        return new ControllerState(
                x, y, height, e, draw, awaited, feed, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** The same before a file that takes filament to be drawn back otherwise. */
    ControllerState awaiting(Draw other) {
        return new ControllerState(x, y, z, e, draw, other, feed, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** The same, standing elsewhere. */
    public ControllerState standing(double otherX, double otherY, double otherZ) {
        return new ControllerState(
                otherX, otherY, otherZ, e, draw, awaited, feed, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** The same just after plastic was laid to a place, with that count and feed. */
    ControllerState asLaid(double toX, double toY, double toZ, double count, double laidAt) {
        return new ControllerState(
                toX, toY, toZ, count, Draw.NONE, Draw.NONE, laidAt, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** With the filament drawn back as the file awaits it. */
    public ControllerState asAwaited() {
        return new ControllerState(
                x, y, z, e, awaited, awaited, feed, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** With filament drawn back otherwise, {@code now}, than what goes on takes it to be. */
    public ControllerState drawn(Draw now, Draw after) {
        return new ControllerState(x, y, z, e, now, after, feed, modes, units, nozzleTemperature, nozzleNow, trim);
    }

    /** With what goes on taking filament to be drawn back so much further, mm; and with that so, where {@code isSo}. */
    ControllerState drawnFurther(double by, boolean isSo) {
        Draw further = new Draw(awaited.length() + by, awaited.byFirmware());
        return drawn(isSo ? further : draw, further);
    }

    /** With another temperature asked for, °C. */
    public ControllerState heatedTo(double degrees) {
        return new ControllerState(x, y, z, e, draw, awaited, feed, modes, units, degrees, nozzleNow, trim);
    }

    /** Whether filament has to be moved before the file can go on. */
    boolean owesFilament() {
        return !draw.isAs(awaited);
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
                && units.equals(other.units);
    }
}
