package dev.tranche.core.coat;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Labels that spread to the squares beside them that have none, all by one square at a time, so that each square gets the label
 * nearest to it. Not for two threads.
 */
final class Growth {
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

    /** Another that goes on in a stretch with all of this one. */
    Growth in(Lattice larger, Lattice stretch) {
        byte[] all = larger.blank();
        for (int r = 1; r < stretch.rows() - 1; r++) {
            int from = r * stretch.columns() + 1;
            System.arraycopy(labels, from, all, larger.numberOf(from, stretch), stretch.columns() - 2);
        }
        int[] there = new int[Math.max(count, larger.squares())];
        for (int i = 0; i < count; i++) {
            there[i] = larger.numberOf(queue[i], stretch);
        }
        return new Growth(larger, all, there, count);
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

    /** Over what is hardly beyond an area, and as far as it takes if some of the area has no label yet. */
    byte[] beyond(boolean[] area, boolean[] hardly) {
        if (IntStream.range(0, area.length).anyMatch(i -> area[i] && labels[i] == Canvas.NOTHING)) {
            return everywhere();
        }
        over(hardly);
        return labels;
    }

    byte[] everywhere() {
        boolean[] all = new boolean[labels.length];
        Arrays.fill(all, true);
        over(all);
        return labels;
    }

    private void push(int square) {
        if (count == queue.length) {
            queue = Arrays.copyOf(queue, 2 * count);
        }
        queue[count++] = square;
    }
}
