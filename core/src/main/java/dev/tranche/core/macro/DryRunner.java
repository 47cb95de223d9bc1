package dev.tranche.core.macro;

import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.MotionClock;
import dev.tranche.core.gcode.OwnLines;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Runs rendered lines on a controller and notes time, filament, path and faults. */
final class DryRunner {
    private static final double COLD = 150;
    private static final double NEAR = 0.01;

    private final Macro macro;
    private final Printer printer;
    private final Moment moment;
    private final List<Macro> hostScripts;
    private final ControllerState entry;
    private final Controller controller;
    private final MotionClock clock;
    private final List<Fault> faults = new ArrayList<>();
    private final List<DryRun.Leg> path = new ArrayList<>();
    private final List<DryRun.Stay> stays = new ArrayList<>();
    private final Map<Integer, Double> person = new TreeMap<>();
    /** When it was told a temperature last, s. */
    private double told;

    private double pushed;
    private double pulled;
    private final Purging purging;
    private boolean purged;
    private boolean swaps;
    private final boolean fed;
    private boolean attended;
    private int stops;
    private boolean inHost;

    DryRunner(Macro macro, Printer printer, Moment moment, List<Macro> hostScripts) {
        this.macro = macro;
        this.printer = printer;
        this.moment = moment;
        this.hostScripts = hostScripts;
        this.entry = moment.entry();
        this.controller = new Controller(entry, printer.abilities().dialect());
        this.clock = new MotionClock(printer.motion());
        this.purging = Purging.of(macro, moment);
        // Where a blend turns nothing has to be fed, and nobody is waited for.
        this.fed = moment.turns() || macro.feedsItself(moment.extruder());
        this.swaps = moment.turns();
    }

    DryRun run(List<RenderedLine> lines) {
        execute(lines, true);
        return finish(lines);
    }

    DryRun finish(List<RenderedLine> lines) {
        clock.stop();
        atTheEnd();
        faults.addAll(StepOrder.faults(macro, printer, moment));
        List<DryRun.StepTime> strip = new ArrayList<>();
        for (int i = 0; i < macro.steps().size(); i++) {
            strip.add(new DryRun.StepTime(i, clock.seconds(i + 1), person.getOrDefault(i, 0.0)));
        }
        strip.add(new DryRun.StepTime(RenderedLine.FRAME, clock.seconds(0), 0));
        List<Fault> found = faults.stream()
                .collect(Collectors.toMap(
                        f -> f.step() + f.sentence(), f -> f, (a, b) -> a, java.util.LinkedHashMap::new))
                .values()
                .stream()
                .sorted(Comparator.comparing(Fault::severity))
                .toList();
        return new DryRun(
                lines,
                clock.total(),
                stops,
                person.values().stream().mapToDouble(Double::doubleValue).sum(),
                pushed,
                pulled,
                strip,
                path,
                stays,
                controller.state(),
                purging,
                attended,
                found);
    }

    /** @param own whether the lines are the macro's; faults of the host's scripts show where those are edited */
    void execute(List<RenderedLine> lines, boolean own) {
        if (own) {
            faults.addAll(AbilityFaults.of(macro, printer, lines));
        }
        String text = lines.stream().map(RenderedLine::text).collect(Collectors.joining("\n"));
        byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
        GcodeScanner scanner = new GcodeScanner(new ByteArrayInputStream(bytes), bytes.length + 2);
        ControllerState before = controller.state();
        int step = RenderedLine.FRAME;
        try {
            for (RenderedLine line : lines) {
                scanner.next();
                if (own && line.step() != step) {
                    modes(step, before);
                    step = line.step();
                    before = controller.state();
                }
                if (line.written()) {
                    obey(line, scanner);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        modes(step, before);
    }

    /** Before it is told another temperature it has cooled for as long as it was told the last one. */
    private void cool() {
        if (controller.isCooling()) {
            clock.stop();
        }
        double now = clock.total()
                + person.values().stream().mapToDouble(Double::doubleValue).sum();
        controller.cool(now - told);
        told = now;
    }

    private void obey(RenderedLine line, GcodeScanner scanner) {
        int account = line.step() + 1;
        double fromX = controller.x();
        double fromY = controller.y();
        double fromZ = controller.z();
        if (scanner.is('M', 104) || scanner.is('M', 109)) {
            cool();
        }
        switch (controller.execute(scanner)) {
            case MOVE -> {
                pushed += Math.max(0, controller.de());
                pulled += Math.max(0, -controller.de());
                clock.move(controller, account);
                moved(line, fromX, fromY, fromZ);
            }
            case DWELL -> {
                clock.pause(controller.pause(), account);
                boolean changes = controller.pause() >= 5;
                swaps |= changes;
                attended |= changes && !fed;
                waits(line, controller.pause());
            }
            case HEAT, BED -> clock.pause(controller.pause(), account);
            case TOOL -> {
                swaps = true;
                if (!printer.hotend().blends()) {
                    routine(account, Step.FirmwareRoutine.PLAIN);
                }
            }
            case NONE -> {
                if (scanner.is('G', 28)) {
                    path.add(new DryRun.Leg(
                            line.step(), fromX, fromY, fromZ, controller.x(), controller.y(), controller.z(), 0));
                }
            }
        }
        if (controller.nozzleTarget() > printer.hotend().hottest()) {
            fault(
                    Severity.STOP,
                    line,
                    Words.format(
                            "%.0f °C is more than the %d °C this printer allows; correct the temperature or the limit.",
                            controller.nozzleTarget(), printer.hotend().hottest()));
        }
        Optional<Command> command = Command.startingLine(line.text());
        boolean routine = command.filter(Command.M600::equals).isPresent();
        if (routine) {
            Step.FirmwareRoutine r =
                    step(line) instanceof Step.FirmwareRoutine known ? known : Step.FirmwareRoutine.PLAIN;
            detour(line, r);
            routine(account, r);
        }
        if (command.filter(Command::stops).isPresent() || step(line) instanceof Step.OwnPause) {
            stop(line, command);
        }
        if (step(line) instanceof Step.OwnPause && !isKnownStop(scanner, command)) {
            fault(
                    Severity.WARN,
                    line,
                    "Nothing says that this printer stops there; name the line's beginning under Abilities, as one at which it stops.");
        }
    }

    private boolean isKnownStop(GcodeScanner line, Optional<Command> command) {
        return command.filter(Command::stops).isPresent()
                || line.is('M', 226)
                || line.is('M', 601)
                || new OwnLines(printer.abilities().dialect()).stops(line);
    }

    /** The step a line belongs to, if it is one of the macro's own. */
    private Step step(RenderedLine line) {
        return inHost || line.step() < 0
                ? new Step.WaitForMoves()
                : macro.steps().get(line.step()).step();
    }

    private void stop(RenderedLine line, Optional<Command> command) {
        swaps = true;
        attended = true;
        stops++;
        double seconds = macro.person().toMillis() / 1000.0;
        if (purging.by() == Purging.By.PERSON && !purged && !inHost) {
            purged = true;
            pushed += purging.length();
            seconds += purging.seconds();
        }
        boolean host = command.filter(printer.abilities()::pausesHost).isPresent();
        if (host && !hostScripts.isEmpty() && !inHost) {
            hostPauses(line);
        } else if (command.filter(Command.M600::equals).isEmpty() && overThePrint()) {
            fault(
                    Severity.WARN,
                    line,
                    "The nozzle waits over the print and melts a blob into it; park first, at a park spot beside the part.");
        }
        person.merge(line.step(), seconds, Double::sum);
        waits(line, seconds);
    }

    /** Filament drawn out and pushed in by the firmware or a feeder, and the purge if that is left to it. */
    private void routine(int account, Step.FirmwareRoutine r) {
        double in = r.pushedIn(printer);
        double out = r.drawnOut(printer);
        clock.pause((in + out) / r.speed().orElse(Step.FirmwareRoutine.SPEED), account);
        pushed += in;
        pulled += out;
        if (purging.by() == Purging.By.ROUTINE && !purged) {
            purged = true;
            pushed += purging.length();
            clock.pause(purging.seconds(), account);
        }
    }

    /** The firmware's routine goes to where its parameters say, and back. */
    private void detour(RenderedLine line, Step.FirmwareRoutine r) {
        Optional<Point> spot = r.spot(printer);
        boolean told = line.words().stream().anyMatch(w -> w.text().startsWith("X") && !w.ignored());
        if (spot.isPresent() && told) {
            Point p = spot.get();
            reach(line, p);
            double z = controller.z();
            path.add(new DryRun.Leg(line.step(), controller.x(), controller.y(), z, p.x(), p.y(), z, 0));
            stays.add(new DryRun.Stay(path.size(), p));
            path.add(new DryRun.Leg(line.step(), p.x(), p.y(), z, controller.x(), controller.y(), z, 0));
        }
    }

    private void hostPauses(RenderedLine line) {
        MacroRenderer.Pair pair = MacroRenderer.renderPair(
                hostScripts.get(0), hostScripts.get(1), printer, moment.at(controller.state()), Optional.empty());
        inHost = true;
        execute(pair.pause().stream().map(l -> l.under(line.step())).toList(), false);
        execute(pair.resume().stream().map(l -> l.under(line.step())).toList(), false);
        inHost = false;
    }

    private void moved(RenderedLine line, double fromX, double fromY, double fromZ) {
        Controller c = controller;
        if (c.length() > 0 || c.de() != 0) {
            path.add(new DryRun.Leg(line.step(), fromX, fromY, fromZ, c.x(), c.y(), c.z(), c.de()));
        }
        // Where it was wiped, it is clean: the way back begins there.
        if (c.length() == 0 && c.de() > 0 || step(line) instanceof Step.Wipe) {
            stays();
        }
        if (c.length() > 0) {
            if (c.dx() != 0 || c.dy() != 0) {
                reach(line, new Point(c.x(), c.y()));
                if (fromZ < entry.z() + 0.05 && c.z() < entry.z() + 0.05) {
                    fault(
                            Severity.WARN,
                            line,
                            "The nozzle crosses the print at its own height and scratches it; lift first.");
                }
            }
            if (c.z() < entry.z() - 0.001) {
                fault(
                        Severity.STOP,
                        line,
                        Words.format(
                                "The nozzle dips into the print at Z %.2f; keep it above where it came from.", c.z()));
            }
            if (c.z() > printer.maxHeight().millimetres() + 0.001) {
                fault(
                        Severity.STOP,
                        line,
                        Words.format(
                                "The nozzle rises to Z %.2f, above the %s mm this printer has; lift less.",
                                c.z(), printer.maxHeight()));
            }
        }
        if (c.de() != 0 && c.nozzleTarget() >= 0 && c.nozzleTarget() < COLD) {
            fault(
                    Severity.STOP,
                    line,
                    Words.format(
                            "Filament is moved with the nozzle at %.0f °C, too cold; heat before it.",
                            c.nozzleTarget()));
        }
    }

    /** Where the print itself is, and where it was led before, is no fault of a line that goes there. */
    private void reach(RenderedLine line, Point p) {
        boolean alreadyThere = p.x() == entry.x() && p.y() == entry.y()
                || step(line) instanceof Step.Wipe
                        && printer.parkSpot().filter(printer::reaches).isEmpty();
        if (!printer.reaches(p) && !alreadyThere) {
            fault(
                    Severity.STOP,
                    line,
                    Words.format(
                            "The nozzle leaves its travel at X %.1f Y %.1f; move the spot, or correct the printer's travel.",
                            p.x(), p.y()));
        }
    }

    private void stays() {
        stays.add(new DryRun.Stay(path.size(), new Point(controller.x(), controller.y())));
    }

    private void waits(RenderedLine line, double seconds) {
        stays();
        long limit = printer.heaterLimit().toSeconds();
        if (seconds > limit) {
            fault(
                    Severity.WARN,
                    line,
                    Words.format(
                            "The nozzle cools after %d s at a standstill and this takes about %.0f s; raise the limit in the firmware, or be quicker.",
                            limit, seconds));
        }
    }

    private boolean overThePrint() {
        return Math.hypot(controller.x() - entry.x(), controller.y() - entry.y()) < NEAR;
    }

    /** What a step may not leave changed for the steps after it. */
    private void modes(int step, ControllerState before) {
        if (step == RenderedLine.FRAME) {
            return;
        }
        ControllerState now = controller.state();
        boolean places = now.modes().relativeMoves() != before.modes().relativeMoves();
        if (places) {
            faults.add(Fault.of(
                    Severity.STOP,
                    step,
                    "The step changes between absolute and relative places and does not change back; add G90."));
        }
        if (!places && !now.modes().means(before.modes())) {
            faults.add(Fault.of(
                    Severity.STOP,
                    step,
                    "The step changes how filament is counted and does not change back; add M83."));
        }
        if (!now.units().equals(before.units())) {
            faults.add(Fault.of(Severity.STOP, step, "The step changes the unit and does not change back; add G21."));
        }
    }

    private void atTheEnd() {
        ControllerState exit = controller.state();
        if (Math.hypot(exit.x() - entry.x(), exit.y() - entry.y()) > NEAR || Math.abs(exit.z() - entry.z()) > NEAR) {
            whole(Words.format(
                    "The macro does not return to where it came from, but to X %.2f Y %.2f Z %.2f; what your own lines move, they must move back.",
                    exit.x(), exit.y(), exit.z()));
        } else if (!exit.continuesAs(entry)) {
            whole(
                    "After the macro the file would not go on where it was left: modes, feed or the extruder's count have changed; put back what your own lines change.");
        }
        boolean drewBack = exit.draw().byFirmware() && !entry.draw().byFirmware();
        if (drewBack && !entry.awaited().byFirmware()) {
            whole("G10 draws filament back and no G11 pushes it out again; add G11.");
        }
        boolean pressed = printer.selector().isPresent()
                && macro.steps().stream()
                        .anyMatch(s -> s.happensFor(moment.extruder()) && s.step() instanceof Step.PressSwitch);
        if (macro.event() == Event.SWAP && !swaps && !pressed) {
            whole(
                    "The macro never stops the machine and calls no feeder, so no spool can be changed; add a wait or the firmware's routine.");
        }
        if (macro.event() == Event.HALT && !swaps) {
            whole("The macro never stops the machine, so there is no halt; add a wait.");
        }
    }

    private void whole(String sentence) {
        faults.add(Fault.of(Severity.STOP, RenderedLine.FRAME, sentence));
    }

    private void fault(Severity severity, RenderedLine line, String sentence) {
        faults.add(Fault.of(severity, line.step(), sentence));
    }
}
