package dev.tranche.core.rehearse;

import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.MotionClock;
import dev.tranche.core.gcode.OwnLines;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.macro.Step;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * A printer that is only simulated. It takes lines of G-code as its firmware would, under the dialect and the abilities of one
 * {@link Printer}: what it does not understand it says so and leaves. It moves on a {@link MotionClock}, heats first-order, holds
 * one filament, and mixes in the nozzle. Where it stops, it takes no line until {@link #hand} says go on: hands are not on the
 * wire.
 *
 * <p>What it says: {@code ok} to every line; {@code Resend: n} where a number or a sum is wrong; what firmwares say at a stop;
 * and, in lines that begin with {@code //} and that a host may pass over, what somebody beside the machine would see. Not for
 * two threads.
 */
public final class StandIn {
    /** A wait of this many seconds is one in which somebody can do something. */
    private static final double LONG = 5;

    private static final double NEAR = 0.01;
    private static final int NOTHING = -1;

    /** Where its answers go. */
    public interface Wire {
        /** The last line is done. */
        void ok() throws IOException;

        void say(String line) throws IOException;
    }

    private enum Waits {
        NO,
        FOR_HANDS,
        /** In the routine, which loads as soon as there is something to load. */
        IN_ROUTINE,
        A_WHILE
    }

    private final Printer printer;
    private final Abilities abilities;
    private final Controller controller;
    private final MotionClock clock;
    private final OwnLines own;
    private final Strand strand;
    private final Warmth warmth = new Warmth();
    private final double gears;
    private final Map<Integer, Integer> slots = new HashMap<>();

    private long lastNumber;
    private long lines;
    private int stops;
    private int ignored = NOTHING;
    private int givesUp = NOTHING;
    private double powerUntil = Double.POSITIVE_INFINITY;
    private boolean dark;
    private Waits waits = Waits.NO;
    private double since;
    private double until;
    private int comes = NOTHING;
    private double comesAt;

    private int presses;
    private int slot;
    private boolean atSwitch;
    private double routineIn;
    /** What the machine's own routine pushes through at each change, mm. */
    private double routinePurge;

    private boolean coldTold;
    /** Whether filament has been moved, and before that something came that may have heated. */
    private boolean hasFed;

    private boolean mayHeat;
    /** From when somebody has said what feeds its inputs. */
    private Optional<Mixer> mixer = Optional.empty();

    private final int filaments;

    /**
     * @param filaments how many there are to put in, numbered from 0
     * @param first the one that is loaded to the nozzle's tip
     */
    public StandIn(Printer printer, int filaments, int first) {
        this.printer = printer;
        this.abilities = printer.abilities();
        this.controller = new Controller(abilities.dialect());
        this.clock = new MotionClock(printer.motion());
        this.own = new OwnLines(abilities.dialect());
        this.gears = printer.drive().gearsToNozzle();
        this.filaments = filaments;
        this.strand = new Strand(
                gears,
                printer.filament().volume(1).cubicMillimetres(),
                printer.deadVolume().cubicMillimetres(),
                filaments,
                first);
    }

    /** Seconds since it was switched on, with all moves done. */
    public double seconds() {
        clock.stop();
        return clock.seconds(0);
    }

    /** Seconds of the moves that are certain: what a pace may go by. */
    public double secondsSoFar() {
        return clock.seconds(0);
    }

    /** Where the nozzle is, mm, how hot, how many lines it has taken and how long it is at it: six numbers with blanks between. */
    public String where() {
        return Words.format(
                "%.2f %.2f %.3f %.0f %d %.1f",
                controller.x(), controller.y(), controller.z(), warmth.temperature(), lines, secondsSoFar());
    }

    /** Whether it takes no line until a hand goes on. */
    public boolean isWaiting() {
        return waits != Waits.NO;
    }

    /** Whether its power has failed. */
    public boolean isDark() {
        return dark;
    }

    /** Takes the line that {@code line} has at hand. */
    public void take(GcodeScanner line, Wire wire) throws IOException {
        long number = line.ownNumber();
        if (number >= 0 && (!line.sumIsRight() || number != lastNumber + 1 && !line.is('M', 110))) {
            wire.say("Error:" + (line.sumIsRight() ? "Line Number is not Last Line Number+1" : "checksum mismatch")
                    + ", Last Line: " + lastNumber);
            wire.say("Resend: " + (lastNumber + 1));
            wire.ok();
            return;
        }
        if (number >= 0) {
            lastNumber = number;
        }
        lines++;
        obey(line, wire);
        if (clock.seconds(0) > powerUntil) {
            dark = true;
            wire.say(Words.format("// power %.1f", clock.seconds(0)));
            return;
        }
        if (waits == Waits.NO) {
            wire.ok();
        }
    }

    private void unknown(GcodeScanner line, Wire wire) throws IOException {
        wire.say("echo:Unknown command: \"" + line.codeText() + "\"");
    }

    private void obey(GcodeScanner line, Wire wire) throws IOException {
        boolean move = line.letter() == 'G' && line.number() >= 0 && line.number() <= 3 || line.goesOn();
        if (!move) {
            String code = line.codeText();
            Optional<Command> command = Command.startingLine(code);
            if (!code.isEmpty() && own.stops(line) || isStop(line, command)) {
                stop(line, wire, command);
                return;
            } else if (line.isInWords()) {
                words(line, wire);
                return;
            } else if (isNone(code, line.letter())
                    || command.filter(c -> !abilities.understands(c)).isPresent()) {
                unknown(line, wire);
                return;
            }
        }
        switch (controller.execute(line)) {
            case MOVE -> moved(wire);
            case DWELL -> dwell(line, wire);
            case HEAT -> heat(line, wire);
            case BED -> clock.pause(controller.pause(), 0);
            case TOOL -> tool(line.number(), wire);
            case NONE -> rest(line, wire);
        }
    }

    /** What the owner's own commands do is not known here; before the first plastic they may have heated the nozzle. */
    private void words(GcodeScanner line, Wire wire) throws IOException {
        if (controller.execute(line) == Controller.Effect.HEAT) {
            heat(line, wire);
        } else {
            mayHeat |= !hasFed;
            unknown(line, wire);
        }
    }

    /** Whether a line is no command of G-code at all, whatever letters are in it. */
    private static boolean isNone(String code, char letter) {
        return !code.isEmpty() && Character.toUpperCase(code.charAt(0)) != letter;
    }

    private void rest(GcodeScanner line, Wire wire) throws IOException {
        mixer.ifPresent(m -> m.obey(line));
        if (line.is('M', 104)) {
            warmth.aim(controller.nozzleTarget(), secondsSoFar());
            coldTold = false;
        } else if (line.is('M', 105)) {
            warmth.at(secondsSoFar());
            wire.say(temperatures());
        } else if (line.is('M', 114)) {
            wire.say(Words.format("X:%.2f Y:%.2f Z:%.2f", controller.x(), controller.y(), controller.z()));
        }
    }

    /** Those that macros of Tranche's use, if the firmware has them, and two more of the trade. */
    private boolean isStop(GcodeScanner line, Optional<Command> command) {
        return command.filter(c -> c.stops() && abilities.understands(c)).isPresent() || line.pauses();
    }

    private String temperatures() {
        return Words.format("T:%.1f /%.1f", warmth.temperature(), warmth.target());
    }

    private void moved(Wire wire) throws IOException {
        clock.move(controller, 0);
        printer.selector().ifPresent(this::press);
        if (controller.de() != 0) {
            feed(controller.de(), controller.length() > 0, wire);
        }
    }

    /** The carriage at the switch counts once until it has left it. */
    private void press(Selector box) {
        boolean there = Math.abs((box.lever().axis() == Axis.X ? controller.x() : controller.y())
                        - box.lever().position())
                < NEAR;
        presses += there && !atSwitch ? 1 : 0;
        atSwitch = there;
    }

    /** Filament turned by the gears, mm; {@code along} a move of the nozzle or not. */
    private void feed(double mm, boolean along, Wire wire) throws IOException {
        if (warmth.isCold()) {
            warmth.at(secondsSoFar());
        }
        if (warmth.isCold() && mayHeat) {
            warmth.isAsHotAs(Math.max(controller.nozzleTarget(), Controller.PRINTING), secondsSoFar());
        }
        mayHeat = false;
        hasFed = true;
        if (warmth.isCold()) {
            if (!coldTold) {
                coldTold = true;
                wire.say("echo: cold extrusion prevented");
            }
            if (along && mm > 0) {
                missing(mm, wire);
            }
            return;
        }
        if (comes != NOTHING && secondsSoFar() >= comesAt) {
            strand.putToNozzle(comes);
            comes = NOTHING;
        }
        if (!strand.isThere() && mm > 0 && printer.selector().isPresent()) {
            choose(printer.selector().get());
        }
        mixer.ifPresent(m -> strand.blends(m.shares(controller.z())));
        double missing = strand.feed(mm);
        if (strand.hasEnded()) {
            wire.say("// ends " + lines);
        }
        tell(wire);
        if (along && missing > 0) {
            missing(missing, wire);
        }
    }

    private void missing(double mm, Wire wire) throws IOException {
        wire.say(Words.format("// nothing %d %.4f", lines, mm));
    }

    /** The box presents the filament of the slot that was pressed for. */
    private void choose(Selector box) {
        int pressed = box.presses().indexOf(presses);
        slot = pressed >= 0 ? pressed : slot;
        presses = 0;
        strand.present(slots.getOrDefault(slot, slot));
    }

    private void tell(Wire wire) throws IOException {
        if (strand.hasChanged()) {
            wire.say("// mix " + lines + strand.tell());
        }
    }

    private void dwell(GcodeScanner line, Wire wire) throws IOException {
        double wait = (abilities.honours(Command.G4, 'S') ? line.get('S', 0) : 0)
                + (abilities.honours(Command.G4, 'P') ? line.get('P', 0) / 1000 : 0);
        if (wait < LONG) {
            clock.pause(wait, 0);
            return;
        }
        since = seconds();
        until = since + wait;
        comesAt = since;
        waits = Waits.A_WHILE;
        wire.say(Words.format("// wait %d %.1f %.1f", lines, wait, since));
        wire.say("echo:busy: processing");
    }

    private void heat(GcodeScanner line, Wire wire) throws IOException {
        boolean downToo = line.has('R') && !line.has('S');
        clock.pause(warmth.wait(controller.nozzleTarget(), downToo, seconds()), 0);
        coldTold = false;
        wire.say(temperatures());
    }

    private void tool(int number, Wire wire) throws IOException {
        if (number < 0) {
            return;
        }
        if (mixer.isPresent()) {
            mixer.get().choose(number);
            return;
        }
        int filament = slots.getOrDefault(number, number);
        if (!strand.has(filament) || filament == strand.loaded()) {
            return;
        }
        strand.putToNozzle(filament);
        if (!printer.hotend().blends()) {
            clock.pause(2 * gears / Step.FirmwareRoutine.SPEED, 0);
            purge(wire);
        }
    }

    /** What the machine's own routine pushes through. */
    private void purge(Wire wire) throws IOException {
        clock.pause(routinePurge / Purging.SPEED, 0);
        strand.feed(routinePurge);
        tell(wire);
    }

    private void stop(GcodeScanner line, Wire wire, Optional<Command> command) throws IOException {
        stops++;
        if (stops == ignored) {
            wire.say("// ignored " + lines + " " + stops);
            return;
        }
        since = seconds();
        until = since;
        waits = command.filter(Command.M600::equals).isPresent() ? Waits.IN_ROUTINE : Waits.FOR_HANDS;
        if (waits == Waits.IN_ROUTINE) {
            double out = abilities.honours(Command.M600, 'U') ? line.get('U', gears) : gears;
            routineIn = abilities.honours(Command.M600, 'L') ? line.get('L', gears) : gears;
            clock.pause(out / Step.FirmwareRoutine.SPEED, 0);
            until = seconds();
            strand.drawOut(out);
        }
        wire.say(Words.format(
                "// stop %d %d %.1f %s", lines, stops, since, line.text().strip()));
        wire.say("echo:busy: paused for user");
    }

    /**
     * What a person does at the machine, or deals it: {@code out}; {@code in 2 gears}, {@code in 2 nozzle}; {@code push 190};
     * {@code wait 95} seconds; {@code go}; {@code slot 1 2}; {@code input 0 2}, which feeds filament 2 to the first input of a nozzle that blends; {@code clock}, which is
     * answered with the seconds; {@code routine 100} mm that the machine's own routine pushes through at each change; and faults: {@code ends 2 1200} mm from now, {@code ignore 3}, the
     * third stop, {@code gives-up 2} the heater at the second, {@code power 3600} seconds from the start.
     *
     * @return {@code done}, or why it cannot be done
     */
    public String hand(String does, Wire wire) throws IOException {
        String[] words = does.strip().split(" ");
        try {
            return switch (words[0]) {
                case "out" -> out();
                case "in" -> in(Integer.parseInt(words[1]), "nozzle".equals(words[2]), wire);
                case "push" -> push(Double.parseDouble(words[1]), wire);
                case "wait" -> passes(Double.parseDouble(words[1]));
                case "go" -> go(wire);
                case "clock" -> Words.format("clock %.2f", seconds());
                case "slot" -> done(() -> slots.put(Integer.parseInt(words[1]), Integer.parseInt(words[2])));
                case "input" -> input(Integer.parseInt(words[1]), Integer.parseInt(words[2]));
                case "ends" -> done(() -> strand.endsAfter(Integer.parseInt(words[1]), Double.parseDouble(words[2])));
                case "routine" -> done(() -> routinePurge = Double.parseDouble(words[1]));
                case "ignore" -> done(() -> ignored = Integer.parseInt(words[1]));
                case "gives-up" -> done(() -> givesUp = Integer.parseInt(words[1]));
                case "power" -> done(() -> powerUntil = Double.parseDouble(words[1]));
                default -> "cannot: no hand does “" + Words.quoted(does) + "”";
            };
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            return "cannot: “" + Words.quoted(does) + "” lacks a number";
        }
    }

    private String input(int input, int filament) {
        if (input < 0 || input >= printer.hotend().inputs() || !strand.has(filament)) {
            return "cannot: there is no such input or filament";
        }
        if (mixer.isEmpty()) {
            mixer = Optional.of(new Mixer(printer.hotend().inputs(), filaments));
        }
        mixer.get().feeds(input, filament);
        return "done";
    }

    private static String done(Runnable deed) {
        deed.run();
        return "done";
    }

    private String out() {
        warmth.at(seconds());
        if (strand.isInTheHeat() && warmth.isCold()) {
            return "cannot: the nozzle is cold";
        }
        strand.pullOut();
        return "done";
    }

    private String in(int filament, boolean toNozzle, Wire wire) throws IOException {
        if (!strand.has(filament)) {
            return "cannot: there is no such filament";
        } else if (strand.isThere()) {
            return "cannot: another filament is still in";
        } else if (waits == Waits.A_WHILE && comesAt > until) {
            comes = filament;
            return "done";
        } else if (toNozzle) {
            strand.putToNozzle(filament);
        } else {
            strand.putToGears(filament);
        }
        if (waits == Waits.IN_ROUTINE) {
            clock.pause(routineIn / Step.FirmwareRoutine.SPEED, 0);
            strand.feed(routineIn);
            purge(wire);
        }
        return "done";
    }

    private String push(double mm, Wire wire) throws IOException {
        if (!(mm >= 0 && mm <= 10_000)) {
            return "cannot: push 0 to 10000 mm";
        } else if (!strand.isThere()) {
            return comes == NOTHING ? "cannot: there is no filament to push" : "done";
        }
        passes(mm / Purging.SPEED);
        strand.feed(mm);
        tell(wire);
        return "done";
    }

    /** A person's time passes; the machine's, too, unless it waits a while whatever they do. */
    private String passes(double seconds) {
        if (!(seconds >= 0 && seconds <= 1e7)) {
            return "cannot: wait 0 to 10000000 seconds";
        }
        if (waits == Waits.A_WHILE) {
            comesAt += seconds;
        } else {
            clock.pause(seconds, 0);
        }
        return "done";
    }

    private String go(Wire wire) throws IOException {
        if (waits == Waits.NO) {
            return "cannot: it does not wait";
        }
        if (waits == Waits.A_WHILE) {
            clock.pause(until - since, 0);
        }
        double stood = seconds() - since;
        warmth.at(seconds());
        if (stood > printer.heaterLimit().toSeconds() || stops == givesUp) {
            givesUp = NOTHING;
            warmth.giveUp(stood - printer.heaterLimit().toSeconds());
            wire.say(Words.format("// gave-up %d %.0f", lines, warmth.temperature()));
        }
        waits = Waits.NO;
        wire.ok();
        return "done";
    }
}
