package dev.tranche.core.macro;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Writes lines of G-code for one printer: each word with its setting, and marked where the firmware ignores it. */
final class LineWriter {
    /** Many firmwares refuse a single move of more filament than this, mm (common practice). */
    private static final double LONGEST_PUSH = 200;

    private final Printer printer;
    private List<RenderedLine> lines = new ArrayList<>();
    private int step = RenderedLine.FRAME;

    LineWriter(Printer printer) {
        this.printer = printer;
    }

    /** What is written from here on belongs to step {@code index}, or to the frame. */
    void belongsTo(int index) {
        step = index;
    }

    /** What has been written; it begins anew after that. */
    List<RenderedLine> taken() {
        List<RenderedLine> taken = List.copyOf(lines);
        lines = new ArrayList<>();
        return taken;
    }

    void line(String reason, Word... words) {
        lines.add(new RenderedLine(
                List.of(words), step, OwnLine.isUnderstood(words[0].text(), printer.abilities()), reason));
    }

    /** Lines people wrote themselves, with their names filled in. */
    void own(String text, Moment moment, Map<MacroName, String> words) {
        for (String own : Template.of(text).lines(moment, printer, words)) {
            lines.add(OwnLine.read(own, step, printer.abilities()));
        }
    }

    /** Filament pushed, or drawn back where {@code length} is below zero, in moves no firmware refuses. */
    void push(double length, double speed, String reason, String setting) {
        int parts = (int) Math.ceil((Math.abs(length) - 1e-6) / LONGEST_PUSH);
        for (int i = 1; i <= parts; i++) {
            String part = parts == 1 ? "" : Words.format(", part %d of %d", i, parts);
            line(
                    reason + part,
                    Word.of("G1"),
                    Word.of("E" + Numerals.mm(length / parts), setting + part),
                    feed(speed, "speed"));
        }
    }

    void dwell(double seconds, String reason, String setting) {
        boolean inSeconds = printer.abilities().honours(Command.G4, 'S');
        line(
                reason,
                Word.of("G4"),
                inSeconds
                        ? given(Command.G4, 'S', seconds, setting + ", s")
                        : given(Command.G4, 'P', seconds * 1000, setting + ", ms"));
    }

    /** A parameter of a command that a firmware may ignore. */
    Word given(Command command, char parameter, double value, String setting) {
        return new Word(
                parameter + Numerals.mm(value), setting, !printer.abilities().honours(command, parameter));
    }

    static Word to(Axis axis, double place, String setting) {
        return Word.of(axis.name() + Numerals.mm(place), setting);
    }

    Word travelFeed() {
        return feed(printer.motion().travelSpeed(), "travel speed of the printer");
    }

    Word liftFeed() {
        return feed(printer.motion().liftSpeed(), "lift speed of the printer");
    }

    static Word feed(double speed, String setting) {
        return Word.of("F" + Numerals.number(speed * 60, 1), setting + ", " + Numerals.number(speed, 1) + " mm/s");
    }
}
