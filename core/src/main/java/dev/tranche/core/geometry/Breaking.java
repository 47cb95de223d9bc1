package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.locationtech.jts.algorithm.LineIntersector;
import org.locationtech.jts.algorithm.RobustLineIntersector;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.TopologyException;
import org.locationtech.jts.noding.NodedSegmentString;
import org.locationtech.jts.noding.Noder;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;

/**
 * Breaks lines where they meet, and wherever a corner all but lies on one, until none meet but at their ends.
 *
 * <p>Where lines are only broken at the places that doubles give for their crossings, what is thinner than those round (the
 * hair that is left between two cuts along one edge) may turn inside out, and take with it whatever crosses nothing else. Here
 * such a hair closes.
 */
final class Breaking implements Noder {
    /** Of the largest coordinate; a hundred times what a double rounds there. */
    private static final double PART = 3e-14;

    /** Two are enough where nothing is close, and three or four where something is. */
    private static final int MOST_ROUNDS = 20;

    private final Effort effort;
    private List<NodedSegmentString> broken = List.of();
    /** Corners as near as this are one, mm, and move by hardly more. */
    private double close;

    /** @param effort counts crossings, and pairs looked at */
    Breaking(Effort effort) {
        this.effort = effort;
    }

    /** @throws TopologyException if lines are so close so often that it does not end */
    @Override
    @SuppressWarnings("rawtypes")
    public void computeNodes(Collection lines) {
        broken = strings(lines);
        close = close(broken.stream()
                .flatMap(line -> Arrays.stream(line.getCoordinates()))
                .mapToDouble(corner -> Math.max(Math.abs(corner.x), Math.abs(corner.y)))
                .max()
                .orElse(0));
        Predicate<Coordinate> wanted = corner -> true;
        boolean folded = true;
        for (int round = 0; round < MOST_ROUNDS; round++) {
            Round looked = new Round(round == 0, folded);
            new NearPairs(broken, close).forEach(wanted, looked, effort);
            broken.forEach(looked::closeCorners);
            broken = looked.broken(broken);
            if (looked.moved.isEmpty()) {
                return;
            }
            wanted = looked.moved::contains;
            folded = !looked.same.isEmpty();
        }
        throw new TopologyException("Lines lie too close to be broken.");
    }

    /** How near corners that far from the origin are one, mm: 1e-11 on any bed. */
    static double close(double coordinate) {
        return Math.max(1e-11, coordinate * PART);
    }

    /** As {@link #close(double)}, for all corners within {@code reach}. */
    static double close(Envelope reach) {
        return close(Math.max(
                Math.max(Math.abs(reach.getMinX()), Math.abs(reach.getMaxX())),
                Math.max(Math.abs(reach.getMinY()), Math.abs(reach.getMaxY()))));
    }

    /** Whether a corner lies on a line, as nearly as can be told. */
    static boolean liesOn(Coordinate corner, Coordinate from, Coordinate to, double close) {
        if (isBeside(corner.x, from.x, to.x, close) || isBeside(corner.y, from.y, to.y, close)) {
            return false;
        }
        double dx = to.x - from.x;
        double dy = to.y - from.y;
        double twiceArea = dx * (corner.y - from.y) - dy * (corner.x - from.x);
        return twiceArea * twiceArea <= close * close * (dx * dx + dy * dy);
    }

    private static boolean isBeside(double corner, double from, double to, double close) {
        return corner < Math.min(from, to) - close || corner > Math.max(from, to) + close;
    }

    @SuppressWarnings("unchecked")
    private static List<NodedSegmentString> strings(Collection<?> lines) {
        return List.copyOf((Collection<NodedSegmentString>) lines);
    }

    @Override
    public Collection<NodedSegmentString> getNodedSubstrings() {
        return broken;
    }

    /** One look at all pairs that may meet, or at those that the last one moved. */
    private final class Round implements SegmentIntersector {
        private final boolean first;
        private final LineIntersector crossing = new RobustLineIntersector();
        /** Corners that lines have got, or that went to another place. */
        private final Set<Coordinate> moved = new HashSet<>();
        /** Whether a line has to be broken, if only where others end. */
        private boolean breaks;
        /** Corners that are one, each with one that comes before it. */
        private final Map<Coordinate, Coordinate> same = new HashMap<>();

        /** @param folded whether lines may run to and fro, as they do where corners were joined, and have to be broken there */
        Round(boolean first, boolean folded) {
            this.first = first;
            this.breaks = folded;
        }

        @Override
        public boolean isDone() {
            return false;
        }

        @Override
        public void processIntersections(SegmentString a, int atA, SegmentString b, int atB) {
            if (a == b && atA == atB) {
                return;
            }
            if (first) {
                effort.look();
            } else {
                effort.step();
            }
            Coordinate a0 = a.getCoordinate(atA);
            Coordinate a1 = a.getCoordinate(atA + 1);
            Coordinate b0 = b.getCoordinate(atB);
            Coordinate b1 = b.getCoordinate(atB + 1);
            // Each of the four may have to break a line.
            boolean knot = !(a == b && follow(a, atA, atB));
            if (meets(a0, b, atB, knot) | meets(a1, b, atB, knot) | meets(b0, a, atA, knot) | meets(b1, a, atA, knot)) {
                return;
            }
            crossing.computeIntersection(a0, a1, b0, b1);
            if (crossing.isProper()) {
                effort.crossing();
                cut(a, atA, crossing.getIntersection(0));
                cut(b, atB, crossing.getIntersection(0));
            }
        }

        private static boolean follow(SegmentString line, int at, int other) {
            return Math.abs(at - other) == 1
                    || Math.abs(at - other) == line.size() - 2
                            && line.getCoordinate(0).equals2D(line.getCoordinate(line.size() - 1));
        }

        /**
         * Whether a corner lies on a line, as nearly as can be told, and breaks it there.
         *
         * @param knot whether corners that are the same are where lines meet, and not where one goes on
         */
        private boolean meets(Coordinate corner, SegmentString line, int at, boolean knot) {
            Coordinate from = line.getCoordinate(at);
            Coordinate to = line.getCoordinate(at + 1);
            if (corner.equals2D(from) || corner.equals2D(to)) {
                boolean atItsEnd = at == 0 && corner.equals2D(from) || at == line.size() - 2 && corner.equals2D(to);
                if (knot && !atItsEnd) {
                    breakAt(line, at, corner);
                }
                return true;
            }
            if (!liesOn(corner, from, to, close)) {
                return false;
            }
            if (isClose(corner, from)) {
                join(corner, from);
                return true;
            }
            if (isClose(corner, to)) {
                join(corner, to);
                return true;
            }
            cut(line, at, corner);
            return true;
        }

        private boolean isClose(Coordinate a, Coordinate b) {
            double dx = a.x - b.x;
            double dy = a.y - b.y;
            return dx * dx + dy * dy < close * close;
        }

        private void cut(SegmentString line, int at, Coordinate where) {
            breakAt(line, at, where);
            moved.add(where.copy());
        }

        private void breakAt(SegmentString line, int at, Coordinate where) {
            ((NodedSegmentString) line).addIntersection(where, at);
            breaks = true;
        }

        private void join(Coordinate a, Coordinate b) {
            Coordinate first = place(a);
            Coordinate second = place(b);
            if (first.compareTo(second) < 0) {
                same.put(second, first);
            } else if (first.compareTo(second) > 0) {
                same.put(first, second);
            }
            moved.add(a);
        }

        private Coordinate place(Coordinate corner) {
            Coordinate place = corner;
            for (Coordinate before = same.get(place); before != null; before = same.get(place)) {
                place = before;
            }
            return place;
        }

        /** Corners that follow one another are no pair of lines. */
        void closeCorners(NodedSegmentString line) {
            for (int i = 1; i < line.size(); i++) {
                Coordinate before = line.getCoordinate(i - 1);
                Coordinate corner = line.getCoordinate(i);
                if (isClose(corner, before) && !corner.equals2D(before)) {
                    join(before, corner);
                }
            }
        }

        /** The lines broken where they have to be, with corners that are one in one place. */
        @SuppressWarnings("unchecked")
        List<NodedSegmentString> broken(List<NodedSegmentString> whole) {
            List<NodedSegmentString> lines = breaks
                    ? List.copyOf((List<NodedSegmentString>) NodedSegmentString.getNodedSubstrings(whole))
                    : whole;
            if (same.isEmpty()) {
                return lines;
            }
            same.keySet().forEach(corner -> moved.add(place(corner)));
            List<NodedSegmentString> joined = new ArrayList<>(lines.size());
            for (NodedSegmentString line : lines) {
                List<Coordinate> corners = new ArrayList<>(line.size());
                for (Coordinate corner : line.getCoordinates()) {
                    Coordinate place = place(corner);
                    if (corners.isEmpty() || !corners.get(corners.size() - 1).equals2D(place)) {
                        corners.add(place);
                    }
                }
                if (corners.size() > 1) {
                    joined.add(new NodedSegmentString(corners.toArray(Coordinate[]::new), line.getData()));
                }
            }
            return joined;
        }
    }
}
