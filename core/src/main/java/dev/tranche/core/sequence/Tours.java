package dev.tranche.core.sequence;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * For one stage the cheapest ways through its colours, from each first one to each last one.
 *
 * <p>Up to {@value #EXACT} colours the ways are the shortest there are (Held and Karp, "A dynamic programming approach
 * to sequencing problems", Journal of SIAM 10, 1962); with more, each begins with the nearest next colour and is bettered
 * by moving single colours to other places as long as that helps.
 */
final class Tours {
    /** Up to here nothing is left to chance. */
    static final int EXACT = 8;

    static final long NO_WAY = Long.MAX_VALUE / 4;

    private final int[] colours;
    private final int[] before;
    private final long[][] cost;
    /** As {@link #cost}, by the colour that goes in. */
    private final long[][] into;

    private final long[] lengths;

    private Tours(int[] colours, int[] before, long[][] cost) {
        this.colours = colours;
        this.before = before;
        this.cost = cost;
        this.into = new long[colours.length][colours.length];
        for (int i = 0; i < into.length; i++) {
            for (int j = 0; j < into.length; j++) {
                into[i][j] = cost[j][i];
            }
        }
        this.lengths = new long[colours.length * colours.length];
        Arrays.fill(lengths, NO_WAY);
    }

    static Tours of(Stage stage, SwapCosts costs) {
        int k = stage.size();
        int[] colours = new int[k];
        for (int c = 0, at = 0; c < costs.size(); c++) {
            if ((stage.colours() >> c & 1) == 1) {
                colours[at++] = c;
            }
        }
        int[] before = new int[k];
        long[][] cost = new long[k][k];
        for (int i = 0; i < k; i++) {
            for (int j = 0; j < k; j++) {
                cost[i][j] = costs.of(colours[i], colours[j]);
                before[i] |= (stage.before(colours[i]) >> colours[j] & 1) << j;
            }
        }
        Tours tours = new Tours(colours, before, cost);
        long[] table = new long[tours.exact() ? k << k : 0];
        for (int first = 0; first < k; first++) {
            if (before[first] == 0) {
                tours.measure(first, table);
            }
        }
        return tours;
    }

    int size() {
        return colours.length;
    }

    /** The place in the palette of the stage's colour {@code i}. */
    int colour(int i) {
        return colours[i];
    }

    boolean exact() {
        return colours.length <= EXACT;
    }

    /** What it costs from {@code first} to {@code last} through all others; {@link #NO_WAY} if that is not allowed. */
    long length(int first, int last) {
        return lengths[first * colours.length + last];
    }

    private void measure(int first, long[] table) {
        if (exact()) {
            fill(table, first);
            System.arraycopy(table, table.length - size(), lengths, first * size(), size());
        } else {
            for (int last = 0; last < size(); last++) {
                int[] way = good(first, last);
                if (way != null) {
                    lengths[first * size() + last] = length(way);
                }
            }
        }
    }

    /** The way that {@link #length} measures, as places in the palette. */
    int[] way(int first, int last) {
        int[] way = exact() ? trace(first, last) : good(first, last);
        int[] places = new int[way.length];
        for (int i = 0; i < way.length; i++) {
            places[i] = colours[way[i]];
        }
        return places;
    }

    /** For each set of colours, and each of them as the last, what the shortest way from {@code first} through the set costs. */
    private void fill(long[] best, int first) {
        int k = size();
        Arrays.fill(best, NO_WAY);
        int start = 1 << first;
        best[start * k + first] = 0;
        for (int set = start; set < 1 << k; set++) {
            if ((set & start) == 0) {
                continue;
            }
            for (int ends = set ^ start; ends != 0; ends &= ends - 1) {
                int end = Integer.numberOfTrailingZeros(ends);
                int rest = set ^ 1 << end;
                if ((before[end] & ~rest) == 0) {
                    // Colours that are not in the rest cost NO_WAY there, so none has to be left out.
                    long least = NO_WAY;
                    long[] from = into[end];
                    for (int last = 0, cell = rest * k; last < k; last++, cell++) {
                        least = Math.min(least, best[cell] + from[last]);
                    }
                    best[set * k + end] = least;
                }
            }
        }
    }

    private int[] trace(int first, int last) {
        int k = size();
        long[] best = new long[k << k];
        fill(best, first);
        int[] way = new int[k];
        int set = (1 << k) - 1;
        int end = last;
        for (int at = k - 1; at > 0; at--) {
            way[at] = end;
            int rest = set & ~(1 << end);
            for (int c = 0; c < k; c++) {
                if ((rest >> c & 1) == 1
                        && best[rest * k + c] != NO_WAY
                        && best[rest * k + c] + cost[c][end] == best[set * k + end]) {
                    end = c;
                    break;
                }
            }
            set = rest;
        }
        way[0] = first;
        return way;
    }

    /** A good way between two colours; null if there is none that keeps what must come before what. */
    private int[] good(int first, int last) {
        int k = size();
        if (first == last && k > 1) {
            return null;
        }
        List<Integer> way = new ArrayList<>(List.of(first));
        int done = 1 << first;
        while (way.size() < k) {
            int end = way.get(way.size() - 1);
            int next = -1;
            for (int c = 0; c < k; c++) {
                boolean due = c != last || way.size() == k - 1;
                if (due
                        && (done >> c & 1) == 0
                        && (before[c] & ~done) == 0
                        && (next < 0 || cost[end][c] < cost[end][next])) {
                    next = c;
                }
            }
            if (next < 0) {
                return null;
            }
            way.add(next);
            done |= 1 << next;
        }
        return bettered(way.stream().mapToInt(Integer::intValue).toArray());
    }

    private int[] bettered(int[] way) {
        boolean better = true;
        while (better) {
            better = false;
            for (int from = 1; from < way.length - 1; from++) {
                for (int to = 1; to < way.length - 1; to++) {
                    int[] moved = moved(way, from, to);
                    if (length(moved) < length(way) && allowed(moved)) {
                        way = moved;
                        better = true;
                    }
                }
            }
        }
        return way;
    }

    private static int[] moved(int[] way, int from, int to) {
        int[] moved = way.clone();
        int step = from < to ? 1 : -1;
        for (int i = from; i != to; i += step) {
            moved[i] = way[i + step];
        }
        moved[to] = way[from];
        return moved;
    }

    private boolean allowed(int[] way) {
        int done = 0;
        for (int c : way) {
            if ((before[c] & ~done) != 0) {
                return false;
            }
            done |= 1 << c;
        }
        return true;
    }

    private long length(int[] way) {
        long sum = 0;
        for (int i = 1; i < way.length; i++) {
            sum += cost[way[i - 1]][way[i]];
        }
        return sum;
    }
}
