package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.noding.BasicSegmentString;
import org.locationtech.jts.noding.MCIndexSegmentSetMutualIntersector;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;

/**
 * Pieces into which no line of plastic fits, of an area in cells: what is a sliver of one cell may be the rim of the next, so
 * that what shares an edge is taken as one.
 *
 * @param count how many there are that are larger than a speck
 * @param areAll whether no line fits in anywhere, specks as well
 */
public record Slivers(int count, boolean areAll) {
    /**
     * @param cells do not overlap, mm
     * @param lineWidth mm
     * @param speck pieces that are not larger do not count, mm²
     */
    public static Slivers of(List<MultiPolygon> cells, double lineWidth, double speck) {
        Map<Boolean, List<Polygon>> byLine = cells.stream()
                .flatMap(Areas::polygons)
                .collect(Collectors.partitioningBy(piece -> Thin.holdsLine(piece, lineWidth)));
        List<Polygon> broad = byLine.get(true);
        List<Polygon> slivers = byLine.get(false);
        if (!broad.isEmpty() && slivers.stream().mapToDouble(Areas::size).sum() <= speck) {
            return new Slivers(0, false);
        }
        List<List<Polygon>> alone =
                cells.size() == 1 ? slivers.stream().map(List::of).toList() : new Joining(slivers, broad).alone();
        int count = 0;
        boolean areAll = broad.isEmpty();
        for (List<Polygon> together : alone) {
            for (Polygon piece : merged(together)) {
                if (together.size() > 1 && Thin.holdsLine(piece, lineWidth)) {
                    areAll = false;
                } else if (Areas.size(piece) > speck) {
                    count++;
                }
            }
        }
        return new Slivers(count, areAll);
    }

    private static List<Polygon> merged(List<Polygon> together) {
        return together.size() == 1
                ? together
                : Areas.polygons(Areas.union(together.stream().map(Areas::of).toList()))
                        .toList();
    }

    /** Joins slivers with each other, and with what a line fits into, where lines of their rims run together. */
    private static final class Joining implements SegmentIntersector {
        private final List<Polygon> slivers;
        private final double close;
        /** Of each piece, slivers first, one that it shares an edge with, and so on until one is its own. */
        private final int[] beside;

        Joining(List<Polygon> slivers, List<Polygon> broad) {
            this.slivers = slivers;
            List<Polygon> pieces =
                    Stream.concat(slivers.stream(), broad.stream()).toList();
            this.beside = IntStream.range(0, pieces.size()).toArray();
            Envelope reach = new Envelope();
            pieces.forEach(piece -> reach.expandToInclude(piece.getEnvelopeInternal()));
            this.close = Breaking.close(reach);
            List<SegmentString> rims = new ArrayList<>();
            int ofSlivers = 0;
            for (int i = 0; i < beside.length; i++) {
                Integer piece = i;
                Areas.rings(pieces.get(i))
                        .forEach(ring -> rims.add(new BasicSegmentString(ring.getCoordinates(), piece)));
                if (i < slivers.size()) {
                    ofSlivers = rims.size();
                }
            }
            new MCIndexSegmentSetMutualIntersector(rims, close).process(rims.subList(0, ofSlivers), this);
        }

        /** The slivers that no broad piece is beside, each with those beside it. */
        List<List<Polygon>> alone() {
            return IntStream.range(0, beside.length)
                    .boxed()
                    .collect(Collectors.groupingBy(this::first))
                    .values()
                    .stream()
                    .filter(together -> together.stream().allMatch(i -> i < slivers.size()))
                    .map(together -> together.stream().map(slivers::get).toList())
                    .toList();
        }

        private int first(int piece) {
            int at = piece;
            while (beside[at] != at) {
                beside[at] = beside[beside[at]];
                at = beside[at];
            }
            return at;
        }

        @Override
        public void processIntersections(SegmentString a, int atA, SegmentString b, int atB) {
            int one = first((Integer) a.getData());
            int other = first((Integer) b.getData());
            if (one != other
                    && runTogether(
                            a.getCoordinate(atA),
                            a.getCoordinate(atA + 1),
                            b.getCoordinate(atB),
                            b.getCoordinate(atB + 1))) {
                beside[one] = other;
            }
        }

        @Override
        public boolean isDone() {
            return false;
        }

        /** Whether two lines are one over more than a point: then two corners, apart, lie on both. */
        private boolean runTogether(Coordinate a0, Coordinate a1, Coordinate b0, Coordinate b1) {
            List<Coordinate> onBoth = new ArrayList<>(4);
            addIfOn(onBoth, a0, b0, b1);
            addIfOn(onBoth, a1, b0, b1);
            addIfOn(onBoth, b0, a0, a1);
            addIfOn(onBoth, b1, a0, a1);
            return onBoth.stream().anyMatch(c -> c.distance(onBoth.get(0)) > 2 * close);
        }

        private void addIfOn(List<Coordinate> corners, Coordinate corner, Coordinate from, Coordinate to) {
            if (Breaking.liesOn(corner, from, to, close)) {
                corners.add(corner);
            }
        }
    }
}
