package dev.tranche.core.geometry;

import java.util.Arrays;

/**
 * Points of which the nearest is asked for and taken away, again and again: a tree split in halves by X and by Y in
 * turn, that counts what is left in each of its branches. Building takes n log n, each question about log n.
 */
final class LooseEnds {
    private final double[] x;
    private final double[] y;
    /** The tree: the middle of each stretch is its root, what lies before it is less by the axis of its depth. */
    private final int[] order;

    private final int[] place;
    private final int[] left;

    LooseEnds(double[] x, double[] y) {
        this.x = x;
        this.y = y;
        order = new int[x.length];
        Arrays.setAll(order, i -> i);
        left = new int[x.length];
        split(0, x.length, true);
        place = new int[x.length];
        for (int i = 0; i < order.length; i++) {
            place[order[i]] = i;
        }
    }

    private void split(int from, int to, boolean byX) {
        if (to <= from) {
            return;
        }
        int middle = (from + to) >>> 1;
        select(from, to - 1, middle, byX ? x : y);
        left[middle] = to - from;
        split(from, middle, !byX);
        split(middle + 1, to, !byX);
    }

    /** Hoare's selection: puts the {@code wanted}th in its place, none greater before it and none less behind. */
    private void select(int from, int to, int wanted, double[] by) {
        int low = from;
        int high = to;
        while (low < high) {
            double pivot = by[order[(low + high) >>> 1]];
            int i = low;
            int j = high;
            while (i <= j) {
                while (by[order[i]] < pivot) {
                    i++;
                }
                while (by[order[j]] > pivot) {
                    j--;
                }
                if (i <= j) {
                    int keep = order[i];
                    order[i++] = order[j];
                    order[j--] = keep;
                }
            }
            if (wanted <= j) {
                high = j;
            } else if (wanted >= i) {
                low = i;
            } else {
                return;
            }
        }
    }

    /** Takes a point away. */
    void take(int point) {
        int from = 0;
        int to = x.length;
        while (true) {
            int middle = (from + to) >>> 1;
            left[middle]--;
            if (middle == place[point]) {
                // The point itself no longer counts; what hangs on it goes on to.
                place[point] = -1;
                return;
            }
            if (place[point] < middle) {
                to = middle;
            } else {
                from = middle + 1;
            }
        }
    }

    /** The nearest point left that is nearer than {@code within}; −1 if none is. */
    int nearest(double px, double py, double within) {
        Search search = new Search(px, py, within * within);
        search.in(0, x.length, true);
        return search.best;
    }

    private final class Search {
        private final double px;
        private final double py;
        private double within;
        private int best = -1;

        Search(double px, double py, double within) {
            this.px = px;
            this.py = py;
            this.within = within;
        }

        void in(int from, int to, boolean byX) {
            if (to <= from) {
                return;
            }
            int middle = (from + to) >>> 1;
            if (left[middle] == 0) {
                return;
            }
            int point = order[middle];
            double dx = px - x[point];
            double dy = py - y[point];
            double distance = dx * dx + dy * dy;
            if (place[point] >= 0 && distance < within) {
                within = distance;
                best = point;
            }
            double off = byX ? dx : dy;
            if (off < 0) {
                in(from, middle, !byX);
            } else {
                in(middle + 1, to, !byX);
            }
            if (off * off < within) {
                if (off < 0) {
                    in(middle + 1, to, !byX);
                } else {
                    in(from, middle, !byX);
                }
            }
        }
    }
}
