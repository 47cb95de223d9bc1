package dev.tranche.core.geometry;

import java.util.Arrays;
import java.util.List;
import java.util.function.Predicate;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.noding.NodedSegmentString;
import org.locationtech.jts.noding.SegmentIntersector;

/**
 * Segments of lines of which the boxes meet.
 *
 * <p>Found by a sweep along the axis on which segments reach less far, strip by strip: outlines have so few of them side by side
 * that this is several times as fast as a tree of boxes, and finding such pairs is most of what it costs to lay areas over one
 * another. The work grows with the segments, times the logarithm of their number, and with those that the sweep holds at once.
 */
final class NearPairs {
    /** As many segments as one strip is made for. */
    private static final int STRIP = 128;

    private static final int MOST_STRIPS = 1 << 10;
    /** In so many strips a segment may lie on average. */
    private static final int STRIPS_EACH = 2;

    /** To see that so many segments are still held, or not, is as much work as one step. */
    private static final int HELD_A_STEP = 32;

    private final NodedSegmentString[] lines;
    private final int count;
    /** For each segment the line that it is of, and its place in that. */
    private final int[] line;

    private final int[] at;
    private final Extents along;
    private final Extents across;

    /** @param close boxes that far from one another meet, mm */
    NearPairs(List<NodedSegmentString> lines, double close) {
        this.lines = lines.toArray(NodedSegmentString[]::new);
        this.count = lines.stream().mapToInt(l -> l.size() - 1).sum();
        this.line = new int[count];
        this.at = new int[count];
        Extents x = new Extents(count, close / 2);
        Extents y = new Extents(count, close / 2);
        int segment = 0;
        for (int l = 0; l < this.lines.length; l++) {
            Coordinate[] corners = this.lines[l].getCoordinates();
            for (int i = 0; i + 1 < corners.length; i++) {
                line[segment] = l;
                at[segment] = i;
                x.set(segment, corners[i].x, corners[i + 1].x);
                y.set(segment, corners[i].y, corners[i + 1].y);
                segment++;
            }
        }
        boolean byX = x.sideBySide() <= y.sideBySide();
        this.along = byX ? x : y;
        this.across = byX ? y : x;
    }

    /** From where to where segments reach on one axis. */
    private static final class Extents {
        private final double[] low;
        private final double[] high;
        private final double margin;
        private double lowest = Double.POSITIVE_INFINITY;
        private double highest = Double.NEGATIVE_INFINITY;
        private double sum;

        Extents(int count, double margin) {
            this.low = new double[count];
            this.high = new double[count];
            this.margin = margin;
        }

        void set(int segment, double from, double to) {
            low[segment] = Math.min(from, to) - margin;
            high[segment] = Math.max(from, to) + margin;
            lowest = Math.min(lowest, low[segment]);
            highest = Math.max(highest, high[segment]);
            sum += high[segment] - low[segment];
        }

        /** How many segments there are at one place, on average. */
        double sideBySide() {
            return highest > lowest ? sum / (highest - lowest) : low.length;
        }

        boolean meet(int a, int b) {
            return low[a] <= high[b] && low[b] <= high[a];
        }

        /** Of so many strips the one in which a place lies. */
        int strip(double place, int strips) {
            return Math.min(strips - 1, (int) ((place - lowest) / (highest - lowest) * strips));
        }
    }

    /**
     * Hands each pair of which {@code wanted} takes an end on once, the one that comes first among the lines first.
     *
     * @param effort hears what is looked at on the way, and may stop it
     */
    void forEach(Predicate<Coordinate> wanted, SegmentIntersector pairs, Effort effort) {
        boolean[] chosen = new boolean[count];
        boolean any = false;
        for (int i = 0; i < count; i++) {
            NodedSegmentString of = lines[line[i]];
            chosen[i] = wanted.test(of.getCoordinate(at[i])) || wanted.test(of.getCoordinate(at[i] + 1));
            any |= chosen[i];
        }
        if (any) {
            new Sweep(chosen, pairs, effort).run();
        }
    }

    private final class Sweep {
        private final boolean[] chosen;
        private final SegmentIntersector pairs;
        private final Effort effort;
        private final int strips = strips();
        /** The first strip of each segment. */
        private final int[] first = new int[count];
        /** Where each strip's keys begin. */
        private final int[] begins = new int[strips + 1];
        /** Segments of each strip in turn: where they begin along the sweep, with a segment's number in place of its last digits. */
        private final long[] keys;

        private final long numbers = Long.highestOneBit(count) * 2 - 1;

        Sweep(boolean[] chosen, SegmentIntersector pairs, Effort effort) {
            this.chosen = chosen;
            this.pairs = pairs;
            this.effort = effort;
            for (int i = 0; i < count; i++) {
                first[i] = across.strip(across.low[i], strips);
                for (int s = first[i]; s <= across.strip(across.high[i], strips); s++) {
                    begins[s + 1]++;
                }
            }
            Arrays.parallelPrefix(begins, Integer::sum);
            this.keys = new long[begins[strips]];
            int[] next = begins.clone();
            for (int i = 0; i < count; i++) {
                long key = ordered(Double.doubleToRawLongBits(along.low[i])) & ~numbers | i;
                for (int s = first[i]; s <= across.strip(across.high[i], strips); s++) {
                    keys[next[s]++] = key;
                }
            }
        }

        /** As many as there may be, so that segments do not lie in too many of them. */
        private int strips() {
            int strips = Math.max(1, Math.min(MOST_STRIPS, count / STRIP));
            while (strips > 1 && across.sideBySide() * strips > (STRIPS_EACH - 1) * (double) count) {
                strips /= 2;
            }
            return strips;
        }

        /** The bits of a double, so that they are in the order of what they say; and back. */
        private static long ordered(long bits) {
            return bits ^ bits >> 63 & Long.MAX_VALUE;
        }

        void run() {
            int[] held = new int[count];
            for (int strip = 0; strip < strips; strip++) {
                Arrays.sort(keys, begins[strip], begins[strip + 1]);
                int holds = 0;
                for (int k = begins[strip]; k < begins[strip + 1]; k++) {
                    double here = Double.longBitsToDouble(ordered(keys[k] & ~numbers));
                    int segment = (int) (keys[k] & numbers);
                    effort.steps(1 + holds / HELD_A_STEP);
                    int kept = 0;
                    for (int h = 0; h < holds; h++) {
                        int other = held[h];
                        if (along.high[other] >= here) {
                            held[kept++] = other;
                            meet(other, segment, strip);
                        }
                    }
                    held[kept] = segment;
                    holds = kept + 1;
                }
            }
        }

        private void meet(int a, int b, int strip) {
            if ((chosen[a] || chosen[b])
                    && across.meet(a, b)
                    && along.meet(a, b)
                    && Math.max(first[a], first[b]) == strip) {
                int before = Math.min(a, b);
                int after = Math.max(a, b);
                pairs.processIntersections(lines[line[before]], at[before], lines[line[after]], at[after]);
            }
        }
    }
}
