package dev.tranche.core.rig;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.Moment;
import org.locationtech.jts.geom.Coordinate;

/** A printer set up for swapping. */
public record Rig(Printer printer, Rack rack, MacroBook macros) {
    private static final double TYPICAL_HEIGHT = 3;
    private static final double TYPICAL_PURGE = 150;

    public Rig with(Printer other) {
        return new Rig(other, rack, macros);
    }

    public Rig with(Rack other) {
        return new Rig(printer, other, macros);
    }

    public Rig with(MacroBook other) {
        return new Rig(printer, rack, other);
    }

    /**
     * A moment to try macros at: over the middle of the bed, 3 mm up, in a print of three colours.
     *
     * @param extruder that prints next
     */
    public Moment typical(Event event, int extruder) {
        Coordinate middle = printer.bed().bounds().centre();
        ControllerState entry = ControllerState.standingAt(middle.x, middle.y, TYPICAL_HEIGHT, 210);
        boolean swap = event == Event.SWAP;
        String in = swap ? "B Light" : event == Event.FIRST_LOAD ? "A Dark" : "";
        return new Moment(
                1,
                2,
                event == Event.FIRST_LOAD ? 1 : 16,
                swap ? "A Dark" : "",
                in,
                210,
                205,
                rack.extruder(Math.min(extruder, rack.size() - 1)).standby(),
                swap ? TYPICAL_PURGE : 0,
                extruder,
                event == Event.HALT ? "lay the nut in" : "",
                entry);
    }

    /** A dry run of {@code macro} at a typical moment. */
    public DryRun tryOut(Macro macro, int extruder) {
        return DryRun.of(macro, macros, printer, typical(macro.event(), extruder));
    }
}
