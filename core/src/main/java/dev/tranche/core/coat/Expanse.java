package dev.tranche.core.coat;

import dev.tranche.core.geometry.Areas;
import java.util.Optional;
import java.util.function.IntPredicate;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/** The labels of a layer, in its section and all round it: beyond it each square has the label that is nearest. */
final class Expanse {
    /** So many squares an outline goes on beneath another: both are rounded by one, and stay so for layers that differ by one. */
    private static final int OVERLAP = 3;
    /** Of the outlines of a label on a layer; and how many looks rounding them may take. */
    private static final int MOST_CORNERS = 400_000;

    private static final long MOST_LOOKS = 100_000_000;
    /** Of what a tool prints, so much may lie elsewhere on the next layer for it to be the same. */
    private static final double ROUNDING = 0.02;

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

    /** Empty where it has more corners than can be rounded in a moment: each is looked at against each ring. */
    private Optional<MultiPolygon> outline(boolean[] squares) {
        MultiPolygon whole = Rims.of(lattice, squares);
        long rings =
                Areas.polygons(whole).mapToLong(p -> 1 + p.getNumInteriorRing()).sum();
        return whole.getNumPoints() > MOST_CORNERS || whole.getNumPoints() * rings > MOST_LOOKS
                ? Optional.empty()
                : Optional.of(Areas.of(TopologyPreservingSimplifier.simplify(whole, lattice.side())));
    }
}
