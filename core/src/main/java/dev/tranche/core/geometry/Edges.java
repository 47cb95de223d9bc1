package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import java.util.Arrays;
import java.util.BitSet;

/**
 * The edges of triangles. Side {@code e} of the triangles runs from corner {@code e} to the next of its triangle; sides
 * between the same two corners are one edge, and know one another in a ring.
 *
 * <p>Sides are gathered by the lesser of their two corners, so that only those few that share it are compared; where
 * very many do, they are sorted. Work grows with the sides there are, whatever they look like.
 */
final class Edges {
    /** No triangle beyond. */
    static final int NONE = -1;
    /** More than one triangle beyond. */
    static final int CROWDED = -2;

    private static final int FEW = 24;

    private final int[] corners;
    /** For each side the next in the ring of its edge; itself if it is alone; {@link #NONE} in a triangle without area. */
    private final int[] beside;

    /**
     * @param corners of triangles, three each, those at one place with one number
     */
    Edges(int[] corners, Progress progress) {
        this(corners, null, progress);
    }

    /**
     * @param groups of the triangles; sides of different groups are never one edge. Null if there is only one.
     */
    Edges(int[] corners, int[] groups, Progress progress) {
        this.corners = corners;
        this.beside = new int[corners.length];
        int[] start = starts(progress);
        int[] sides = gathered(start, progress);
        int from = 0;
        for (int corner = 0; corner < start.length; corner++) {
            if ((corner & 0xFFFF) == 0) {
                progress.beat();
            }
            int to = start[corner];
            if (to - from <= FEW) {
                match(sides, from, to, groups);
            } else {
                matchMany(sides, from, to, groups, progress);
            }
            from = to;
        }
    }

    /** Where the sides of each lesser corner begin. */
    private int[] starts(Progress progress) {
        int highest = -1;
        for (int corner : corners) {
            highest = Math.max(highest, corner);
        }
        int[] start = new int[highest + 1];
        for (int t = 0; t < corners.length; t += 3) {
            if ((t & 0x3FFFF) == 0) {
                progress.beat();
            }
            if (degenerate(t / 3)) {
                beside[t] = NONE;
                beside[t + 1] = NONE;
                beside[t + 2] = NONE;
            } else {
                int a = corners[t];
                int b = corners[t + 1];
                int c = corners[t + 2];
                start[Math.min(a, b)]++;
                start[Math.min(b, c)]++;
                start[Math.min(c, a)]++;
            }
        }
        int sum = 0;
        for (int i = 0; i < start.length; i++) {
            int here = start[i];
            start[i] = sum;
            sum += here;
        }
        return start;
    }

    /** Sides by their lesser corner; afterwards {@code start} says where those of each corner end. */
    private int[] gathered(int[] start, Progress progress) {
        int[] sides = new int[corners.length];
        for (int e = 0; e < corners.length; e++) {
            if ((e & 0x3FFFF) == 0) {
                progress.beat();
            }
            if (beside[e] != NONE) {
                sides[start[Math.min(from(e), to(e))]++] = e;
            }
        }
        return sides;
    }

    private void match(int[] sides, int from, int to, int[] groups) {
        for (int i = from; i < to; i++) {
            int e = sides[i];
            int far = far(e);
            beside[e] = e;
            for (int j = from; j < i; j++) {
                int other = sides[j];
                if (far(other) == far && (groups == null || groups[other / 3] == groups[e / 3])) {
                    beside[e] = beside[other];
                    beside[other] = e;
                    break;
                }
            }
        }
    }

    private void matchMany(int[] sides, int from, int to, int[] groups, Progress progress) {
        long[] keys = new long[to - from];
        for (int i = from; i < to; i++) {
            keys[i - from] = (long) far(sides[i]) << 32 | sides[i];
        }
        Arrays.sort(keys);
        progress.beat();
        int run = 0;
        while (run < keys.length) {
            int end = run + 1;
            while (end < keys.length && keys[end] >>> 32 == keys[run] >>> 32) {
                end++;
            }
            for (int i = run; i < end; i++) {
                // By group within one edge, if there are groups.
                keys[i] = (groups == null ? 0 : (long) groups[(int) keys[i] / 3]) << 32 | (int) keys[i];
            }
            if (groups != null) {
                Arrays.sort(keys, run, end);
            }
            for (int i = run; i < end; i++) {
                int e = (int) keys[i];
                if (i > run && keys[i] >>> 32 == keys[i - 1] >>> 32) {
                    int other = (int) keys[i - 1];
                    beside[e] = beside[other];
                    beside[other] = e;
                } else {
                    beside[e] = e;
                }
            }
            run = end;
        }
    }

    int from(int side) {
        return corners[side];
    }

    int to(int side) {
        return corners[after(side)];
    }

    private int far(int side) {
        return Math.max(from(side), to(side));
    }

    /** The next side of the same triangle. */
    static int after(int side) {
        return side % 3 == 2 ? side - 2 : side + 1;
    }

    boolean degenerate(int triangle) {
        int a = corners[3 * triangle];
        int b = corners[3 * triangle + 1];
        int c = corners[3 * triangle + 2];
        return a == b || b == c || a == c;
    }

    /** The next side of the same edge, round to {@code side} itself; {@link #NONE} in a triangle without area. */
    int beside(int side) {
        return beside[side];
    }

    /** The only other side of the same edge, or {@link #NONE}, or {@link #CROWDED}. */
    int twin(int side) {
        int other = beside[side];
        return other == side ? NONE : other == NONE || beside[other] == side ? other : CROWDED;
    }

    /** Each edge once, by one of its sides. */
    void forEach(Visitor visitor) {
        BitSet seen = new BitSet();
        for (int e = 0; e < beside.length; e++) {
            int other = beside[e];
            if (other == NONE) {
                continue;
            }
            boolean plain = other == e || beside[other] == e;
            if (plain && other >= e) {
                visitor.edge(e, other == e ? 1 : 2);
            } else if (!plain && !seen.get(e)) {
                int sides = 0;
                for (int at = e; !seen.get(at); at = beside[at]) {
                    seen.set(at);
                    sides++;
                }
                visitor.edge(e, sides);
            }
        }
    }

    @FunctionalInterface
    interface Visitor {
        /** @param side one of {@code sides} that make the edge */
        void edge(int side, int sides);
    }
}
