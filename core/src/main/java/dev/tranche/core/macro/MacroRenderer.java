package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.units.Words;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Turns a macro into G-code for one printer and one moment.
 *
 * <p>Round the steps it puts a frame: absolute places, relative extrusion and millimetres at the beginning; at
 * the end the nozzle back where it was, as far retracted as it was, and the file's own modes, feed and extruder
 * count. Commands the firmware lacks are left out and named by {@link #missing}; parameters it ignores are left
 * out.
 */
public final class MacroRenderer {
    private static final int TRAVEL_FEED = 6000;
    private static final int LIFT_FEED = 600;
    private static final int RETRACT_FEED = 1800;

    private final Printer printer;
    private final SwapMoment moment;
    private final ControllerState entry;
    private final List<RenderedLine> lines = new ArrayList<>();
    private int step = RenderedLine.FRAME;
    private double lifted;
    private double retracted;
    private boolean away;

    private MacroRenderer(Printer printer, SwapMoment moment) {
        this.printer = printer;
        this.moment = moment;
        this.entry = moment.entry();
        this.retracted = entry.retracted();
    }

    public static List<RenderedLine> render(SwapMacro macro, Printer printer, SwapMoment moment) {
        MacroRenderer renderer = new MacroRenderer(printer, moment);
        renderer.open();
        for (Step s : macro.steps()) {
            renderer.step++;
            renderer.write(s);
        }
        renderer.step = RenderedLine.FRAME;
        renderer.close();
        return List.copyOf(renderer.lines);
    }

    /** The command that {@code step} needs and {@code printer} lacks, if there is one. */
    public static Optional<Command> missing(Step step, Printer printer) {
        return needed(step).filter(c -> !printer.abilities().understands(c));
    }

    private static Optional<Command> needed(Step step) {
        if (step instanceof Step.Tone) {
            return Optional.of(Command.M300);
        } else if (step instanceof Step.Message) {
            return Optional.of(Command.M117);
        } else if (step instanceof Step.WaitForPerson) {
            return Optional.of(Command.M0);
        } else if (step instanceof Step.Dwell) {
            return Optional.of(Command.G4);
        } else if (step instanceof Step.Heat) {
            return Optional.of(Command.M109);
        } else if (step instanceof Step.FirmwareRoutine) {
            return Optional.of(Command.M600);
        }
        return Optional.empty();
    }

    private void open() {
        if (entry.inches()) {
            line("G21", "the file is in inches; the macro is in millimetres");
        }
        line("G90", "places are absolute");
        line("M83", "filament is counted from where it is");
        if (printer.abilities().understands(Command.M400)) {
            line("M400", "let the last move end");
        }
    }

    private void close() {
        back();
        double behind = retracted - entry.retracted();
        if (Math.abs(behind) > 1e-6) {
            line("G1 E" + mm(behind) + " F" + RETRACT_FEED, "as far retracted as the file left it");
        }
        line("G1 F" + number(entry.feed() * 60, 1), "feed of the file, " + number(entry.feed(), 1) + " mm/s");
        if (entry.inches()) {
            line("G20", "the file is in inches");
        }
        if (entry.relativeMoves()) {
            line("G91", "the file moves relatively");
        }
        line(entry.relativeExtrusion() ? "M83" : "M82", "how the file counts filament");
        double unit = entry.inches() ? 25.4 : 1;
        line("G92 E" + number(entry.e() / unit, 5), "the extruder's count in the file");
    }

    private void write(Step s) {
        if (missing(s, printer).isPresent()) {
            return;
        }
        if (s instanceof Step.Tone tone) {
            line(
                    "M300" + given(Command.M300, 'S', tone.hertz()) + given(Command.M300, 'P', tone.milliseconds()),
                    "tone: pitch and length");
        } else if (s instanceof Step.Message) {
            line(
                    "M117 " + plain("Swap " + moment.number() + " of " + moment.of() + ": load " + moment.in()),
                    "the spool that goes in");
        } else if (s instanceof Step.Retract r) {
            retract(r.length());
        } else if (s instanceof Step.Lift l) {
            lifted = Math.max(lifted, l.height());
            line(
                    "G1 Z" + mm(height()) + " F" + LIFT_FEED,
                    "layer " + moment.layer() + ", lifted " + mm(l.height()) + " mm");
        } else if (s instanceof Step.Park) {
            park();
        } else if (s instanceof Step.WaitForPerson) {
            line("M0", "stops until the person goes on; spool out: " + moment.out() + ", in: " + moment.in());
        } else if (s instanceof Step.Dwell d) {
            boolean seconds = printer.abilities().honours(Command.G4, 'S');
            line(seconds ? "G4 S" + d.seconds() : "G4 P" + d.seconds() * 1000, "wait " + d.seconds() + " s");
        } else if (s instanceof Step.Heat) {
            if (moment.temperatureIn() > 0) {
                line("M109 S" + moment.temperatureIn(), "temperature of " + moment.in());
            }
        } else if (s instanceof Step.Purge p) {
            purge(p.speed());
        } else if (s instanceof Step.FirmwareRoutine) {
            firmwareRoutine();
        } else if (s instanceof Step.Return) {
            back();
        }
    }

    private void retract(double length) {
        if (length > 0) {
            retracted += length;
            line("G1 E-" + mm(length) + " F" + RETRACT_FEED, "retract " + mm(length) + " mm");
        }
    }

    private void park() {
        Optional<Point> spot = printer.parkSpot();
        if (spot.isPresent()) {
            away = true;
            line(
                    "G1 X" + mm(spot.get().x()) + " Y" + mm(spot.get().y()) + " F" + TRAVEL_FEED,
                    "park spot of the printer");
        }
    }

    private void purge(double speed) {
        if (moment.purge() > 0) {
            double length = moment.purge() + retracted;
            retracted = 0;
            line(
                    "G1 E" + mm(length) + " F" + number(speed * 60, 1),
                    "purge " + mm(moment.purge()) + " mm at " + number(speed, 1) + " mm/s");
        }
    }

    /** With the honoured parameters: where to wait, how far up, and the lengths of unloading and loading. */
    private void firmwareRoutine() {
        StringBuilder text = new StringBuilder("M600");
        printer.parkSpot().ifPresent(spot -> text.append(given(Command.M600, 'X', spot.x()))
                .append(given(Command.M600, 'Y', spot.y())));
        double length = printer.drive().gearsToNozzle();
        text.append(given(Command.M600, 'Z', 5))
                .append(given(Command.M600, 'U', length))
                .append(given(Command.M600, 'L', length));
        line(text.toString(), "park spot; lift 5 mm; gears to nozzle " + mm(length) + " mm");
    }

    private void back() {
        if (away) {
            away = false;
            line("G1 X" + mm(entry.x()) + " Y" + mm(entry.y()) + " F" + TRAVEL_FEED, "over the spot it came from");
        }
        if (lifted > 0) {
            lifted = 0;
            line("G1 Z" + mm(entry.z()) + " F" + LIFT_FEED, "down to layer " + moment.layer());
        }
    }

    private double height() {
        return Math.min(
                entry.z() + lifted, Math.max(entry.z(), printer.maxHeight().millimetres()));
    }

    private String given(Command command, char parameter, double value) {
        return printer.abilities().honours(command, parameter) ? " " + parameter + number(value, 3) : "";
    }

    private void line(String text, String reason) {
        lines.add(new RenderedLine(text, step, reason));
    }

    /** Letters every display can show, on one line, without what would begin a comment. */
    private static String plain(String text) {
        String ascii =
                Normalizer.normalize(Words.oneLine(text), Normalizer.Form.NFKD).replaceAll("[^\\x20-\\x7E]", "");
        return ascii.replaceAll("[;()*\\\\\"\\s]+", " ").strip();
    }

    private static String mm(double value) {
        return number(value, 3);
    }

    private static String number(double value, int decimals) {
        String text = String.format(Locale.ROOT, "%." + decimals + "f", value);
        String short_ = text.contains(".") ? text.replaceAll("0+$", "").replaceAll("\\.$", "") : text;
        return "-0".equals(short_) ? "0" : short_;
    }
}
