package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;

/**
 * Where and between what an event happens: all a macro needs to know.
 *
 * @param number of the swap or halt in its print, from 1
 * @param of how many
 * @param layer that is printed next, from 1
 * @param out name of the spool that comes out, as {@code in} of the one that goes in
 * @param temperatureOut °C of the spool that comes out, as {@code temperatureIn}; 0 to leave it
 * @param standby °C while it waits
 * @param purge mm of filament to push through
 * @param extruder virtual extruder that prints next, from 0
 * @param note what a halt is for
 * @param entry the controller's state when the macro begins
 * @param standing how high plastic stands anywhere on the bed by then, mm as the file has heights
 * @param byRoutine whether the purge is left to the machine's own routine
 * @param turns whether a blend turns into another, for which nobody has to come
 */
public record Moment(
        int number,
        int of,
        int layer,
        String out,
        String in,
        int temperatureOut,
        int temperatureIn,
        int standby,
        double purge,
        int extruder,
        String note,
        ControllerState entry,
        double standing,
        boolean byRoutine,
        boolean turns) {

    /** With nothing on the bed that stands higher than the nozzle. */
    public Moment(
            int number,
            int of,
            int layer,
            String out,
            String in,
            int temperatureOut,
            int temperatureIn,
            int standby,
            double purge,
            int extruder,
            String note,
            ControllerState entry) {
        this(
                number,
                of,
                layer,
                out,
                in,
                temperatureOut,
                temperatureIn,
                standby,
                purge,
                extruder,
                note,
                entry,
                entry.z(),
                false,
                false);
    }

    /** Slot of a feeder or selector box: the extruders' filaments lie in it in their order. */
    public int slot() {
        return extruder + 1;
    }

    /** The same whenever it comes and at whatever height. */
    public Moment anyHeight() {
        return new Moment(
                0,
                of,
                0,
                out,
                in,
                temperatureOut,
                temperatureIn,
                standby,
                purge,
                extruder,
                note,
                entry.at(0),
                0,
                byRoutine,
                turns);
    }

    public Moment at(ControllerState other) {
        return with(out, in, extruder, other, standing, byRoutine, turns);
    }

    public Moment onto(int other) {
        return with(out, in, other, entry, standing, byRoutine, turns);
    }

    /** Beside plastic that is as high, mm; the nozzle itself stands on some. */
    public Moment beside(double height) {
        return with(out, in, extruder, entry, Math.max(height, entry.z()), byRoutine, turns);
    }

    /** With the purge left to the machine's own routine, if so. */
    public Moment leavingPurge(boolean toRoutine) {
        return with(out, in, extruder, entry, standing, toRoutine, turns);
    }

    /** The same where no spool is swapped: a blend turns into another. */
    public Moment turning() {
        return with(out, in, extruder, entry, standing, byRoutine, true);
    }

    /** With other names for what comes out and what goes in. */
    public Moment naming(String otherOut, String otherIn) {
        return with(otherOut, otherIn, extruder, entry, standing, byRoutine, turns);
    }

    private Moment with(
            String outName,
            String inName,
            int onto,
            ControllerState at,
            double high,
            boolean toRoutine,
            boolean turning) {
        return new Moment(
                number,
                of,
                layer,
                outName,
                inName,
                temperatureOut,
                temperatureIn,
                standby,
                purge,
                onto,
                note,
                at,
                high,
                toRoutine,
                turning);
    }
}
