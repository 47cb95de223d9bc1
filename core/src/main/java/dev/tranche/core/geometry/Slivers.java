package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.noding.BasicSegmentString;
import org.locationtech.jts.noding.MCIndexSegmentSetMutualIntersector;
import org.locationtech.jts.noding.SegmentIntersector;
import org.locationtech.jts.noding.SegmentString;

/** Pieces into which no line of plastic fits, of an area in cells: what is a sliver of one cell may be the rim of the next. */
public final class Slivers {
    private final int cells;
    private final List<Polygon> pieces;
    private final boolean[] holdsLine;
    private final double lineWidth;
    private final double speck;
    /** Of each piece one that it shares an edge with, and so on until one is its own. */
    private final int[] beside;

    private Slivers(List<MultiPolygon> cells, double lineWidth, double speck) {
        this.cells = cells.size();
        this.pieces = cells.stream().flatMap(Areas::polygons).toList();
        this.lineWidth = lineWidth;
        this.speck = speck;
        this.holdsLine = new boolean[pieces.size()];
        this.beside = IntStream.range(0, pieces.size()).toArray();
        for (int i = 0; i < holdsLine.length; i++) {
            holdsLine[i] = Thin.holdsLine(pieces.get(i), lineWidth);
        }
    }

    /**
     * @param cells do not overlap, mm
     * @param lineWidth mm
     * @param speck pieces that are not larger do not count, mm²
     */
    public static Slivers of(List<MultiPolygon> cells, double lineWidth, double speck) {
        return new Slivers(cells, lineWidth, speck);
    }

    /** How many there are, taking as one what shares an edge. */
    public int count() {
        int alone = (int) IntStream.range(0, holdsLine.length)
                .filter(i -> !holdsLine[i] && Areas.size(pieces.get(i)) > speck)
                .count();
        return alone == 0 || cells == 1 ? alone : joined();
    }

    /** Whether no line fits into any piece as it is, specks as well. */
    public boolean areAll() {
        return IntStream.range(0, holdsLine.length).noneMatch(i -> holdsLine[i]);
    }

    private int joined() {
        List<SegmentString> every = new ArrayList<>();
        List<SegmentString> slivers = new ArrayList<>();
        for (int i = 0; i < holdsLine.length; i++) {
            Integer piece = i;
            List<SegmentString> rims = Areas.rings(pieces.get(i))
                    .<SegmentString>map(ring -> new BasicSegmentString(ring.getCoordinates(), piece))
                    .toList();
            every.addAll(rims);
            if (!holdsLine[i]) {
                slivers.addAll(rims);
            }
        }
        Envelope reach = new Envelope();
        pieces.forEach(piece -> reach.expandToInclude(piece.getEnvelopeInternal()));
        double close = Breaking.close(reach);
        new MCIndexSegmentSetMutualIntersector(every, close).process(slivers, new Joining(close));
        Map<Integer, List<Integer>> together =
                IntStream.range(0, beside.length).boxed().collect(Collectors.groupingBy(this::first));
        return together.values().stream().mapToInt(this::lost).sum();
    }

    private int first(int piece) {
        int at = piece;
        while (beside[at] != at) {
            at = beside[at];
        }
        return at;
    }

    /** How many slivers are left of pieces that share edges. */
    private int lost(Collection<Integer> together) {
        if (together.stream().anyMatch(i -> holdsLine[i])) {
            return 0;
        }
        MultiPolygon area =
                Areas.union(together.stream().map(i -> Areas.of(pieces.get(i))).toList());
        return (int) Areas.polygons(area)
                .filter(p -> Areas.size(p) > speck && !Thin.holdsLine(p, lineWidth))
                .count();
    }

    /** Joins pieces along whose rims lines run together. */
    private final class Joining implements SegmentIntersector {
        private final double close;

        Joining(double close) {
            this.close = close;
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
