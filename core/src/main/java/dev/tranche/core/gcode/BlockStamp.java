package dev.tranche.core.gcode;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Whose block of lines this is, as its first and last comment say.
 *
 * @param plan the plan's id: letters, digits and dashes
 * @param state a digest of what the plan's swaps were when the block was written
 * @param what it does
 * @param number of its kind, from 1
 */
public record BlockStamp(String plan, String state, What what, int number) {
    private static final Pattern BEGIN = Pattern.compile(
            "; tranche begin plan=([\\w-]{1,64}) state=(\\w{1,64}) (swap|halt|load|tool|stop|mix|feed)=([1-9]\\d{0,6})");
    private static final String END = "; tranche end";
    /** Stands before a line of the file that is taken out. */
    public static final String TOOK = "; tranche took ";

    /** Begins the line that says which piece of the file as it came follows. */
    public static final String PIECE = "; tranche piece ";
    /** Begins the lines round what is a job's own. */
    public static final String JOB = "; tranche job ";
    /** Ends each line that was put in between pieces. */
    public static final String ADDED = " ; tranche added";

    /** Kinds of block. */
    public enum What {
        LOAD,
        SWAP,
        HALT,
        /** No more than a line of a tool that is taken out. */
        TOOL,
        /** No more than a stop of the file's own that is taken out. */
        STOP,
        /** No more than what a nozzle is told to blend from here on. */
        MIX,
        /** No more than a line that is taken out because it moves filament in or out where a swap does. */
        FEED;

        /** Whether the machine stops, or may stop, because of it. */
        boolean stops() {
            return this == LOAD || this == SWAP || this == HALT;
        }

        /** As it stands in the stamp. */
        String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public BlockStamp {
        if (!plan.matches("[\\w-]{1,64}") || !state.matches("\\w{1,64}") || number < 1) {
            throw new IllegalArgumentException("not a stamp: " + plan + " " + state + " " + number);
        }
    }

    /** The stamp in a comment that begins a block. */
    public static Optional<BlockStamp> beginning(String comment) {
        Matcher m = BEGIN.matcher(comment.stripTrailing());
        return m.matches()
                ? Optional.of(new BlockStamp(
                        m.group(1),
                        m.group(2),
                        What.valueOf(m.group(3).toUpperCase(Locale.ROOT)),
                        Integer.parseInt(m.group(4))))
                : Optional.empty();
    }

    /** Whether a line begins as Tranche's marks do. */
    static boolean isMark(String line) {
        return line.startsWith("; tranche ");
    }

    static boolean isPiece(String comment) {
        return comment.startsWith(PIECE);
    }

    public static boolean isEnd(String comment) {
        return comment.startsWith(END);
    }

    /** Whether a comment ends this very block. */
    boolean endsWith(String comment) {
        return comment.stripTrailing().equals(end());
    }

    String begin() {
        return "; tranche begin plan=" + plan + " state=" + state + " " + what.code() + "=" + number;
    }

    String end() {
        return END + " " + what.code() + "=" + number;
    }
}
