package dev.tranche.core.geometry;

import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.algorithm.PolygonNodeTopology;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateArrays;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.noding.NodedSegmentString;
import org.locationtech.jts.noding.Noder;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;
import org.locationtech.jts.noding.snapround.SnapRoundingNoder;

/**
 * Fills closed loops that cross, touch or lie over one another, each as often as it likes.
 *
 * <p>Lines are first broken where they meet ({@link Breaking}). A sweep from left to right then tells for each piece how often
 * the loops wind round the plane just below and just above it, from the piece beneath; those with solid on one side
 * only are the outline, and are walked with the solid on their left. So the work grows with the corners and crossings
 * there are, times the logarithm of their number, however deep loops nest.
 *
 * <p>The sweep is that of F. Martínez, A. J. Rueda, F. R. Feito, "A new algorithm for computing Boolean operations on
 * polygons", Computers & Geosciences 35 (2009), with winding numbers in the place of two polygons.
 */
public final class Arrangement {
    /** Where lines meet too closely for doubles, corners go to the nearest nanometre. */
    private static final PrecisionModel NANOMETRES = new PrecisionModel(1e6);

    /** Which winding numbers are solid. */
    public enum Rule {
        /** Solids that overlap are joined; what runs clockwise is hollow. */
        POSITIVE {
            @Override
            boolean solid(int winding) {
                return winding > 0;
            }
        },
        NONZERO {
            @Override
            boolean solid(int winding) {
                return winding != 0;
            }
        },
        /** What two of the loops hold, or more. */
        TWICE {
            @Override
            boolean solid(int winding) {
                return winding > 1;
            }
        },
        EVEN_ODD {
            @Override
            boolean solid(int winding) {
                return (winding & 1) == 1;
            }
        };

        abstract boolean solid(int winding);
    }

    private final Rule rule;
    private final List<Edge> outline = new ArrayList<>();

    private Arrangement(Rule rule) {
        this.rule = rule;
    }

    /**
     * @param loops closed: the last corner of each is its first
     * @return what they fill, as valid polygons
     * @throws Refusal if they cross more often than {@code effort} allows
     */
    public static MultiPolygon fill(Collection<? extends Coordinate[]> loops, Rule rule, Effort effort) {
        Map<Edge, Edge> lines = lines(loops);
        try {
            MultiPolygon filled = new Arrangement(rule).filled(broken(lines.values(), new Breaking(effort)));
            if (filled != null && filled.isValid()) {
                return filled;
            }
        } catch (TopologyException tooClose) {
            // As where what was broken fills nothing valid: to the grid.
        }
        return new Arrangement(rule).filledOrFixed(broken(lines.values(), new SnapRoundingNoder(NANOMETRES)));
    }

    /**
     * Counts the crossings that {@link #fill} would break lines at, without breaking any.
     *
     * @throws Refusal as it does
     */
    static void foresee(Collection<? extends Coordinate[]> loops, Effort effort) {
        new NearPairs(strings(lines(loops).values()), 0).forEach(corner -> true, new Crossings(effort), effort);
    }

    private record Crossings(Effort effort) implements SegmentIntersector {
        @Override
        public void processIntersections(SegmentString a, int atA, SegmentString b, int atB) {
            if (a != b) {
                effort.look();
                Coordinate a0 = a.getCoordinate(0);
                Coordinate a1 = a.getCoordinate(1);
                Coordinate b0 = b.getCoordinate(0);
                Coordinate b1 = b.getCoordinate(1);
                if (side(a0, a1, b0) * side(a0, a1, b1) < 0 && side(b0, b1, a0) * side(b0, b1, a1) < 0) {
                    effort.crossing();
                }
            }
        }

        /** As doubles have it: where they err, whoever breaks the lines counts anew. */
        private static double side(Coordinate from, Coordinate to, Coordinate of) {
            return Math.signum((to.x - from.x) * (of.y - from.y) - (to.y - from.y) * (of.x - from.x));
        }

        @Override
        public boolean isDone() {
            return false;
        }
    }

    /** The rings of an area: shells counter-clockwise and holes clockwise, or the other way about. */
    public static void addRings(List<Coordinate[]> all, MultiPolygon area, boolean shellsCounterClockwise) {
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon polygon = (Polygon) area.getGeometryN(i);
            all.add(directed(polygon.getExteriorRing(), shellsCounterClockwise));
            for (int hole = 0; hole < polygon.getNumInteriorRing(); hole++) {
                all.add(directed(polygon.getInteriorRingN(hole), !shellsCounterClockwise));
            }
        }
    }

    private static Coordinate[] directed(LinearRing ring, boolean counterClockwise) {
        Coordinate[] corners = ring.getCoordinates();
        if (Orientation.isCCWArea(corners) != counterClockwise) {
            corners = corners.clone();
            CoordinateArrays.reverse(corners);
        }
        return corners;
    }

    /** A piece of a line, from its left end to its right, or upwards. */
    private static final class Edge implements Comparable<Edge> {
        final Coordinate left;
        final Coordinate right;
        /** By how much winding rises when it is crossed upwards. */
        int rise;

        int below;
        /** The nearest piece of the outline beneath it. */
        Edge beneath;

        int ring = -1;
        boolean walked;

        Edge(Coordinate from, Coordinate to) {
            boolean forward = from.compareTo(to) < 0;
            left = forward ? from : to;
            right = forward ? to : from;
            rise = forward ? 1 : -1;
        }

        /** From below to above where both are crossed by one upright line; they meet at their ends only. */
        @Override
        public int compareTo(Edge other) {
            if (this == other) {
                return 0;
            }
            int order = left.compareTo(other.left);
            int side;
            if (order <= 0) {
                side = order == 0 ? 0 : Orientation.index(left, right, other.left);
                side = side == 0 ? Orientation.index(left, right, other.right) : side;
            } else {
                side = -Orientation.index(other.left, other.right, left);
                side = side == 0 ? -Orientation.index(other.left, other.right, right) : side;
            }
            return side != 0 ? -side : Integer.compare(System.identityHashCode(this), System.identityHashCode(other));
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Edge e && left.equals2D(e.left) && right.equals2D(e.right);
        }

        @Override
        public int hashCode() {
            return 31 * left.hashCode() + right.hashCode();
        }

        boolean solidAbove(Rule rule) {
            return rule.solid(below + rise);
        }

        Coordinate from(Rule rule) {
            return solidAbove(rule) ? left : right;
        }

        Coordinate to(Rule rule) {
            return solidAbove(rule) ? right : left;
        }
    }

    private static Map<Edge, Edge> lines(Collection<? extends Coordinate[]> loops) {
        Map<Edge, Edge> lines = new LinkedHashMap<>();
        for (Coordinate[] loop : loops) {
            for (int i = 1; i < loop.length; i++) {
                add(lines, loop[i - 1], loop[i], 1);
            }
        }
        return lines;
    }

    /** Pieces that lie on one another are one. */
    private static void add(Map<Edge, Edge> lines, Coordinate from, Coordinate to, int times) {
        if (!from.equals2D(to)) {
            Edge edge = new Edge(from, to);
            edge.rise *= times;
            Edge there = lines.putIfAbsent(edge, edge);
            if (there != null) {
                there.rise += edge.rise;
            }
        }
    }

    /** Broken where they meet, so that no two meet but at their ends. */
    private static Collection<Edge> broken(Collection<Edge> lines, Noder noder) {
        noder.computeNodes(strings(lines));
        Map<Edge, Edge> pieces = new LinkedHashMap<>();
        for (Object string : noder.getNodedSubstrings()) {
            Coordinate[] points = ((SegmentString) string).getCoordinates();
            int rise = ((Edge) ((SegmentString) string).getData()).rise;
            // Its pieces run as the line does, from its left end to its right.
            for (int i = 1; i < points.length; i++) {
                add(pieces, points[i - 1], points[i], rise);
            }
        }
        return pieces.values().stream().filter(p -> p.rise != 0).toList();
    }

    private static List<NodedSegmentString> strings(Collection<Edge> lines) {
        return lines.stream()
                .filter(line -> line.rise != 0)
                .map(line -> new NodedSegmentString(new Coordinate[] {line.left.copy(), line.right.copy()}, line))
                .toList();
    }

    private MultiPolygon filledOrFixed(Collection<Edge> edges) {
        MultiPolygon filled = filled(edges);
        if (filled == null) {
            throw new Refusal("The outline crosses itself in a way that cannot be told apart; simplify it there.");
        }
        return filled.isValid() ? filled : Section.polygonsOf(filled.buffer(0));
    }

    /** Null if the pieces contradict one another. */
    private MultiPolygon filled(Collection<Edge> edges) {
        sweep(edges);
        List<Ring> rings = rings();
        return rings == null ? null : polygons(rings);
    }

    /** Ends before beginnings at each place, and beginnings from below. */
    private void sweep(Collection<Edge> edges) {
        Edge[] begin = edges.toArray(Edge[]::new);
        Edge[] end = begin.clone();
        Arrays.sort(begin, (a, b) -> a.left.equals2D(b.left) ? a.compareTo(b) : a.left.compareTo(b.left));
        Arrays.sort(end, (a, b) -> a.right.compareTo(b.right));
        TreeSet<Edge> alive = new TreeSet<>();
        int ended = 0;
        for (Edge edge : begin) {
            while (end[ended].right.compareTo(edge.left) <= 0) {
                alive.remove(end[ended++]);
            }
            Edge under = alive.lower(edge);
            edge.below = under == null ? 0 : under.below + under.rise;
            edge.beneath = under == null || isOutline(under) ? under : under.beneath;
            alive.add(edge);
            if (isOutline(edge)) {
                outline.add(edge);
            }
        }
    }

    private boolean isOutline(Edge edge) {
        return rule.solid(edge.below) != edge.solidAbove(rule);
    }

    /** A closed walk that comes to no place twice. */
    private record Ring(Coordinate[] corners, Edge lowest) {}

    private List<Ring> rings() {
        Map<Coordinate, List<Edge>> leaving = new HashMap<>(outline.size() * 2);
        for (Edge edge : outline) {
            leaving.computeIfAbsent(edge.from(rule), c -> new ArrayList<>(1)).add(edge);
        }
        List<Ring> rings = new ArrayList<>();
        for (Edge start : outline) {
            if (!start.walked && !walk(start, leaving, rings)) {
                return null;
            }
        }
        return rings;
    }

    /** Walks from {@code start} until it comes round; each place come to again closes a ring. False if it does not. */
    private boolean walk(Edge start, Map<Coordinate, List<Edge>> leaving, List<Ring> rings) {
        List<Edge> path = new ArrayList<>();
        Map<Coordinate, Integer> been = new HashMap<>();
        Edge at = start;
        while (at != null) {
            at.walked = true;
            been.put(at.from(rule), path.size());
            path.add(at);
            Integer again = been.get(at.to(rule));
            if (again != null) {
                List<Edge> closed = path.subList(again, path.size());
                rings.add(ring(closed, rings.size()));
                closed.forEach(e -> been.remove(e.from(rule)));
                closed.clear();
                if (path.isEmpty()) {
                    return true;
                }
            }
            at = onward(at, leaving);
        }
        return false;
    }

    /** The first piece clockwise from where the walk came from: it bounds the same solid. */
    private Edge onward(Edge at, Map<Coordinate, List<Edge>> leaving) {
        Coordinate here = at.to(rule);
        Coordinate back = at.from(rule);
        Edge best = null;
        for (Edge next : leaving.getOrDefault(here, List.of())) {
            if (!next.walked && (best == null || isFirst(next, best, here, back))) {
                best = next;
            }
        }
        return best;
    }

    /** Whether {@code a} comes before {@code b} when turning clockwise from {@code back} about {@code here}. */
    private boolean isFirst(Edge a, Edge b, Coordinate here, Coordinate back) {
        boolean pastA = PolygonNodeTopology.compareAngle(here, a.to(rule), back) > 0;
        boolean pastB = PolygonNodeTopology.compareAngle(here, b.to(rule), back) > 0;
        return pastA == pastB ? PolygonNodeTopology.compareAngle(here, a.to(rule), b.to(rule)) > 0 : pastB;
    }

    private Ring ring(List<Edge> edges, int index) {
        Coordinate[] corners = new Coordinate[edges.size() + 1];
        Edge lowest = edges.get(0);
        for (int i = 0; i < edges.size(); i++) {
            Edge edge = edges.get(i);
            edge.ring = index;
            corners[i] = new CoordinateXY(edge.from(rule));
            int order = edge.left.compareTo(lowest.left);
            if (order < 0 || order == 0 && edge.compareTo(lowest) < 0) {
                lowest = edge;
            }
        }
        corners[edges.size()] = new CoordinateXY(corners[0]);
        return new Ring(corners, lowest);
    }

    private static MultiPolygon polygons(List<Ring> rings) {
        Map<Integer, List<LinearRing>> holes = new LinkedHashMap<>();
        int[] shell = new int[rings.size()];
        Arrays.fill(shell, -1);
        List<Integer> hollow = new ArrayList<>();
        for (int i = 0; i < rings.size(); i++) {
            Ring ring = rings.get(i);
            if (ring.corners().length < 4) {
                return null;
            }
            if (Orientation.isCCWArea(ring.corners())) {
                shell[i] = i;
                holes.put(i, new ArrayList<>());
            } else {
                hollow.add(i);
            }
        }
        // What lies beneath the leftmost place of a hole bounds the same solid, and begins further left.
        hollow.sort((a, b) -> {
            Edge first = rings.get(a).lowest();
            Edge second = rings.get(b).lowest();
            int order = first.left.compareTo(second.left);
            return order != 0 ? order : first.compareTo(second);
        });
        for (int hole : hollow) {
            Edge beneath = rings.get(hole).lowest().beneath;
            if (beneath == null || beneath.ring < 0 || shell[beneath.ring] < 0) {
                return null;
            }
            shell[hole] = shell[beneath.ring];
            holes.get(shell[hole])
                    .add(Section.PLANE.createLinearRing(rings.get(hole).corners()));
        }
        return Section.PLANE.createMultiPolygon(holes.entrySet().stream()
                .map(h -> Section.PLANE.createPolygon(
                        Section.PLANE.createLinearRing(rings.get(h.getKey()).corners()),
                        h.getValue().toArray(LinearRing[]::new)))
                .toArray(Polygon[]::new));
    }
}
