package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.LineSegment;

/**
 * Joins the segments of one section into closed loops. Reused from plane to plane; not for two threads.
 *
 * <p>Segments are followed in their own direction where possible; where a facet was turned the wrong way the
 * chain goes on against it, and the section is then filled by the even-odd rule. A chain that ends is joined to
 * the nearest other loose end.
 */
final class OutlineTracer implements Mesh.Crossing {
    /** A point this near to the line between its neighbours is on it, mm. */
    private static final double STRAIGHT = 1e-6;

    private final boolean insideOut;
    private final Effort effort;
    private int size;
    private double[] x = new double[0];
    private double[] y = new double[0];
    /** The first unused segment of each bucket that starts there, and the first that ends there. */
    private int[] starts = new int[0];

    private int[] stops = new int[0];
    private int[] next = new int[0];
    private boolean[] used = new boolean[0];
    private List<LineSegment> closings = new ArrayList<>();
    private boolean againstTheGrain;

    OutlineTracer(boolean insideOut, Effort effort) {
        this.insideOut = insideOut;
        this.effort = effort;
    }

    /** Forgets the last section and makes room for {@code most} segments. */
    void begin(int most) {
        size = 0;
        closings = new ArrayList<>();
        againstTheGrain = false;
        if (x.length < 2 * most) {
            int room = Math.max(64, 3 * most);
            x = new double[room];
            y = new double[room];
            next = new int[room];
            used = new boolean[room];
        }
    }

    /** End {@code 2 s} is where segment {@code s} starts, {@code 2 s + 1} where it ends. */
    @Override
    public void segment(double fromX, double fromY, double toX, double toY) {
        if (fromX == toX && fromY == toY) {
            return;
        }
        // Adding zero turns −0 into 0, which must hash alike.
        x[2 * size] = fromX + 0.0;
        y[2 * size] = fromY + 0.0;
        x[2 * size + 1] = toX + 0.0;
        y[2 * size + 1] = toY + 0.0;
        size++;
    }

    /** Closed loops, and the lines that close them. */
    record Traced(LoopNest nest, List<LineSegment> closings) {
        static final Traced NOTHING = new Traced(new LoopNest(List.of(), false, false, false), List.of());
    }

    Traced finish() {
        if (size == 0) {
            return Traced.NOTHING;
        }
        index();
        List<CoordinateXY[]> loops = new ArrayList<>();
        List<ArrayList<CoordinateXY>> chains = new ArrayList<>();
        for (int s = 0; s < size; s++) {
            if (!used[s]) {
                trace(s, loops, chains);
            }
        }
        closeByNearest(chains, loops);
        return new Traced(new LoopNest(loops, insideOut, againstTheGrain, !closings.isEmpty()), closings);
    }

    private void index() {
        int buckets = Integer.highestOneBit(Math.max(16, 4 * size - 1)) << 1;
        if (starts.length < buckets) {
            starts = new int[buckets];
            stops = new int[buckets];
        }
        Arrays.fill(starts, -1);
        Arrays.fill(stops, -1);
        Arrays.fill(used, 0, size, false);
        for (int e = 2 * size - 1; e >= 0; e--) {
            int bucket = bucket(x[e], y[e]);
            int[] head = (e & 1) == 0 ? starts : stops;
            next[e] = head[bucket];
            head[bucket] = e;
        }
    }

    private int bucket(double px, double py) {
        long h = Double.doubleToRawLongBits(px) * 0x9E3779B97F4A7C15L + Double.doubleToRawLongBits(py);
        h ^= h >>> 32;
        h *= 0xD6E8FEB86659FD93L;
        return (int) (h >>> 32) & starts.length - 1;
    }

    private void trace(int segment, List<CoordinateXY[]> loops, List<ArrayList<CoordinateXY>> chains) {
        ArrayList<CoordinateXY> path = new ArrayList<>();
        path.add(new CoordinateXY(x[2 * segment], y[2 * segment]));
        int end = 2 * segment + 1;
        used[segment] = true;
        while (true) {
            path.add(new CoordinateXY(x[end], y[end]));
            if (path.get(0).equals2D(path.get(path.size() - 1))) {
                loops.add(straightened(path));
                return;
            }
            int follow = following(end);
            if (follow < 0) {
                chains.add(path);
                return;
            }
            used[follow >> 1] = true;
            againstTheGrain |= (follow & 1) == 1;
            end = follow ^ 1;
        }
    }

    /**
     * A closed ring without the points that lie on the line between their neighbours: they come from the diagonals of
     * flat walls, move with the height, and would let no two layers of a prism be alike.
     */
    private static CoordinateXY[] straightened(List<CoordinateXY> ring) {
        int n = ring.size() - 1;
        List<CoordinateXY> kept = new ArrayList<>(n + 1);
        for (int i = 0; i < n; i++) {
            CoordinateXY before = kept.isEmpty() ? ring.get(n - 1) : kept.get(kept.size() - 1);
            if (!between(before, ring.get(i), ring.get(i + 1))) {
                kept.add(ring.get(i));
            }
        }
        if (kept.size() < 3) {
            return ring.toArray(CoordinateXY[]::new);
        }
        kept.add(kept.get(0));
        return kept.toArray(CoordinateXY[]::new);
    }

    private static boolean between(CoordinateXY a, CoordinateXY b, CoordinateXY c) {
        double ux = c.x - a.x;
        double uy = c.y - a.y;
        double along = (b.x - a.x) * ux + (b.y - a.y) * uy;
        double length = ux * ux + uy * uy;
        double cross = (b.x - a.x) * uy - (b.y - a.y) * ux;
        return along > 0 && along < length && cross * cross < STRAIGHT * STRAIGHT * length;
    }

    /** The end of an unused segment that lies where {@code end} lies; a start if there is one; else −1. */
    private int following(int end) {
        int start = unused(starts, end);
        return start >= 0 ? start : unused(stops, end);
    }

    /** What is used is forgotten on the way, so that any number of segments may meet in one place. */
    private int unused(int[] head, int end) {
        int bucket = bucket(x[end], y[end]);
        while (head[bucket] >= 0 && used[head[bucket] >> 1]) {
            head[bucket] = next[head[bucket]];
        }
        for (int e = head[bucket]; e >= 0; e = next[e]) {
            if (!used[e >> 1] && x[e] == x[end] && y[e] == y[end]) {
                return e;
            }
        }
        return -1;
    }

    /** Joins loose chains nose to tail, always the nearest first, until all are closed. */
    private void closeByNearest(List<ArrayList<CoordinateXY>> chains, List<CoordinateXY[]> loops) {
        if (chains.isEmpty()) {
            return;
        }
        LooseEnds noses = new LooseEnds(
                chains.stream().mapToDouble(c -> c.get(0).x).toArray(),
                chains.stream().mapToDouble(c -> c.get(0).y).toArray());
        boolean[] joined = new boolean[chains.size()];
        for (int last = chains.size() - 1; last >= 0; last--) {
            if (joined[last]) {
                continue;
            }
            ArrayList<CoordinateXY> path = chains.get(last);
            noses.take(last);
            while (true) {
                CoordinateXY tail = path.get(path.size() - 1);
                int nearest = noses.nearest(tail.x, tail.y, tail.distance(path.get(0)));
                if (nearest < 0) {
                    break;
                }
                effort.step();
                noses.take(nearest);
                joined[nearest] = true;
                close(tail, chains.get(nearest).get(0));
                path.addAll(chains.get(nearest));
            }
            close(path.get(path.size() - 1), path.get(0));
            path.add(new CoordinateXY(path.get(0)));
            if (path.size() > 3) {
                loops.add(straightened(path));
            }
        }
    }

    private void close(CoordinateXY from, CoordinateXY to) {
        if (!from.equals2D(to)) {
            closings.add(new LineSegment(from, to));
        }
    }
}
