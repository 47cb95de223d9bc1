package dev.tranche.core.coat;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.overlayng.CoverageUnion;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/** The labels of a layer, in its section and all round it: beyond it each square has the label that is nearest. */
final class Expanse {
    /** So many squares an outline goes on beneath another: both are rounded by one, and stay so for layers that differ by one. */
    private static final int OVERLAP = 3;
    /** Of rows of squares of a label on a layer; and how many looks rounding what they make may take. */
    private static final int MOST_ENDS = 400_000;

    private static final long MOST_LOOKS = 100_000_000;
    /** Of what a tool prints, so much may lie elsewhere on the next layer for it to be the same. */
    private static final double ROUNDING = 0.02;

    private static final int[] NONE = {};

    private final Lattice lattice;
    private final byte[] labels;

    Expanse(Lattice lattice, byte[] labels) {
        this.lattice = lattice;
        this.labels = labels;
    }

    /** Whether what a tool prints on another layer is foretold by this, but for what rounding does to its rim: no line is missed. */
    boolean foretells(Canvas other, int tool) {
        Lattice there = other.lattice();
        int its = 0;
        int apart = 0;
        for (int r = 1; r < there.rows() - 1; r++) {
            int first = r * there.columns();
            int here = lattice.numberOf(first, there) - first;
            for (int i = first + 1; i < first + there.columns() - 1; i++) {
                if (other.prints(i, tool)) {
                    its++;
                }
                if (isApart(other, tool, i, here)) {
                    apart++;
                    if (isApart(other, tool, i - 1, here)
                            && isApart(other, tool, i + 1, here)
                            && isApart(other, tool, i - there.columns(), here - lattice.columns() + there.columns())
                            && isApart(other, tool, i + there.columns(), here + lattice.columns() - there.columns())) {
                        return false;
                    }
                }
            }
        }
        return apart <= its * ROUNDING;
    }

    private boolean isApart(Canvas other, int tool, int at, int here) {
        return other.isNear(at) && (other.label(at) == tool) != (labels[at + here] == tool);
    }

    /**
     * What is a label's, to the side of a square, and that with a little more where it meets labels that are laid over it: each
     * outline is rounded by itself, and nothing of what lies beneath both may come between.
     */
    record Place(MultiPolygon seen, MultiPolygon laid) {}

    /**
     * @param over the labels that are laid over this one
     * @return empty where colours change in more places than can be drawn
     */
    Optional<Place> of(int label, IntPredicate over) {
        boolean[] its = new boolean[labels.length];
        for (int i = 0; i < its.length; i++) {
            its[i] = labels[i] == label;
        }
        return outline(its).flatMap(seen -> (lattice.widen(its, OVERLAP, at -> labels[at] >= 0 && over.test(labels[at]))
                        ? outline(its)
                        : Optional.of(seen))
                .map(laid -> new Place(seen, laid)));
    }

    /** Empty where it has more corners than can be rounded in a moment. */
    private Optional<MultiPolygon> outline(boolean[] squares) {
        GeometryFactory plane = new GeometryFactory();
        int rows = lattice.rows();
        int[][] runs = new int[rows + 2][];
        runs[0] = NONE;
        runs[rows + 1] = NONE;
        for (int r = 0; r < rows; r++) {
            runs[r + 1] = runs(r, squares);
        }
        if (Arrays.stream(runs).mapToInt(r -> r.length).sum() > MOST_ENDS) {
            return Optional.empty();
        }
        List<Polygon> strips = new ArrayList<>();
        for (int r = 0; r < rows; r++) {
            int[] own = runs[r + 1];
            for (int i = 0; i < own.length; i += 2) {
                List<Coordinate> ring = new ArrayList<>();
                edge(own[i], own[i + 1], runs[r], r, ring);
                Collections.reverse(ring);
                edge(own[i], own[i + 1], runs[r + 2], r + 1, ring);
                ring.add(ring.get(0));
                strips.add(plane.createPolygon(ring.toArray(Coordinate[]::new)));
            }
        }
        Geometry whole = CoverageUnion.union(plane.buildGeometry(strips));
        // Each corner is looked at against each ring.
        long rings = Areas.polygons(Areas.of(whole))
                .mapToLong(p -> 1 + p.getNumInteriorRing())
                .sum();
        return whole.getNumPoints() * rings > MOST_LOOKS
                ? Optional.empty()
                : Optional.of(Areas.of(TopologyPreservingSimplifier.simplify(whole, lattice.side())));
    }

    /** Where runs of squares begin and end in a row. */
    private int[] runs(int row, boolean[] squares) {
        IntStream.Builder ends = IntStream.builder();
        int first = row * lattice.columns();
        int last = first + lattice.columns() - 1;
        for (int at = Lattice.change(squares, first, last, 1);
                at < last;
                at = Lattice.change(squares, at + 1, last, 1)) {
            ends.add(at + 1 - first);
        }
        return ends.build().toArray();
    }

    /** From one column to another along a row's lower edge, by way of where runs beyond it begin and end. */
    private void edge(int from, int to, int[] beyond, int row, List<Coordinate> ring) {
        double y = lattice.y(row);
        ring.add(new Coordinate(lattice.x(from), y));
        for (int c : beyond) {
            if (c > from && c < to) {
                ring.add(new Coordinate(lattice.x(c), y));
            }
        }
        ring.add(new Coordinate(lattice.x(to), y));
    }
}
