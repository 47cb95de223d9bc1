package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.RayCrossingCounter;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * The rims of an area in one row of corners, with the area on their right, in runs: in each of them a rim goes neither back to the
 * left nor to the right, nor back up or down. So the box round any part of a run is that of its two ends.
 */
final class Rims {
    /** An area with more of them is better left to a sweep. */
    private static final int MOST_RUNS = 1_000;

    private final MultiPolygon area;
    private final List<LinearRing> rings = new ArrayList<>();
    private final List<Boolean> holes = new ArrayList<>();
    /** Where each rim's corners begin; its last one is its first again. */
    private final int[] begins;

    private final Coordinate[] corners;
    private final double close;
    private int runs;
    /** Of each run the first and the last corner, and the box. */
    private int[] from = new int[16];

    private int[] to = new int[16];
    private final double[] box;
    /** Whether there are few enough runs, and none comes close to another. Looked at when first asked for. */
    private Boolean plain;

    /** @param area valid, mm */
    Rims(MultiPolygon area) {
        this.area = area;
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) area.getGeometryN(i);
            Areas.rings(piece).forEach(ring -> {
                holes.add(ring != piece.getExteriorRing());
                rings.add(ring);
            });
        }
        this.begins = new int[rings.size() + 1];
        for (int i = 0; i < rings.size(); i++) {
            begins[i + 1] = begins[i] + rings.get(i).getNumPoints();
        }
        this.corners = new Coordinate[begins[rings.size()]];
        this.close = Breaking.close(area.getEnvelopeInternal());
        boolean some = true;
        for (int i = 0; i < rings.size() && some; i++) {
            Coordinate[] ring = rings.get(i).getCoordinates();
            boolean forward = Areas.windsRight(rings.get(i)) != holes.get(i);
            for (int c = 0; c < ring.length; c++) {
                corners[begins[i] + c] = ring[forward ? c : ring.length - 1 - c];
            }
            some = findRuns(i);
        }
        this.plain = some ? null : Boolean.FALSE;
        this.box = new double[4 * runs];
        for (int run = 0; run < runs; run++) {
            Coordinate a = corners[from[run]];
            Coordinate b = corners[to[run]];
            box[4 * run] = Math.min(a.x, b.x);
            box[4 * run + 1] = Math.max(a.x, b.x);
            box[4 * run + 2] = Math.min(a.y, b.y);
            box[4 * run + 3] = Math.max(a.y, b.y);
        }
    }

    /** @return whether there are few enough of them */
    private boolean findRuns(int of) {
        int way = -1;
        for (int i = begins[of]; i < end(of); i++) {
            double dx = corners[i + 1].x - corners[i].x;
            double dy = corners[i + 1].y - corners[i].y;
            int here = (dx < 0 ? 1 : 0) + (dy < 0 ? 2 : 0);
            if (here != way) {
                if (runs == MOST_RUNS) {
                    return false;
                }
                addRun(i);
                way = here;
            }
            to[runs - 1] = i + 1;
        }
        return true;
    }

    private void addRun(int corner) {
        if (runs == from.length) {
            from = Arrays.copyOf(from, 2 * runs);
            to = Arrays.copyOf(to, 2 * runs);
        }
        from[runs++] = corner;
    }

    /** Whether they touch nowhere, and there are few enough runs to say so. */
    boolean arePlain() {
        if (plain == null) {
            plain = RimPairs.within(this);
        }
        return plain;
    }

    MultiPolygon area() {
        return area;
    }

    int count() {
        return rings.size();
    }

    LinearRing ring(int of) {
        return rings.get(of);
    }

    boolean isHole(int of) {
        return holes.get(of);
    }

    Coordinate corner(int at) {
        return corners[at];
    }

    int corners() {
        return corners.length;
    }

    int begin(int of) {
        return begins[of];
    }

    /** The corner of a rim that is its first again. */
    int end(int of) {
        return begins[of + 1] - 1;
    }

    /** The rim that a corner is of. */
    int rim(int corner) {
        int found = Arrays.binarySearch(begins, corner);
        return found >= 0 ? found : -found - 2;
    }

    int runs() {
        return runs;
    }

    int from(int run) {
        return from[run];
    }

    int to(int run) {
        return to[run];
    }

    /** Corners nearer than this are one, mm. */
    double close() {
        return close;
    }

    /** The runs in the order in which their boxes begin on the left. */
    int[] fromTheLeft() {
        return IntStream.range(0, runs)
                .boxed()
                .sorted(Comparator.comparingDouble(run -> box[4 * run]))
                .mapToInt(Integer::intValue)
                .toArray();
    }

    /** Whether the box round a run goes as far to the right as to where another one begins. */
    boolean reaches(int run, int other, double near) {
        return box[4 * other] <= box[4 * run + 1] + near;
    }

    /** Whether the box round a run comes near that round one of others. */
    boolean meet(int run, Rims others, int other, double near) {
        double[] there = others.box;
        return box[4 * run] <= there[4 * other + 1] + near
                && there[4 * other] <= box[4 * run + 1] + near
                && box[4 * run + 2] <= there[4 * other + 3] + near
                && there[4 * other + 2] <= box[4 * run + 3] + near;
    }

    /** Whether a run comes near a box. */
    boolean meets(int run, Envelope reach, double near) {
        return box[4 * run] <= reach.getMaxX() + near
                && reach.getMinX() <= box[4 * run + 1] + near
                && box[4 * run + 2] <= reach.getMaxY() + near
                && reach.getMinY() <= box[4 * run + 3] + near;
    }

    /** Whether a point that is not on a rim lies in the area. */
    boolean hold(Coordinate point) {
        if (!area.getEnvelopeInternal().intersects(point)) {
            return false;
        }
        RayCrossingCounter ray = new RayCrossingCounter(point);
        for (int run = 0; run < runs; run++) {
            if (box[4 * run + 1] >= point.x && box[4 * run + 2] <= point.y && point.y <= box[4 * run + 3]) {
                count(ray, point, from[run], to[run]);
            }
        }
        return ray.getLocation() == Location.INTERIOR;
    }

    private void count(RayCrossingCounter ray, Coordinate point, int first, int last) {
        Coordinate a = corners[first];
        Coordinate b = corners[last];
        if (Math.max(a.x, b.x) < point.x || point.y < Math.min(a.y, b.y) || point.y > Math.max(a.y, b.y)) {
            return;
        }
        if (last - first == 1) {
            ray.countSegment(a, b);
            return;
        }
        int middle = (first + last) >>> 1;
        count(ray, point, first, middle);
        count(ray, point, middle, last);
    }
}
