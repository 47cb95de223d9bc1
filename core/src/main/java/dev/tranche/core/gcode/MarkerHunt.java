package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Markers;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;

/**
 * Finds the comments that number a file's layers, or give their heights, knowing none of them beforehand: one of the numbers
 * in them rises by one with each layer, or is the height of the nozzle there.
 */
final class MarkerHunt {
    private static final int MOST_KINDS = 8_000;
    /** Of one comment; those after them are read over. */
    private static final int MOST_NUMBERS = 4;
    /** Nearer than this two heights are one, mm. */
    private static final double NEAR = 0.02;

    private final Map<Long, Candidate> candidates = new HashMap<>();
    private final double[] values = new double[MOST_NUMBERS + 1];
    private final boolean[] whole = new boolean[MOST_NUMBERS + 1];

    /** One number of one kind of comment. */
    private static final class Candidate {
        final String example;
        final double first;
        final int firstRun;
        int seen = 1;
        double last;
        boolean counts;
        boolean measures = true;

        Candidate(String example, double first, boolean whole, int firstRun) {
            this.example = example;
            this.first = first;
            this.last = first;
            this.counts = whole;
            this.firstRun = firstRun;
        }
    }

    /**
     * Considers a comment.
     *
     * @param runs layers begun before it
     * @param height of the last of them, mm
     */
    void comment(byte[] bytes, int from, int to, int runs, double height) {
        long hash = 1469598103934665603L;
        int numbers = 0;
        int at = from;
        while (at < to) {
            int c = bytes[at];
            boolean negative = c == '-' && at + 1 < to && isDigit(bytes[at + 1]) && !isWord(bytes, at - 1, from);
            if (negative || isDigit(bytes[at])) {
                at = number(bytes, negative ? at + 1 : at, to, numbers);
                values[numbers] = negative ? -values[numbers] : values[numbers];
                numbers = Math.min(numbers + 1, MOST_NUMBERS);
                c = '#';
            } else {
                at++;
            }
            hash = (hash ^ c) * 1099511628211L;
        }
        for (int i = 0; i < numbers; i++) {
            count(31 * hash + i, i, runs, height, bytes, from, to);
        }
    }

    /** Reads a number and answers where reading goes on. */
    private int number(byte[] bytes, int from, int to, int nth) {
        int at = from;
        double value = 0;
        double unit = 1;
        boolean pointed = false;
        while (at < to
                && (isDigit(bytes[at]) || bytes[at] == '.' && !pointed && at + 1 < to && isDigit(bytes[at + 1]))) {
            if (bytes[at] == '.') {
                pointed = true;
            } else {
                value = 10 * value + bytes[at] - '0';
                unit = pointed ? 10 * unit : unit;
            }
            at++;
        }
        values[nth] = value / unit;
        whole[nth] = !pointed;
        return at;
    }

    private static boolean isDigit(byte c) {
        return c >= '0' && c <= '9';
    }

    /** Whether a dash behind it is part of a word, and no sign. */
    private static boolean isWord(byte[] bytes, int at, int from) {
        return at >= from && Character.isLetterOrDigit(bytes[at] & 0xFF);
    }

    private void count(long key, int nth, int runs, double height, byte[] bytes, int from, int to) {
        Candidate candidate = candidates.get(key);
        double value = values[nth];
        if (candidate == null) {
            if (candidates.size() < MOST_KINDS) {
                String example = new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
                candidates.put(key, new Candidate(example, value, whole[nth], runs));
            }
            return;
        }
        boolean next = runs == candidate.firstRun + candidate.seen;
        candidate.counts &= next && whole[nth] && value == candidate.first + candidate.seen;
        candidate.measures &= next && Math.abs(candidate.last - height) < NEAR;
        candidate.last = value;
        candidate.seen++;
    }

    /**
     * The kind of comment that came once before each of the last layers; one that counts rather than one that measures.
     *
     * @param runs how many layers there are, and {@code height} of the last, mm
     */
    Optional<Markers> found(int runs, double height) {
        return found(runs, c -> c.counts)
                .map(c -> new Markers(c.example.strip(), c.firstRun, OptionalLong.of((long) c.first)))
                .or(() -> found(runs, c -> c.measures && Math.abs(c.last - height) < NEAR)
                        .map(c -> new Markers(c.example.strip(), c.firstRun, OptionalLong.empty())));
    }

    private Optional<Candidate> found(int runs, Predicate<Candidate> which) {
        return candidates.values().stream()
                .filter(c -> c.seen >= 2 && c.firstRun + c.seen == runs)
                .filter(which)
                .min(Comparator.comparingInt(c -> c.firstRun));
    }
}
