package dev.tranche.core.macro;

import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.MotionClock;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * What happens when a rendered macro runs on the interpreter that also reads sliced files.
 *
 * @param machineSeconds the machine's own time, without the person's
 * @param pushed mm of filament pushed, {@code pulled} mm drawn back
 * @param faults what would go wrong, each with its step
 */
public record DryRun(double machineSeconds, double pushed, double pulled, List<Fault> faults) {
    private static final double COLD = 150;
    /** Filament speed of a firmware's own unloading and loading, mm/s; from memory. */
    private static final double ROUTINE_SPEED = 15;

    /**
     * @param step index of the step at fault; {@link RenderedLine#FRAME} for the whole macro
     * @param sentence what is wrong
     */
    public record Fault(int step, String sentence) {}

    /**
     * Runs {@code lines} from {@code entry} on {@code printer}.
     */
    public static DryRun of(List<RenderedLine> lines, Printer printer, ControllerState entry) {
        String text = lines.stream().map(RenderedLine::text).collect(Collectors.joining("\n"));
        GcodeScanner scanner = new GcodeScanner(new ByteArrayInputStream(text.getBytes(StandardCharsets.US_ASCII)));
        Controller controller = new Controller(entry);
        MotionClock clock = new MotionClock(printer.motion());
        List<Fault> faults = new ArrayList<>();
        double pushed = 0;
        double pulled = 0;
        try {
            for (RenderedLine line : lines) {
                scanner.next();
                switch (controller.execute(scanner)) {
                    case MOVE -> {
                        pushed += Math.max(0, controller.de());
                        pulled += Math.max(0, -controller.de());
                        clock.move(
                                controller.dx(),
                                controller.dy(),
                                controller.dz(),
                                controller.de(),
                                controller.length(),
                                controller.chord(),
                                controller.speed(),
                                controller.acceleration(),
                                0);
                        check(controller, printer, entry, line, faults);
                    }
                    case DWELL, HEAT -> clock.pause(controller.pause(), 0);
                    case TOOL, NONE -> {
                        if (scanner.is('M', 600)) {
                            double length = printer.drive().gearsToNozzle();
                            clock.pause(2 * length / ROUTINE_SPEED, 0);
                            pushed += length;
                            pulled += length;
                        }
                    }
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        clock.stop();
        if (!controller.state().continuesAs(entry)) {
            faults.add(new Fault(RenderedLine.FRAME, "After the macro the file would not go on where it was left."));
        }
        return new DryRun(clock.total(), pushed, pulled, List.copyOf(faults));
    }

    private static void check(
            Controller controller, Printer printer, ControllerState entry, RenderedLine line, List<Fault> faults) {
        boolean moved = controller.length() > 0;
        if (moved && !reaches(printer.bed(), controller)) {
            faults.add(new Fault(
                    line.step(),
                    "The nozzle leaves the bed at X %.1f Y %.1f.".formatted(controller.x(), controller.y())));
        }
        if (moved && controller.z() < entry.z() - 0.001) {
            faults.add(new Fault(line.step(), "The nozzle dips into the print at Z %.2f.".formatted(controller.z())));
        }
        if (controller.de() != 0 && controller.nozzleTarget() >= 0 && controller.nozzleTarget() < COLD) {
            faults.add(new Fault(
                    line.step(),
                    "Filament is moved with the nozzle at %.0f °C, too cold.".formatted(controller.nozzleTarget())));
        }
    }

    private static boolean reaches(Bed bed, Controller c) {
        return bed.contains(new Point(c.x(), c.y()));
    }
}
