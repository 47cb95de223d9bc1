package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import java.util.ArrayList;
import java.util.List;

/**
 * What happens when a macro runs, told by the interpreter that also reads sliced files.
 *
 * @param lines of the macro, written or not
 * @param machineSeconds the machine's own time
 * @param stops how often it stops until a person says go on
 * @param personSeconds what the person takes at them
 * @param pushed mm of filament pushed, {@code pulled} mm drawn back
 * @param strip how long each step takes, in their order, the frame last
 * @param path of the nozzle
 * @param stays where the nozzle waits or purges, in their order
 * @param exit the controller's state at the end
 * @param purging how the purge is pushed through, {@code pushed} included
 * @param attended whether somebody has to stand by: a stop, or a wait in which a person changes the spool
 * @param faults worst first
 */
public record DryRun(
        List<RenderedLine> lines,
        double machineSeconds,
        int stops,
        double personSeconds,
        double pushed,
        double pulled,
        List<StepTime> strip,
        List<Leg> path,
        List<Stay> stays,
        ControllerState exit,
        Purging purging,
        boolean attended,
        List<Fault> faults) {
    /** No further off the nozzle stands where it printed, mm. */
    private static final double HERE = 0.5;

    public DryRun {
        lines = List.copyOf(lines);
        strip = List.copyOf(strip);
        path = List.copyOf(path);
        stays = List.copyOf(stays);
        faults = List.copyOf(faults);
    }

    /** Seconds one step takes of the machine and of the person. */
    public record StepTime(int step, double machine, double person) {}

    /** A straight piece of the nozzle's path, mm, with the filament fed along it; without length where only filament moves. Arcs are chords. */
    public record Leg(
            int step, double fromX, double fromY, double fromZ, double toX, double toY, double toZ, double fed) {}

    /**
     * The nozzle stands still.
     *
     * @param after so many legs of the path
     */
    public record Stay(int after, Point at) {}

    /** Runs {@code macro} on {@code printer} from the state of {@code moment}, without a host. */
    public static DryRun of(Macro macro, Printer printer, Moment moment) {
        Macro there = macro.at(moment);
        return new DryRunner(there, printer, moment, List.of()).run(MacroRenderer.render(there, printer, moment));
    }

    /** As {@link #of}, with the host's scripts of {@code book} run wherever the macro makes the host pause. */
    public static DryRun of(Macro macro, MacroBook book, Printer printer, Moment moment) {
        if (macro.event().isHosts()) {
            return HostScripts.dryRun(macro, book, printer, moment);
        }
        List<Macro> scripts = book.answer(Event.HOST_PAUSE)
                .flatMap(p -> book.answer(Event.HOST_RESUME).map(r -> List.of(p, r)))
                .orElse(List.of());
        Macro there = macro.at(moment);
        return new DryRunner(there, printer, moment, scripts).run(MacroRenderer.render(there, printer, moment));
    }

    /** The lines of a macro that is not the host's, without running them. */
    public static List<RenderedLine> lines(Macro macro, Printer printer, Moment moment) {
        return MacroRenderer.render(macro.at(moment), printer, moment);
    }

    /** The lines after which a file can go on as it takes for granted, with nothing done before. */
    public static List<RenderedLine> goingOn(Printer printer, ControllerState there) {
        Macro nothing = Macro.of(Event.HALT);
        return MacroRenderer.render(nothing, printer, new Moment(1, 1, 1, "", "", 0, 0, 0, 0, 0, "", there));
    }

    /**
     * The places that the nozzle passes on its way back from where it last stood elsewhere than at the print, where it stood first
     * and where the macro ends last; nothing where it never left.
     */
    public List<Point> wayBack() {
        for (int i = stays.size() - 1; i >= 0; i--) {
            Point stood = stays.get(i).at();
            if (Math.hypot(stood.x() - exit.x(), stood.y() - exit.y()) > HERE) {
                List<Point> way = new ArrayList<>(List.of(stood));
                path.subList(stays.get(i).after(), path.size()).forEach(leg -> {
                    Point next = new Point(leg.toX(), leg.toY());
                    if (!next.equals(way.get(way.size() - 1))) {
                        way.add(next);
                    }
                });
                return way;
            }
        }
        return List.of();
    }

    public double seconds() {
        return machineSeconds + personSeconds;
    }
}
