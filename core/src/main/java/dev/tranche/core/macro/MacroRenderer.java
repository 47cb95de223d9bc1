package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * Turns a macro into G-code for one printer and one moment.
 *
 * <p>Round the steps it puts a frame: absolute places, relative extrusion and millimetres at the beginning; at
 * the end the nozzle back where it was, as far retracted as it was, and the file's own modes, feed and extruder
 * count. Lines whose command the firmware lacks are marked as not written; parameters it takes no notice of are
 * marked as ignored.
 */
final class MacroRenderer {
    private static final Template SWAP_NUMBERS = Template.of("{{number}} of {{of}}: {{out}} out, {{in}} in");

    /** What is pushed out hangs down so far, mm; common practice. */
    private static final double CLEAR_OF_BED = 5;

    private final Printer printer;
    private final Moment moment;
    private final ControllerState entry;
    private final boolean forHost;
    private final Optional<Spelling> names;
    private final LineWriter out;
    private Purging purging = Purging.NONE;
    private double lifted;
    private double retracted;
    private boolean away;

    private MacroRenderer(Printer printer, Moment moment, boolean forHost, Optional<Spelling> names) {
        this.printer = printer;
        this.moment = moment;
        this.entry = moment.entry();
        this.forHost = forHost;
        this.names = names;
        this.out = new LineWriter(printer);
        this.retracted = entry.draw().length();
    }

    static List<RenderedLine> render(Macro macro, Printer printer, Moment moment) {
        MacroRenderer renderer = new MacroRenderer(printer, moment, false, Optional.empty());
        renderer.open();
        if (macro.event() == Event.FIRST_LOAD) {
            renderer.aside(macro);
        }
        renderer.steps(macro);
        renderer.close();
        return renderer.out.taken();
    }

    /** As a program runs it that knows the numbers of the moment by names; heights are said as steps up and down. */
    static List<RenderedLine> renderFor(Macro macro, Printer printer, Moment moment, Spelling names) {
        MacroRenderer renderer = new MacroRenderer(printer, moment, true, Optional.of(names));
        renderer.open();
        if (macro.event() == Event.FIRST_LOAD) {
            renderer.aside(macro);
        }
        renderer.steps(macro);
        renderer.close();
        return renderer.out.taken();
    }

    /** The two halves of a host's pause. */
    record Pair(List<RenderedLine> pause, List<RenderedLine> resume) {}

    /**
     * A host's pause and resume, which share what the first moved.
     *
     * @param names with which places are written; numbers of {@code moment} without
     */
    static Pair renderPair(Macro pause, Macro resume, Printer printer, Moment moment, Optional<Spelling> names) {
        MacroRenderer renderer = new MacroRenderer(printer, moment, true, names);
        renderer.open();
        renderer.steps(pause);
        List<RenderedLine> first = renderer.out.taken();
        renderer.open();
        renderer.steps(resume);
        renderer.close();
        return new Pair(first, renderer.out.taken());
    }

    private void steps(Macro macro) {
        purging = Purging.of(macro, moment);
        for (int i = 0; i < macro.steps().size(); i++) {
            MacroStep s = macro.steps().get(i);
            out.belongsTo(i);
            if (s.happensFor(moment.extruder())) {
                write(s.step());
            }
        }
        out.belongsTo(RenderedLine.FRAME);
    }

    private void open() {
        new Frame(out).open(entry);
        if (printer.abilities().understands(Command.M400)) {
            out.line("let the last move end", Word.of("M400"));
        }
        if (entry.draw().byFirmware()) {
            out.line("the file drew back by the firmware's own length", Word.of("G11"));
        }
    }

    /** A nozzle that has just come home stands on the bed, where nothing can be loaded. */
    private void aside(Macro macro) {
        double missing = CLEAR_OF_BED - entry.z();
        if (missing > 0 && !macro.has(Step.Lift.class)) {
            lift(missing, "clear of the bed");
        }
        if (macro.beginsAside(printer)) {
            park();
        }
    }

    private void close() {
        back();
        out.push(
                retracted - entry.awaited().length(),
                printer.motion().retractSpeed(),
                "as far retracted as the file goes on from",
                "difference of the retractions");
        if (entry.awaited().byFirmware()) {
            out.line("the file will push it out again", Word.of("G10"));
        }
        new Frame(out).close(entry, names);
    }

    private void write(Step s) {
        if (s instanceof Step.Tone t) {
            out.line(
                    "tone",
                    Word.of("M300"),
                    out.given(Command.M300, 'S', t.hertz(), "pitch of the step, Hz"),
                    out.given(Command.M300, 'P', t.milliseconds(), "length of the step, ms"));
        } else if (s instanceof Step.Message m) {
            message(m);
        } else if (s instanceof Step.Retract r) {
            retracted += r.length();
            out.push(-r.length(), printer.motion().retractSpeed(), "retract", "length of the step");
        } else if (s instanceof Step.Lift l) {
            lift(l.height(), "of the step");
        } else if (s instanceof Step.Park) {
            park();
        } else if (s instanceof Step.Unload u) {
            // As far behind the gears as Load begins, wherever the tip is by now.
            out.push(
                    -Math.max(0, printer.drive().gearsToNozzle() + u.extra() - retracted),
                    u.speed(),
                    "unload",
                    Words.format(
                            "gears to nozzle %s mm and %s mm of the step%s",
                            Numerals.mm(printer.drive().gearsToNozzle()),
                            Numerals.mm(u.extra()),
                            retracted > 0
                                    ? Words.format(", less %s mm that were retracted", Numerals.mm(retracted))
                                    : ""));
            retracted = 0;
        } else if (s instanceof Step.Load l) {
            retracted = 0;
            out.push(
                    Math.max(0, printer.drive().gearsToNozzle() + l.extra()),
                    l.speed(),
                    "load",
                    Words.format(
                            "gears to nozzle %s mm and %s mm of the step",
                            Numerals.mm(printer.drive().gearsToNozzle()), Numerals.mm(l.extra())));
        } else if (s instanceof Step.Cut c) {
            over();
            away = true;
            new Carriage(printer, out).cut(c);
        } else if (s instanceof Step.PressSwitch) {
            over();
            away |= printer.selector()
                    .filter(box -> new Carriage(printer, out).press(box, moment.slot()))
                    .isPresent();
        } else if (s instanceof Step.SelectExtruder) {
            retracted = printer.hotend().blends() ? retracted : 0;
            out.line("the extruder that prints next", Word.of("T" + moment.extruder(), "extruder in the rack"));
        } else if (s instanceof Step.WaitForPerson w) {
            out.line("stops until the person goes on; " + swapNumbers(), Word.of(w.by().name()));
        } else if (s instanceof Step.OwnPause p) {
            out.own(p.line(), moment, words());
        } else if (s instanceof Step.Home h) {
            over();
            away = true;
            out.line(
                    "find the ends of the axes again",
                    Word.of("G28"),
                    Word.of(h.axes().words(), "axes of the step"));
        } else if (s instanceof Step.Dwell d) {
            out.dwell(d.seconds(), "wait", "length of the step");
        } else if (s instanceof Step.Heat h) {
            if (h.to().of(moment) > 0) {
                // R waits where it has to cool, too; S goes on at once.
                char parameter = printer.abilities().honours(Command.M109, 'R') ? 'R' : 'S';
                out.line(
                        "heat and wait",
                        Word.of("M109"),
                        out.given(Command.M109, parameter, h.to().of(moment), "temperature of " + h.to().title()));
            }
        } else if (s instanceof Step.SetHeat h) {
            if (h.to().of(moment) > 0) {
                out.line(
                        "set the temperature, without waiting",
                        Word.of("M104"),
                        out.given(Command.M104, 'S', h.to().of(moment), "temperature of " + h.to().title()));
            }
        } else if (s instanceof Step.Cool) {
            out.line(
                    "cool, without waiting",
                    Word.of("M104"),
                    out.given(Command.M104, 'S', moment.standby(), "standby of the extruder"));
        } else if (s instanceof Step.Prime p) {
            out.push(p.length() + retracted, p.speed(), "prime", "length of the step, and what was retracted");
            retracted = 0;
        } else if (s instanceof Step.Purge p) {
            String spelled = names.map(Spelling::purge).orElse("");
            if (!spelled.isEmpty()) {
                out.push(retracted, p.speed(), "push out what was retracted", "what was retracted");
                out.line(
                        "purge",
                        Word.of("G1"),
                        Word.of("E" + spelled, "purge as the program has it"),
                        LineWriter.feed(p.speed(), "speed"));
                retracted = 0;
            } else if (moment.purge() > 0 && purging.by() == Purging.By.MACRO) {
                out.push(moment.purge() + retracted, p.speed(), "purge", purgeSetting());
                retracted = 0;
            }
        } else if (s instanceof Step.Wipe w) {
            over();
            away |= new Carriage(printer, out).wipe(w);
        } else if (s instanceof Step.FirmwareRoutine r) {
            over();
            out.own(r.before(), moment, words());
            firmwareRoutine(r);
            out.own(r.after(), moment, words());
        } else if (s instanceof Step.WaitForMoves) {
            out.line("let the moves end", Word.of("M400"));
        } else if (s instanceof Step.Raw r) {
            out.own(r.lines(), moment, words());
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

    private Map<MacroName, String> words() {
        return names.map(Spelling::words).orElse(Map.of());
    }

    private void message(Step.Message m) {
        String text = Template.of(m.text()).fill(moment, printer, words());
        out.line(
                "words on the display",
                Word.of("M117"),
                Word.of(words().isEmpty() ? Template.plain(text) : Words.oneLine(text), "text of the step"));
    }

    private void lift(double height, String why) {
        double before = lifted;
        lifted = Math.max(
                lifted, Math.min(height, Math.max(0, printer.maxHeight().millimetres() - entry.z())));
        if (forHost) {
            rise(lifted - before, "lift of the step, from wherever the print is");
            return;
        }
        out.line(
                "lift",
                Word.of("G1"),
                Word.of(
                        "Z" + Numerals.mm(entry.z() + lifted),
                        Numerals.mm(entry.z()) + " mm of the print and " + Numerals.mm(lifted) + " mm " + why),
                out.liftFeed());
    }

    /** No way leads through what stands higher than the layer that is being printed. */
    private void over() {
        if (moment.clearance() > lifted) {
            lift(moment.clearance(), "over what stands there");
        }
    }

    /** Up or down by so much, for a host that cannot add. */
    private void rise(double by, String setting) {
        if (by != 0) {
            out.line("heights are relative", Word.of("G91"));
            out.line("up or down", Word.of("G1"), Word.of("Z" + Numerals.mm(by), setting), out.liftFeed());
            out.line("places are absolute", Word.of("G90"));
            out.line("some firmwares let G90 and G91 count filament too", Word.of("M83"));
        }
    }

    private void park() {
        Optional<Point> spot = printer.parkSpot();
        if (spot.isPresent()) {
            over();
            away = true;
            out.line(
                    "park",
                    Word.of("G1"),
                    Word.of("X" + Numerals.mm(spot.get().x()), "park spot X"),
                    Word.of("Y" + Numerals.mm(spot.get().y()), "park spot Y"),
                    out.travelFeed());
        }
    }

    /** With its parameters: where to wait, how far up, how far back before that, and the lengths of unloading and loading. */
    private void firmwareRoutine(Step.FirmwareRoutine r) {
        List<Word> words = new ArrayList<>(List.of(Word.of("M600")));
        r.spot(printer).ifPresent(spot -> {
            String from = r.x().isPresent() ? "of the step" : "of the park spot";
            words.add(out.given(Command.M600, 'X', spot.x(), "X " + from));
            words.add(out.given(Command.M600, 'Y', spot.y(), "Y " + from));
        });
        words.add(routine('Z', r.lift(), "lift", Step.FirmwareRoutine.LIFT, "common practice"));
        if (r.retraction().isPresent() || printer.abilities().honours(Command.M600, 'E')) {
            words.add(routine('E', r.retraction(), "retraction", Step.FirmwareRoutine.RETRACTION, "as usual"));
        }
        double length = printer.drive().gearsToNozzle();
        words.add(routine('U', r.out(), "way out", length, "gears to nozzle"));
        words.add(routine('L', r.in(), "way in", length, "gears to nozzle"));
        out.line("the firmware changes the filament", words.toArray(Word[]::new));
    }

    private Word routine(char parameter, OptionalDouble typed, String what, double usual, String from) {
        return out.given(
                Command.M600,
                parameter,
                typed.orElse(usual),
                what + ", " + (typed.isPresent() ? "typed in the step" : from));
    }

    private void back() {
        if (away) {
            away = false;
            out.line(
                    "over the spot it came from",
                    Word.of("G1"),
                    Word.of("X" + names.map(Spelling::x).orElse(Numerals.mm(entry.x())), "where the print was left"),
                    Word.of("Y" + names.map(Spelling::y).orElse(Numerals.mm(entry.y())), "where the print was left"),
                    out.travelFeed());
        }
        if (lifted > 0) {
            double by = -lifted;
            lifted = 0;
            if (forHost) {
                rise(by, "the lift taken back");
            } else {
                out.line(
                        "down to layer " + moment.layer(),
                        Word.of("G1"),
                        Word.of("Z" + Numerals.mm(entry.z()), "where the print was left"),
                        out.liftFeed());
            }
        }
    }
}
