package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.Draw;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Printer;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Lines that join pieces of a file in another order than they were sliced in: from where one ends, over all that stands, to
 * where the next goes on. What the next takes for granted is said again: units, modes, count, feed, fans, accelerations and
 * flow, and the heat of its first plastic.
 *
 * @param printer that runs them
 */
public record Joint(Printer printer) {
    /** Over what stands, mm; common practice. */
    public static final double OVER = 0.6;

    /** Drawn back before a way over plastic where the file has not done so, mm; common practice. */
    private static final double DIRECT = 0.8;

    private static final double TUBE = 4;

    /** Whether a line can put another filament to the nozzle; where none can, there is one until a person changes it. */
    public boolean choosesTools() {
        return printer.abilities().understands(Command.T);
    }

    /** How far filament is drawn back at the least before a way over plastic. */
    public double back() {
        return printer.drive() instanceof Drive.Tube ? TUBE : DIRECT;
    }

    /** How far filament is drawn back after the way up, where it was drawn back as {@code now}. */
    public Draw drawnUp(Draw now) {
        return now.byFirmware() ? now : Draw.of(Math.max(back(), now.length()));
    }

    /**
     * From the end of one piece up to {@code over}, ready for the next but for the place.
     *
     * @param now where the nozzle stands, with filament drawn back as it is
     * @param then as the next piece has it
     * @param tool to choose, if it is another, and {@code drawn} how far its filament is drawn back
     * @param over height in which nothing is in the way, mm
     */
    public List<String> up(ControllerState now, ControllerState then, OptionalInt tool, Draw drawn, double over) {
        LineWriter out = new LineWriter(printer);
        Frame frame = new Frame(out);
        frame.open(now);
        double missing = drawnUp(now.draw()).length() - now.draw().length();
        if (missing > 1e-9) {
            out.push(-missing, printer.motion().retractSpeed(), "drawn back", "before a way over plastic");
        }
        if (over > now.z()) {
            lift(out, over);
        }
        tool.ifPresent(t -> out.line("the tool of what follows", Word.of("T" + t)));
        heat(out, now, then);
        then.trim()
                .after(now.trim())
                .forEach(command -> out.line("as the piece that follows has it", Word.of(command)));
        Draw is = tool.isPresent()
                ? drawn
                : new Draw(
                        now.draw().length() + Math.max(0, missing), now.draw().byFirmware());
        if (is.byFirmware() && !then.draw().byFirmware()) {
            out.line("the firmware pushes out what it drew back", Word.of("G11"));
        }
        // What is drawn back further than that stays so until the nozzle is there.
        double less = then.draw().length() - is.length();
        if (less > 1e-9) {
            out.push(-less, printer.motion().retractSpeed(), "drawn back", "as the piece that follows has it");
        }
        if (then.draw().byFirmware() && !is.byFirmware()) {
            out.line("the firmware draws back", Word.of("G10"));
        }
        frame.close(then, Optional.empty());
        return texts(out);
    }

    /** Up to {@code over}, where nothing is in the way, from where nothing has been laid yet, and there to a tool. */
    public List<String> choose(ControllerState now, int tool, double over) {
        LineWriter out = new LineWriter(printer);
        Frame frame = new Frame(out);
        frame.open(now);
        lift(out, over);
        out.line("the tool of what follows", Word.of("T" + tool));
        frame.close(now, Optional.empty());
        return texts(out);
    }

    /**
     * Over all that stands to a place, and down.
     *
     * @param now where the nozzle is, with the modes and the count in force
     * @param to the place, with what goes on there
     * @param over height in which nothing is in the way, mm
     * @param owed filament that is drawn back further than the file has it, mm; below zero where it is less
     */
    public List<String> across(ControllerState now, ControllerState to, double over, double owed) {
        LineWriter out = new LineWriter(printer);
        Frame frame = new Frame(out);
        frame.open(now);
        boolean drawn = now.draw().byFirmware() || now.draw().length() + owed > 1e-9;
        double back = drawn ? 0 : back();
        if (back > 0) {
            out.push(-back, printer.motion().retractSpeed(), "drawn back", "before a way over plastic");
        }
        if (over > now.z()) {
            lift(out, over);
        }
        out.line(
                "over what stands",
                Word.of("G1"),
                Word.of("X" + Numerals.mm(to.x()), "where the file goes on"),
                Word.of("Y" + Numerals.mm(to.y()), "where the file goes on"),
                out.travelFeed());
        lift(out, to.z());
        if (Math.abs(back + owed) > 1e-9) {
            out.push(back + owed, printer.motion().retractSpeed(), "pushed out again", "what was drawn back");
        }
        frame.close(to, Optional.empty());
        return texts(out);
    }

    /** The file's feed, after its own lines have been passed over. */
    public static String feed(ControllerState there) {
        return "G1 F" + Numerals.number(there.feed() * 60 / there.units().places(), 1);
    }

    /** What the file's own lines say, the printer is taken to understand. */
    private static List<String> texts(LineWriter out) {
        return out.taken().stream().map(RenderedLine::text).toList();
    }

    private static void lift(LineWriter out, double height) {
        out.line("height", Word.of("G1"), Word.of("Z" + Numerals.mm(height), "over what stands"), out.liftFeed());
    }

    /** Up to a temperature the nozzle waits; down it goes on the way. */
    private static void heat(LineWriter out, ControllerState now, ControllerState then) {
        double target = then.nozzleTemperature();
        if (target > 0 && target != now.nozzleTemperature()) {
            String command = target > now.nozzleTemperature() ? "M109" : "M104";
            out.line("heat of what follows", Word.of(command), Word.of("S" + Numerals.number(target, 1)));
        }
    }
}
