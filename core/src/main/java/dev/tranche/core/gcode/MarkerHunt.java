package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Markers;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Finds the comments that number a file's layers, knowing none of them beforehand. */
final class MarkerHunt {
    private static final int MOST_KINDS = 2_000;

    private final Map<Long, Candidate> candidates = new HashMap<>();

    private static final class Candidate {
        final String example;
        final long firstNumber;
        final int firstRun;
        int seen = 1;
        boolean alive = true;

        Candidate(String example, long firstNumber, int firstRun) {
            this.example = example;
            this.firstNumber = firstNumber;
            this.firstRun = firstRun;
        }
    }

    /**
     * Considers a comment line.
     *
     * @param runs layers begun before it
     */
    void comment(byte[] bytes, int from, int to, int runs) {
        long hash = 1469598103934665603L;
        long number = -1;
        for (int i = from; i < to; i++) {
            int c = bytes[i];
            if (c >= '0' && c <= '9') {
                if (number >= 0 || i > from && bytes[i - 1] == '.') {
                    return;
                }
                number = 0;
                while (i < to && bytes[i] >= '0' && bytes[i] <= '9') {
                    number = Math.min(number * 10 + bytes[i++] - '0', 1L << 40);
                }
                if (i < to && bytes[i] == '.') {
                    return;
                }
                i--;
                c = '#';
            }
            hash = (hash ^ c) * 1099511628211L;
        }
        if (number >= 0) {
            count(hash, number, runs, bytes, from, to);
        }
    }

    private void count(long hash, long number, int runs, byte[] bytes, int from, int to) {
        Candidate candidate = candidates.get(hash);
        if (candidate == null) {
            if (candidates.size() < MOST_KINDS) {
                String example = new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
                candidates.put(hash, new Candidate(example, number, runs));
            }
        } else if (candidate.alive) {
            candidate.alive =
                    number == candidate.firstNumber + candidate.seen && runs == candidate.firstRun + candidate.seen;
            candidate.seen++;
        }
    }

    /** The kind of comment that came once before each of the last layers up to {@code runs}. */
    Optional<Markers> found(int runs) {
        return candidates.values().stream()
                .filter(c -> c.alive && c.seen >= 2 && c.firstRun + c.seen == runs)
                .min(Comparator.comparingInt(c -> c.firstRun))
                .map(c -> new Markers(c.example.strip(), c.firstRun, c.firstNumber));
    }
}
