package dev.tranche.core.macro;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/**
 * A line of G-code and where it comes from.
 *
 * @param words the command first
 * @param step index of the step it belongs to; {@link #FRAME} for what the renderer puts round every macro
 * @param written whether it goes into a file; false where the firmware lacks the command
 * @param reason what the line is for, in a few words
 */
public record RenderedLine(List<Word> words, int step, boolean written, String reason) {
    /** The step index of lines that belong to no step. */
    public static final int FRAME = -1;

    public RenderedLine {
        words = List.copyOf(words);
    }

    /** A line of plain words. */
    public static RenderedLine of(String text, int step, String reason) {
        return new RenderedLine(Arrays.stream(text.split(" ")).map(Word::of).toList(), step, true, reason);
    }

    /** As it goes into a file: without its ending, and without what the firmware ignores. */
    public String text() {
        return words.stream().filter(w -> !w.ignored()).map(Word::text).collect(Collectors.joining(" "));
    }

    /** The same line as part of another step. */
    RenderedLine under(int other) {
        return new RenderedLine(words, other, written, reason);
    }

    /** The texts of those of {@code lines} that are written. */
    public static List<String> texts(List<RenderedLine> lines) {
        return lines.stream()
                .filter(RenderedLine::written)
                .map(RenderedLine::text)
                .toList();
    }
}
