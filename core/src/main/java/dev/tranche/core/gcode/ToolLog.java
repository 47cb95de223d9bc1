package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.ToolLine;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/** The lines of a file that name a tool, as it is being read. */
final class ToolLog {
    private static final int MOST = 1_000_000;

    private final List<ToolLine> lines = new ArrayList<>();
    /** Place in them of the last that chooses another tool. */
    private int chosen;
    /** Heat that was asked for since the last plastic. */
    private final List<Heating> heating = new ArrayList<>();

    /** Of the line at that place of {@link #lines}: what was asked for before it. */
    private record Heating(int line, double before) {}

    /** A line chooses a tool where {@code printing} printed, −1 for none. */
    void chooses(GcodeScanner line, int number, int printing) {
        remember(line, number, printing, false, "");
    }

    /** A line heats a tool, where so many °C were asked for before. */
    void heats(GcodeScanner line, int number, int printing, double before) {
        remember(line, number, printing, true, heat(line));
        heating.add(new Heating(lines.size() - 1, before));
    }

    private void remember(GcodeScanner line, int number, int printing, boolean heats, String heat) {
        if (lines.size() == MOST) {
            throw Refusal.of("The G-code names tools over a million times by line %d; it is damaged.", line.line());
        }
        lines.add(new ToolLine(
                line.line(),
                line.offset(),
                line.end(),
                number,
                heats,
                printing,
                line.hasEnding(),
                heat,
                Optional.empty()));
    }

    /** The line as it would be said to the only nozzle there is. */
    private static String heat(GcodeScanner line) {
        StringBuilder said = new StringBuilder("M").append(line.number());
        for (char word : new char[] {'S', 'R'}) {
            if (line.has(word)) {
                said.append(' ')
                        .append(word)
                        .append(Words.format("%.1f", line.get(word)).replaceAll("\\.0$", ""));
            }
        }
        return said.toString();
    }

    /** The last line chooses another tool: what has to be made good where it is taken out and no spool is changed. */
    void owes(ControllerState there) {
        chosen = lines.size() - 1;
        owesRather(there);
    }

    /** The same when it is known how far that tool's filament was drawn back. */
    void owesRather(ControllerState there) {
        lines.set(chosen, lines.get(chosen).owing(there));
    }

    /** What was asked for before any heat of which it is not known yet whose it is, °C. */
    OptionalDouble before() {
        return heating.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(heating.get(0).before());
    }

    /** Whose heat it was is known when the next plastic comes, by {@code tool}, or none comes any more. */
    void settle(int tool) {
        if (heating.isEmpty()) {
            return;
        }
        heating.forEach(h -> lines.set(h.line(), lines.get(h.line()).heating(tool)));
        heating.clear();
    }

    List<ToolLine> lines() {
        return lines;
    }
}
