package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Printer;
import java.util.List;

/**
 * What happens when a macro runs, told by the interpreter that also reads sliced files.
 *
 * @param lines of the macro, written or not
 * @param machineSeconds the machine's own time
 * @param personSeconds what the person takes at its stops
 * @param pushed mm of filament pushed, {@code pulled} mm drawn back
 * @param strip how long each step takes, in their order, the frame last
 * @param path of the nozzle
 * @param exit the controller's state at the end
 * @param faults worst first
 */
public record DryRun(
        List<RenderedLine> lines,
        double machineSeconds,
        double personSeconds,
        double pushed,
        double pulled,
        List<StepTime> strip,
        List<Leg> path,
        ControllerState exit,
        List<Fault> faults) {

    public DryRun {
        lines = List.copyOf(lines);
        strip = List.copyOf(strip);
        path = List.copyOf(path);
        faults = List.copyOf(faults);
    }

    /** Seconds one step takes of the machine and of the person. */
    public record StepTime(int step, double machine, double person) {}

    /** A straight piece of the nozzle's path, mm, with the filament fed along it; without length where only filament moves. Arcs are chords. */
    public record Leg(
            int step, double fromX, double fromY, double fromZ, double toX, double toY, double toZ, double fed) {}

    /** Runs {@code macro} on {@code printer} from the state of {@code moment}, without a host. */
    public static DryRun of(Macro macro, Printer printer, Moment moment) {
        return new DryRunner(macro, printer, moment, List.of()).run(MacroRenderer.render(macro, printer, moment));
    }

    /** As {@link #of}, with the host's scripts of {@code book} run wherever the macro makes the host pause. */
    public static DryRun of(Macro macro, MacroBook book, Printer printer, Moment moment) {
        if (macro.event().isHosts()) {
            return HostScripts.dryRun(macro, book, printer, moment);
        }
        List<Macro> scripts = book.answer(Event.HOST_PAUSE)
                .flatMap(p -> book.answer(Event.HOST_RESUME).map(r -> List.of(p, r)))
                .orElse(List.of());
        return new DryRunner(macro, printer, moment, scripts).run(MacroRenderer.render(macro, printer, moment));
    }

    /** The lines of a macro that is not the host's, without running them. */
    public static List<RenderedLine> lines(Macro macro, Printer printer, Moment moment) {
        return MacroRenderer.render(macro, printer, moment);
    }

    /** The lines after which a file can go on as it takes for granted, with nothing done before. */
    public static List<RenderedLine> goingOn(Printer printer, ControllerState there) {
        Macro nothing = Macro.of(Event.HALT);
        return MacroRenderer.render(nothing, printer, new Moment(1, 1, 1, "", "", 0, 0, 0, 0, 0, "", there));
    }

    public double seconds() {
        return machineSeconds + personSeconds;
    }
}
