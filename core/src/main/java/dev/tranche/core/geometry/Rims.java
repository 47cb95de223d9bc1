package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.LineIntersector;
import org.locationtech.jts.algorithm.RayCrossingCounter;
import org.locationtech.jts.algorithm.RobustLineIntersector;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * The rims of two areas in one row of corners, each with its area on the right, and where those of one cross those of the other.
 *
 * <p>Looked for by runs, in which a rim goes neither back to the left nor to the right, nor back up or down: of two such runs
 * those halves are looked at of which the boxes meet, and so on.
 */
final class Rims {
    /** More runs than that are found faster side by side along a sweep. */
    private static final int MOST_RUNS = 1_000;

    private static final int MOST_CROSSINGS = 1_000;
    /** Boxes looked at for each corner; more are of rims that follow one another closely. */
    private static final int MOST_LOOKS = 32;

    private static final int FEW_LOOKS = 10_000;

    /** Where the rim of one area crosses that of the other. */
    record Crossing(int onFirst, int onSecond, Coordinate where, boolean enters) {
        /** The corner of that area's rim after which it is. */
        int on(boolean first) {
            return first ? onFirst : onSecond;
        }
    }

    private final List<LinearRing> rings = new ArrayList<>();
    private final List<Boolean> holes = new ArrayList<>();
    /** How many of the rims are of the first area. */
    private final int ofFirst;
    /** Where each rim's corners begin; its last one is its first again. */
    private final int[] begins;

    private final Coordinate[] corners;
    private final double close;
    /** Of each run the first and the last corner. */
    private int[] from = new int[16];

    private int[] to = new int[16];
    private int runs;
    private final List<Crossing> crossings = new ArrayList<>();
    private int looks;

    Rims(MultiPolygon first, MultiPolygon second) {
        add(first);
        this.ofFirst = rings.size();
        add(second);
        this.begins = new int[rings.size() + 1];
        for (int i = 0; i < rings.size(); i++) {
            begins[i + 1] = begins[i] + rings.get(i).getNumPoints();
        }
        this.corners = new Coordinate[begins[rings.size()]];
        double far = 0;
        for (int rim = 0; rim < rings.size(); rim++) {
            Coordinate[] ring = rings.get(rim).getCoordinates();
            boolean forward = Areas.windsRight(rings.get(rim)) != holes.get(rim);
            for (int i = 0; i < ring.length; i++) {
                Coordinate corner = ring[forward ? i : ring.length - 1 - i];
                corners[begins[rim] + i] = corner;
                far = Math.max(far, Math.max(Math.abs(corner.x), Math.abs(corner.y)));
            }
        }
        this.close = Breaking.close(far);
    }

    private void add(MultiPolygon area) {
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) area.getGeometryN(i);
            Areas.rings(piece).forEach(ring -> {
                holes.add(ring != piece.getExteriorRing());
                rings.add(ring);
            });
        }
    }

    int count() {
        return rings.size();
    }

    LinearRing ring(int rim) {
        return rings.get(rim);
    }

    boolean isHole(int rim) {
        return holes.get(rim);
    }

    boolean isOfFirst(int rim) {
        return rim < ofFirst;
    }

    Coordinate corner(int at) {
        return corners[at];
    }

    /** The rim that a corner is of. */
    int rim(int corner) {
        int found = Arrays.binarySearch(begins, corner);
        return found >= 0 ? found : -found - 2;
    }

    int begin(int rim) {
        return begins[rim];
    }

    /** The corner of a rim that is its first again. */
    int end(int rim) {
        return begins[rim + 1] - 1;
    }

    /** Whether a rim that crosses none lies in the other area. */
    boolean isWithinTheOther(int rim) {
        Coordinate point = corners[begins[rim]];
        RayCrossingCounter ray = new RayCrossingCounter(point);
        for (int run = 0; run < runs; run++) {
            if (from[run] < begins[ofFirst] != isOfFirst(rim)) {
                count(ray, point, from[run], to[run]);
            }
        }
        return ray.getLocation() == Location.INTERIOR;
    }

    private void count(RayCrossingCounter ray, Coordinate point, int a0, int a1) {
        if (Math.max(corners[a0].x, corners[a1].x) < point.x || !meet(point.y, point.y, corners[a0].y, corners[a1].y)) {
            return;
        }
        if (a1 - a0 == 1) {
            ray.countSegment(corners[a0], corners[a1]);
            return;
        }
        int middle = (a0 + a1) >>> 1;
        count(ray, point, a0, middle);
        count(ray, point, middle, a1);
    }

    /** Where rims cross, if all of them do so plainly: no corner, and no other crossing, all but lies on a line. */
    boolean crossPlainly() {
        if (!findRuns()) {
            return false;
        }
        Integer[] order = IntStream.range(0, runs).boxed().toArray(Integer[]::new);
        Arrays.sort(order, Comparator.comparingDouble(this::left));
        int[] held = new int[runs];
        int holds = 0;
        for (int run : order) {
            int kept = 0;
            for (int h = 0; h < holds; h++) {
                int other = held[h];
                if (right(other) + close >= left(run)) {
                    held[kept++] = other;
                    if (!arePlain(from[other], to[other], from[run], to[run])) {
                        return false;
                    }
                }
            }
            held[kept] = run;
            holds = kept + 1;
        }
        return crossings.stream().allMatch(this::isAlone);
    }

    List<Crossing> crossings() {
        return crossings;
    }

    private double left(int run) {
        return Math.min(corners[from[run]].x, corners[to[run]].x);
    }

    private double right(int run) {
        return Math.max(corners[from[run]].x, corners[to[run]].x);
    }

    /** @return whether there are few enough of them, and no corner lies on the next */
    private boolean findRuns() {
        for (int rim = 0; rim < rings.size(); rim++) {
            int way = -1;
            for (int i = begins[rim]; i < end(rim); i++) {
                double dx = corners[i + 1].x - corners[i].x;
                double dy = corners[i + 1].y - corners[i].y;
                if (Math.abs(dx) <= close && Math.abs(dy) <= close) {
                    return false;
                }
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

    /** Whether two stretches of runs meet nowhere, or cross plainly; crossings are noted. */
    private boolean arePlain(int a0, int a1, int b0, int b1) {
        if (!meet(a0, a1, b0, b1)) {
            return true;
        }
        if (++looks > FEW_LOOKS + MOST_LOOKS * corners.length) {
            return false;
        }
        if (a1 - a0 == 1 && b1 - b0 == 1) {
            return isPlain(a0, b0);
        }
        if (a1 - a0 >= b1 - b0) {
            int middle = (a0 + a1) >>> 1;
            return arePlain(a0, middle, b0, b1) && arePlain(middle, a1, b0, b1);
        }
        int middle = (b0 + b1) >>> 1;
        return arePlain(a0, a1, b0, middle) && arePlain(a0, a1, middle, b1);
    }

    private boolean meet(int a0, int a1, int b0, int b1) {
        return meet(corners[a0].x, corners[a1].x, corners[b0].x, corners[b1].x)
                && meet(corners[a0].y, corners[a1].y, corners[b0].y, corners[b1].y);
    }

    private boolean meet(double a0, double a1, double b0, double b1) {
        return Math.max(a0, a1) + close >= Math.min(b0, b1) && Math.max(b0, b1) + close >= Math.min(a0, a1);
    }

    /** Of two lines, from a corner to the next. */
    private boolean isPlain(int a, int b) {
        int rim = rim(a);
        if (rim == rim(b)) {
            if (b == a + 1 || a == begins[rim] && b == end(rim) - 1) {
                return follow(b == a + 1 ? a : b, b == a + 1 ? b : a);
            }
            if (a == b + 1 || b == begins[rim] && a == end(rim) - 1) {
                return follow(a == b + 1 ? b : a, a == b + 1 ? a : b);
            }
        }
        if (isNear(corners[a], b) || isNear(corners[a + 1], b) || isNear(corners[b], a) || isNear(corners[b + 1], a)) {
            return false;
        }
        if (side(corners[a], b) > 0 == side(corners[a + 1], b) > 0
                || side(corners[b], a) > 0 == side(corners[b + 1], a) > 0) {
            return true;
        }
        if (isOfFirst(rim) == isOfFirst(rim(b)) || crossings.size() == MOST_CROSSINGS) {
            return false;
        }
        LineIntersector at = new RobustLineIntersector();
        at.computeIntersection(corners[a], corners[a + 1], corners[b], corners[b + 1]);
        int onFirst = isOfFirst(rim) ? a : b;
        int onSecond = isOfFirst(rim) ? b : a;
        crossings.add(new Crossing(
                onFirst, onSecond, at.getIntersection(0).copy(), side(corners[onFirst + 1], onSecond) < 0));
        return at.isProper();
    }

    /** Whether a line, and the next one, do not turn back upon one another. */
    private boolean follow(int line, int next) {
        return !isNear(corners[line], next) && !isNear(corners[next + 1], line);
    }

    /** Whether a point all but lies on a line. */
    private boolean isNear(Coordinate point, int line) {
        Coordinate start = corners[line];
        Coordinate end = corners[line + 1];
        if (!meet(point.x, point.x, start.x, end.x) || !meet(point.y, point.y, start.y, end.y)) {
            return false;
        }
        double dx = end.x - start.x;
        double dy = end.y - start.y;
        double side = side(point, line);
        return side * side <= close * close * (dx * dx + dy * dy);
    }

    /** Twice the area that a point makes with a line: above 0 on its left. */
    private double side(Coordinate point, int line) {
        Coordinate start = corners[line];
        Coordinate end = corners[line + 1];
        return (end.x - start.x) * (point.y - start.y) - (end.y - start.y) * (point.x - start.x);
    }

    private boolean isAlone(Crossing crossing) {
        for (int run = 0; run < runs; run++) {
            if (!isAlone(crossing, from[run], to[run])) {
                return false;
            }
        }
        return true;
    }

    private boolean isAlone(Crossing crossing, int a0, int a1) {
        Coordinate point = crossing.where();
        if (!meet(point.x, point.x, corners[a0].x, corners[a1].x)
                || !meet(point.y, point.y, corners[a0].y, corners[a1].y)) {
            return true;
        }
        if (a1 - a0 == 1) {
            return a0 == crossing.onFirst() || a0 == crossing.onSecond() || !isNear(point, a0);
        }
        int middle = (a0 + a1) >>> 1;
        return isAlone(crossing, a0, middle) && isAlone(crossing, middle, a1);
    }
}
