package dev.tranche.core.coat;

import java.util.Arrays;

/**
 * Labels that spread to the squares beside them that have none, all by one square at a time, so that each square gets the label
 * nearest to it. Not for two threads.
 */
final class Growth {
    private static final int FAR = Integer.MAX_VALUE / 2;

    private final byte[] labels;
    private final int[] steps;
    /** Squares with a label, in the order in which they got it. */
    private int[] queue;

    private int count;

    private Growth(Lattice lattice, byte[] labels, int[] queue, int count) {
        this.labels = labels;
        this.steps = lattice.steps();
        this.queue = queue;
        this.count = count;
    }

    /** From all labels of a stretch that have anything beside them to spread to. */
    static Growth of(Lattice lattice, byte[] labels) {
        Growth growth = new Growth(lattice, labels, new int[lattice.columns() + lattice.rows()], 0);
        int columns = lattice.columns();
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] >= 0
                    && (labels[i - 1] == Canvas.NOTHING
                            || labels[i + 1] == Canvas.NOTHING
                            || labels[i - columns] == Canvas.NOTHING
                            || labels[i + columns] == Canvas.NOTHING)) {
                growth.push(i);
            }
        }
        return growth;
    }

    /** What is enclosed by squares that are not allowed gets none. */
    void over(boolean[] allowed) {
        for (int from = 0; from < count; from++) {
            int square = queue[from];
            for (int step : steps) {
                int at = square + step;
                if (labels[at] == Canvas.NOTHING && allowed[at]) {
                    labels[at] = labels[square];
                    push(at);
                }
            }
        }
    }

    /**
     * Over all of a stretch, which takes no queue: once from below and the left, and once from above and the right, each square
     * learns how far the nearest label lies.
     *
     * <p>Source: A. Rosenfeld, J. L. Pfaltz, "Sequential Operations in Digital Picture Processing", Journal of the ACM 13 (1966),
     * from memory.
     */
    static void everywhere(Lattice lattice, byte[] labels) {
        int columns = lattice.columns();
        int[] away = new int[labels.length];
        for (int i = 0; i < labels.length; i++) {
            away[i] = labels[i] >= 0 ? 0 : FAR;
        }
        for (int i = columns; i < labels.length; i++) {
            take(i, away[i - columns] < away[i - 1] ? i - columns : i - 1, labels, away);
        }
        for (int i = labels.length - columns - 1; i >= 0; i--) {
            take(i, away[i + columns] < away[i + 1] ? i + columns : i + 1, labels, away);
        }
    }

    private static void take(int at, int beside, byte[] labels, int[] away) {
        if (away[beside] + 1 < away[at] && labels[at] != Canvas.RING) {
            labels[at] = labels[beside];
            away[at] = away[beside] + 1;
        }
    }

    private void push(int square) {
        if (count == queue.length) {
            queue = Arrays.copyOf(queue, 2 * count);
        }
        queue[count++] = square;
    }
}
