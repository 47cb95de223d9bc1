package dev.tranche.core.gcode;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Whose block of lines this is, as its first and last comment say.
 *
 * @param plan the plan's id: letters, digits and dashes
 * @param state a digest of what the plan's swaps were when the block was written
 * @param swap number of the swap, from 1
 */
public record BlockStamp(String plan, String state, int swap) {
    private static final Pattern BEGIN =
            Pattern.compile("; tranche begin plan=([\\w-]{1,64}) state=(\\w{1,64}) swap=(\\d{1,5})");
    private static final String END = "; tranche end";

    public BlockStamp {
        if (!plan.matches("[\\w-]{1,64}") || !state.matches("\\w{1,64}") || swap < 1) {
            throw new IllegalArgumentException("not a stamp: " + plan + " " + state + " " + swap);
        }
    }

    /** The stamp in a comment that begins a block. */
    static Optional<BlockStamp> beginning(String comment) {
        Matcher m = BEGIN.matcher(comment);
        return m.matches()
                ? Optional.of(new BlockStamp(m.group(1), m.group(2), Integer.parseInt(m.group(3))))
                : Optional.empty();
    }

    static boolean isEnd(String comment) {
        return comment.startsWith(END);
    }

    String begin() {
        return "; tranche begin plan=" + plan + " state=" + state + " swap=" + swap;
    }

    String end() {
        return END + " swap=" + swap;
    }
}
