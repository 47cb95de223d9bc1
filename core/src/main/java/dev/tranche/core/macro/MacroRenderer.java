package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Turns a macro into G-code for one printer and one moment.
 *
 * <p>Round the steps it puts a frame: absolute places, relative extrusion and millimetres at the beginning; at
 * the end the nozzle back where it was, as far retracted as it was, and the file's own modes, feed and extruder
 * count. Lines whose command the firmware lacks are marked as not written; parameters it takes no notice of are
 * marked as ignored.
 */
final class MacroRenderer {
    /** Many firmwares refuse a single move of more filament than this, mm (common practice). */
    private static final double LONGEST_PUSH = 200;
    /** Lift of a firmware's routine where it takes one, mm (common practice). */
    private static final double ROUTINE_LIFT = 5;

    private static final double CUTTING_SPEED = 20;
    private static final Template SWAP_NUMBERS = Template.of("{{number}} of {{of}}: {{out}} out, {{in}} in");

    private final Printer printer;
    private final Moment moment;
    private final ControllerState entry;
    private final boolean forHost;
    private final Optional<HostNames> names;
    private List<RenderedLine> lines = new ArrayList<>();
    private int step = RenderedLine.FRAME;
    private double lifted;
    private double retracted;
    private boolean away;

    private MacroRenderer(Printer printer, Moment moment, boolean forHost, Optional<HostNames> names) {
        this.printer = printer;
        this.moment = moment;
        this.entry = moment.entry();
        this.forHost = forHost;
        this.names = names;
        this.retracted = entry.retracted();
    }

    static List<RenderedLine> render(Macro macro, Printer printer, Moment moment) {
        MacroRenderer renderer = new MacroRenderer(printer, moment, false, Optional.empty());
        renderer.open();
        renderer.steps(macro);
        renderer.close();
        return List.copyOf(renderer.lines);
    }

    /** The two halves of a host's pause. */
    record Pair(List<RenderedLine> pause, List<RenderedLine> resume) {}

    /**
     * A host's pause and resume, which share what the first moved.
     *
     * @param names with which places are written; numbers of {@code moment} without
     */
    static Pair renderPair(Macro pause, Macro resume, Printer printer, Moment moment, Optional<HostNames> names) {
        MacroRenderer renderer = new MacroRenderer(printer, moment, true, names);
        renderer.open();
        renderer.steps(pause);
        List<RenderedLine> first = List.copyOf(renderer.lines);
        renderer.lines = new ArrayList<>();
        renderer.open();
        renderer.steps(resume);
        renderer.close();
        return new Pair(first, List.copyOf(renderer.lines));
    }

    private void steps(Macro macro) {
        for (int i = 0; i < macro.steps().size(); i++) {
            MacroStep s = macro.steps().get(i);
            step = i;
            if (s.happensFor(moment.extruder())) {
                write(s.step());
            }
        }
        step = RenderedLine.FRAME;
    }

    private void open() {
        if (entry.inches()) {
            line("the file is in inches; the macro is in millimetres", Word.of("G21"));
        }
        line("places are absolute", Word.of("G90"));
        line("filament is counted from where it is", Word.of("M83"));
        if (printer.abilities().understands(Command.M400)) {
            line("let the last move end", Word.of("M400"));
        }
    }

    private void close() {
        back();
        push(
                retracted - entry.retracted(),
                printer.motion().retractSpeed(),
                "as far retracted as the file left it",
                "difference of the retractions");
        String feed = names.map(HostNames::f).orElse(Numerals.number(entry.feed() * 60, 1));
        line(
                "feed of the file",
                Word.of("G1"),
                Word.of("F" + feed, Numerals.number(entry.feed(), 1) + " mm/s before the macro"));
        if (entry.inches()) {
            line("the file is in inches", Word.of("G20"));
        }
        if (entry.relativeMoves()) {
            line("the file moves relatively", Word.of("G91"));
        }
        line("how the file counts filament", Word.of(entry.relativeExtrusion() ? "M83" : "M82"));
        double unit = entry.inches() ? 25.4 : 1;
        String e = names.map(HostNames::e).orElse(Numerals.number(entry.e() / unit, 5));
        line("the extruder's count in the file", Word.of("G92"), Word.of("E" + e, "count before the macro"));
    }

    private void write(Step s) {
        if (s instanceof Step.Tone t) {
            line(
                    "tone",
                    Word.of("M300"),
                    given(Command.M300, 'S', t.hertz(), "pitch of the step, Hz"),
                    given(Command.M300, 'P', t.milliseconds(), "length of the step, ms"));
        } else if (s instanceof Step.Message m) {
            message(m);
        } else if (s instanceof Step.Retract r) {
            retracted += r.length();
            push(-r.length(), printer.motion().retractSpeed(), "retract", "length of the step");
        } else if (s instanceof Step.Lift l) {
            lift(l.height());
        } else if (s instanceof Step.Park) {
            park();
        } else if (s instanceof Step.Unload u) {
            retracted = 0;
            push(
                    -Math.max(0, printer.drive().gearsToNozzle() + u.extra()),
                    u.speed(),
                    "unload",
                    "gears to nozzle %s mm and %s mm of the step"
                            .formatted(Numerals.mm(printer.drive().gearsToNozzle()), Numerals.mm(u.extra())));
        } else if (s instanceof Step.Load l) {
            retracted = 0;
            push(
                    Math.max(0, printer.drive().gearsToNozzle() + l.extra()),
                    l.speed(),
                    "load",
                    "gears to nozzle %s mm and %s mm of the step"
                            .formatted(Numerals.mm(printer.drive().gearsToNozzle()), Numerals.mm(l.extra())));
        } else if (s instanceof Step.Cut c) {
            cut(c);
        } else if (s instanceof Step.PressSwitch) {
            printer.selector().ifPresent(this::press);
        } else if (s instanceof Step.SelectExtruder) {
            retracted = printer.hotend().blends() ? retracted : 0;
            line("the extruder that prints next", Word.of("T" + moment.extruder(), "extruder in the rack"));
        } else if (s instanceof Step.WaitForPerson w) {
            line("stops until the person goes on; " + swapNumbers(), Word.of(w.by().name()));
        } else if (s instanceof Step.Dwell d) {
            dwell(d.seconds(), "wait", "length of the step");
        } else if (s instanceof Step.Heat h) {
            if (h.to().of(moment) > 0) {
                line(
                        "heat and wait",
                        Word.of("M109"),
                        given(Command.M109, 'S', h.to().of(moment), "temperature of " + h.to().title()));
            }
        } else if (s instanceof Step.Cool) {
            line(
                    "cool, without waiting",
                    Word.of("M104"),
                    given(Command.M104, 'S', moment.standby(), "standby of the extruder"));
        } else if (s instanceof Step.Prime p) {
            push(p.length() + retracted, p.speed(), "prime", "length of the step, and what was retracted");
            retracted = 0;
        } else if (s instanceof Step.Purge p) {
            if (moment.purge() > 0) {
                push(moment.purge() + retracted, p.speed(), "purge", purgeSetting());
                retracted = 0;
            }
        } else if (s instanceof Step.Wipe w) {
            wipe(w);
        } else if (s instanceof Step.FirmwareRoutine r) {
            own(r.before());
            firmwareRoutine();
            own(r.after());
        } else if (s instanceof Step.WaitForMoves) {
            line("let the moves end", Word.of("M400"));
        } else if (s instanceof Step.Raw r) {
            own(r.lines());
        } else if (s instanceof Step.Return) {
            back();
        }
    }

    private String swapNumbers() {
        return moment.in().isEmpty() ? moment.note() : SWAP_NUMBERS.fill(moment, printer);
    }

    private String purgeSetting() {
        String purge = "purge of this pair, " + Numerals.mm(moment.purge()) + " mm";
        return retracted > 0 ? purge + ", and " + Numerals.mm(retracted) + " mm that were retracted" : purge;
    }

    private void message(Step.Message m) {
        line(
                "words on the display",
                Word.of("M117"),
                Word.of(Template.plain(Template.of(m.text()).fill(moment, printer)), "text of the step"));
    }

    private void dwell(double seconds, String reason, String setting) {
        boolean inSeconds = printer.abilities().honours(Command.G4, 'S');
        line(
                reason,
                Word.of("G4"),
                inSeconds
                        ? given(Command.G4, 'S', seconds, setting + ", s")
                        : given(Command.G4, 'P', seconds * 1000, setting + ", ms"));
    }

    private void lift(double height) {
        double before = lifted;
        lifted = Math.max(
                lifted, Math.min(height, Math.max(0, printer.maxHeight().millimetres() - entry.z())));
        if (forHost) {
            rise(lifted - before, "lift of the step, from wherever the print is");
            return;
        }
        line(
                "lift",
                Word.of("G1"),
                Word.of(
                        "Z" + Numerals.mm(entry.z() + lifted),
                        Numerals.mm(entry.z()) + " mm of the print and " + Numerals.mm(lifted) + " mm of the step"),
                liftFeed());
    }

    /** Up or down by so much, for a host that cannot add. */
    private void rise(double by, String setting) {
        if (by != 0) {
            line("heights are relative", Word.of("G91"));
            line("up or down", Word.of("G1"), Word.of("Z" + Numerals.mm(by), setting), liftFeed());
            line("places are absolute", Word.of("G90"));
            line("some firmwares let G90 and G91 count filament too", Word.of("M83"));
        }
    }

    private void park() {
        Optional<Point> spot = printer.parkSpot();
        if (spot.isPresent()) {
            away = true;
            line(
                    "park",
                    Word.of("G1"),
                    Word.of("X" + Numerals.mm(spot.get().x()), "park spot X"),
                    Word.of("Y" + Numerals.mm(spot.get().y()), "park spot Y"),
                    travelFeed());
        }
    }

    private void cut(Step.Cut c) {
        double middle = (printer.travel().low(c.axis()) + printer.travel().high(c.axis())) / 2;
        boolean highEnd = c.position() > middle;
        Lever lever = new Lever(
                c.axis(),
                c.position(),
                Math.min(30, c.travel()),
                highEnd != printer.home().homesLow(c.axis()));
        away = true;
        line(
                "to the cutter",
                Word.of("G1"),
                to(
                        c.axis(),
                        c.position() - lever.direction(printer.home()) * c.travel(),
                        "cutter's place less its travel"),
                travelFeed());
        line("cut", Word.of("G1"), to(c.axis(), c.position(), "cutter's place"), feed(CUTTING_SPEED, "cutting speed"));
        line(
                "off the cutter",
                Word.of("G1"),
                to(
                        c.axis(),
                        c.position() - lever.direction(printer.home()) * c.travel(),
                        "cutter's place less its travel"),
                travelFeed());
    }

    private void press(Selector selector) {
        int slot = moment.slot();
        if (slot > selector.presses().size()) {
            return;
        }
        Lever lever = selector.lever();
        int presses = selector.pressesFor(slot);
        double waiting = lever.waiting(printer.home());
        away = true;
        line("beside the switch", Word.of("G1"), to(lever.axis(), waiting, waitingSetting(lever)), travelFeed());
        for (int i = 1; i <= presses; i++) {
            String which = "press %d of %d for slot %d".formatted(i, presses, slot);
            line(which, Word.of("G1"), to(lever.axis(), lever.position(), "switch"), travelFeed());
            if (selector.holdSeconds() > 0) {
                dwell(selector.holdSeconds(), "hold", "hold of the selector");
            }
            line("let go", Word.of("G1"), to(lever.axis(), waiting, waitingSetting(lever)), travelFeed());
            if (selector.holdSeconds() > 0 && i < presses) {
                dwell(selector.holdSeconds(), "between two presses", "hold of the selector");
            }
        }
    }

    private String waitingSetting(Lever lever) {
        return "switch at %s mm %s press travel %s mm"
                .formatted(
                        Numerals.mm(lever.position()),
                        lever.direction(printer.home()) > 0 ? "less" : "and",
                        Numerals.mm(lever.travel()));
    }

    private void wipe(Step.Wipe w) {
        Optional<Point> spot = printer.parkSpot();
        if (spot.isEmpty()) {
            return;
        }
        double middle = (printer.travel().low(w.axis()) + printer.travel().high(w.axis())) / 2;
        double here = w.axis() == Axis.X ? spot.get().x() : spot.get().y();
        double there = here + (here > middle ? -w.width() : w.width());
        away = true;
        for (int i = 0; i < w.strokes(); i++) {
            line("wipe", Word.of("G1"), to(w.axis(), there, "park spot and width of the step"), travelFeed());
            line("wipe", Word.of("G1"), to(w.axis(), here, "park spot"), travelFeed());
        }
    }

    /** With its parameters: where to wait, how far up, and the lengths of unloading and loading. */
    private void firmwareRoutine() {
        List<Word> words = new ArrayList<>(List.of(Word.of("M600")));
        printer.parkSpot().ifPresent(spot -> {
            words.add(given(Command.M600, 'X', spot.x(), "park spot X"));
            words.add(given(Command.M600, 'Y', spot.y(), "park spot Y"));
        });
        double length = printer.drive().gearsToNozzle();
        words.add(given(Command.M600, 'Z', ROUTINE_LIFT, "lift, common practice"));
        words.add(given(Command.M600, 'U', length, "gears to nozzle"));
        words.add(given(Command.M600, 'L', length, "gears to nozzle"));
        line("the firmware changes the filament", words.toArray(Word[]::new));
    }

    private void own(String text) {
        for (String own : Template.of(text).lines(moment, printer)) {
            lines.add(OwnLine.read(own, step, printer.abilities()));
        }
    }

    private void back() {
        if (away) {
            away = false;
            line(
                    "over the spot it came from",
                    Word.of("G1"),
                    Word.of("X" + names.map(HostNames::x).orElse(Numerals.mm(entry.x())), "where the print was left"),
                    Word.of("Y" + names.map(HostNames::y).orElse(Numerals.mm(entry.y())), "where the print was left"),
                    travelFeed());
        }
        if (lifted > 0) {
            double by = -lifted;
            lifted = 0;
            if (forHost) {
                rise(by, "the lift taken back");
            } else {
                line(
                        "down to layer " + moment.layer(),
                        Word.of("G1"),
                        Word.of("Z" + Numerals.mm(entry.z()), "where the print was left"),
                        liftFeed());
            }
        }
    }

    /** Filament pushed, or drawn back where {@code length} is below zero, in moves no firmware refuses. */
    private void push(double length, double speed, String reason, String setting) {
        int parts = (int) Math.ceil((Math.abs(length) - 1e-6) / LONGEST_PUSH);
        for (int i = 1; i <= parts; i++) {
            String part = parts == 1 ? "" : ", part %d of %d".formatted(i, parts);
            line(
                    reason + part,
                    Word.of("G1"),
                    Word.of("E" + Numerals.mm(length / parts), setting + part),
                    feed(speed, "speed"));
        }
    }

    private static Word to(Axis axis, double place, String setting) {
        return Word.of(axis.name() + Numerals.mm(place), setting);
    }

    private Word travelFeed() {
        return feed(printer.motion().travelSpeed(), "travel speed of the printer");
    }

    private Word liftFeed() {
        return feed(printer.motion().liftSpeed(), "lift speed of the printer");
    }

    private static Word feed(double speed, String setting) {
        return Word.of("F" + Numerals.number(speed * 60, 1), setting + ", " + Numerals.number(speed, 1) + " mm/s");
    }

    private Word given(Command command, char parameter, double value, String setting) {
        return new Word(
                parameter + Numerals.mm(value), setting, !printer.abilities().honours(command, parameter));
    }

    private void line(String reason, Word... words) {
        lines.add(new RenderedLine(
                List.of(words), step, OwnLine.isUnderstood(words[0].text(), printer.abilities()), reason));
    }
}
