package dev.tranche.core.sequence;

import java.nio.LongBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The cheapest ways through the colours of one stage, by the colour they end with, when beginning with each costs what it
 * costs.
 *
 * <p>Up to {@value #EXACT} colours the ways are the shortest there are (Held and Karp, "A dynamic programming approach
 * to sequencing problems", Journal of SIAM 10, 1962); with more, each begins with the nearest next colour and is bettered
 * by moving single colours to other places as long as that helps.
 */
final class Tours {
    /** Up to here nothing is left to chance. */
    static final int EXACT = 10;

    static final long NO_WAY = Long.MAX_VALUE / 4;

    /** The members of each set of up to {@value #EXACT} colours, rising. */
    private static final byte[][] MEMBERS = new byte[1 << EXACT][];

    static {
        for (int set = 0; set < MEMBERS.length; set++) {
            MEMBERS[set] = new byte[Integer.bitCount(set)];
            for (int i = 0, rest = set; rest != 0; rest &= rest - 1) {
                MEMBERS[set][i++] = (byte) Integer.numberOfTrailingZeros(rest);
            }
        }
    }

    private final int[] colours;
    private final int[] before;
    private final long[][] cost;
    /** As {@link #cost}, by the colour that goes in. */
    private final long[][] into;
    /** Good ways from each first to each last colour, once a stage of too many colours has been passed. */
    private int[][][] good;

    private final Map<LongBuffer, Passage> known = new HashMap<>();

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
        return new Tours(colours, before, cost);
    }

    int size() {
        return colours.length;
    }

    /** The place in the palette of the stage's colour {@code i}. */
    int colour(int i) {
        return colours[i];
    }

    /** Which of the stage's colours is at {@code place} of the palette. */
    int place(int place) {
        return Arrays.binarySearch(colours, place);
    }

    boolean exact() {
        return colours.length <= EXACT;
    }

    /** The ways through the stage when beginning with each colour costs what {@code entered} says. */
    Passage passage(long[] entered) {
        return known.computeIfAbsent(LongBuffer.wrap(entered), e -> new Passage(entered));
    }

    /** The cheapest ways there are after one particular beginning. */
    final class Passage {
        private final long[] entered;
        private final long[] costs;
        private final int[][] ways = new int[size()][];
        /** For each set of colours, and each of them as the last, the one before it on the cheapest way. */
        private final byte[] previous;

        private Passage(long[] entered) {
            this.entered = entered;
            this.previous = exact() ? new byte[size() << size()] : new byte[0];
            this.costs = exact() ? through(entered, previous) : goodCosts(entered);
        }

        /** What it costs to be through all colours, by the last of them; {@link #NO_WAY} for one that cannot be the last. */
        long[] costs() {
            return costs;
        }

        /** The way that ends with {@code last}, as colours of the stage. */
        int[] way(int last) {
            if (ways[last] == null) {
                ways[last] = exact() ? traced(previous, last) : goodWay(entered, last);
            }
            return ways[last];
        }
    }

    /** What the cheapest ways through all colours cost, by the last of them. */
    private long[] through(long[] entered, byte[] previous) {
        int k = size();
        long[] best = new long[k << k];
        Arrays.fill(best, NO_WAY);
        for (int first = 0; first < k; first++) {
            best[(k << first) + first] = before[first] == 0 ? entered[first] : NO_WAY;
        }
        for (int set = 1; set < (1 << k) - 1; set++) {
            byte[] members = MEMBERS[set];
            for (byte in : MEMBERS[~set & (1 << k) - 1]) {
                if ((before[in] & ~set) == 0) {
                    long[] swap = into[in];
                    long least = NO_WAY;
                    byte from = 0;
                    for (byte last : members) {
                        long cost = best[set * k + last] + swap[last];
                        if (cost < least) {
                            least = cost;
                            from = last;
                        }
                    }
                    int at = (set | 1 << in) * k + in;
                    best[at] = least;
                    previous[at] = from;
                }
            }
        }
        return Arrays.copyOfRange(best, best.length - k, best.length);
    }

    private int[] traced(byte[] previous, int last) {
        int k = size();
        int[] way = new int[k];
        int set = (1 << k) - 1;
        way[k - 1] = last;
        for (int at = k - 1; at > 0; at--) {
            way[at - 1] = previous[set * k + way[at]];
            set ^= 1 << way[at];
        }
        return way;
    }

    private long[] goodCosts(long[] entered) {
        long[] through = new long[size()];
        for (int last = 0; last < through.length; last++) {
            int[] way = goodWay(entered, last);
            through[last] = way == null ? NO_WAY : entered[way[0]] + length(way);
        }
        return through;
    }

    private int[] goodWay(long[] entered, int last) {
        int k = size();
        if (good == null) {
            good = new int[k][k][];
            for (int first = 0; first < k; first++) {
                for (int end = 0; end < k && before[first] == 0; end++) {
                    good[first][end] = good(first, end);
                }
            }
        }
        int[] best = null;
        long least = NO_WAY;
        for (int first = 0; first < k; first++) {
            int[] way = good[first][last];
            if (way != null && entered[first] + length(way) < least) {
                least = entered[first] + length(way);
                best = way;
            }
        }
        return best;
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
