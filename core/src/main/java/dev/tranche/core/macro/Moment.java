package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;

/**
 * Where and between what an event happens: all a macro needs to know.
 *
 * @param number of the swap, the turn of a blend or the halt among those of its kind, from 1
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
    /** Over what stands, mm; common practice. */
    private static final double OVER = 1;

    /** Files give heights to a hundredth of a millimetre or finer: what is less is not higher. */
    private static final double GRAIN = 0.01;

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

    /** How far the nozzle has to rise to pass over all that stands, mm, to a thousandth; 0 where nothing is higher than it. */
    double clearance() {
        double higher = higher();
        return higher == 0 ? 0 : higher + OVER;
    }

    private double higher() {
        double higher = Math.round((standing - entry.z()) * 1000) / 1000.0;
        return higher < GRAIN ? 0 : higher;
    }

    /** Whether it and all that stands stay below {@code roof} when it rises by so much, mm. */
    public boolean hasRoom(double rise, double roof) {
        return entry.z() + Math.max(rise, clearance()) < roof;
    }

    /** The same whenever it comes and at whatever height, beside what stands as much higher. */
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
                higher(),
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
