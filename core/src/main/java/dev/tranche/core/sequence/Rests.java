package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BinaryOperator;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Which colours of each layer stand over which others, by more than half a line all round: what stands over less holds on
 * to its own, and leaves the nozzle room.
 *
 * @param overlaps of cells that have been laid over one another: a cell that goes on unchanged from layer to layer is the
 *     very same
 * @param below for each layer, and each colour of it, those of the very layer beneath as bits; colours are places in the
 *     palette; null where it was not looked at
 */
record Rests(Ground ground, int[][] below, Map<Pair, MultiPolygon> overlaps) {
    /** From here on what lies further down is found again where it is needed. */
    private static final int MOST_KEPT = 50_000;

    /**
     * @param sought layers, from 1, that are looked at
     * @param progress hears layers done of all layers
     */
    static Rests of(Ground ground, IntPredicate sought, Progress progress) {
        AtomicInteger done = new AtomicInteger();
        Rests rests = new Rests(ground, new int[ground.layers().size()][], new HashMap<>());
        rests.below[0] = new int[ground.palette().size()];
        IntStream.rangeClosed(2, rests.below.length).parallel().filter(sought).forEach(layer -> {
            progress.at(done.incrementAndGet(), rests.below.length);
            rests.below[layer - 1] = rests.onNext(layer);
        });
        return rests;
    }

    private int[] onNext(int layer) {
        int[] under = new int[ground.palette().size()];
        LayerColours upper = ground.layer(layer);
        LayerColours lower = ground.layer(layer - 1);
        // Colours of one layer do not overlap, so in equal layers none rests on another.
        if (upper != lower) {
            add(upper, lower, under, under, Areas::intersection);
        }
        return under;
    }

    private static boolean meet(Tint over, Tint under, double lineWidth, BinaryOperator<MultiPolygon> overlap) {
        List<MultiPolygon> shared = new ArrayList<>();
        for (MultiPolygon a : over.cells()) {
            for (MultiPolygon b : under.cells()) {
                if (a.getEnvelopeInternal().intersects(b.getEnvelopeInternal())) {
                    MultiPolygon both = overlap.apply(a, b);
                    if (holdsLine(both, lineWidth)) {
                        return true;
                    }
                    shared.add(both);
                }
            }
        }
        // A sliver in one cell may be the rim of the next.
        return shared.size() > 1 && holdsLine(Areas.union(shared), lineWidth);
    }

    private static boolean holdsLine(MultiPolygon area, double lineWidth) {
        for (int i = 0; i < area.getNumGeometries(); i++) {
            if (Thin.holdsLine((Polygon) area.getGeometryN(i), lineWidth)) {
                return true;
            }
        }
        return false;
    }

    /**
     * For each colour of {@code layer} those that lie under it on any layer from {@code first} up, however far beneath: a
     * roof that was printed before keeps the nozzle out, whether there is a void under it or not.
     *
     * @param known what is known of the layers between already, which need not be looked at again
     */
    int[] under(int layer, int first, int[] known) {
        if (below[layer - 1] == null) {
            below[layer - 1] = onNext(layer);
        }
        int[] under = below[layer - 1].clone();
        for (int lower = layer - 2; lower >= first; lower--) {
            LayerColours colours = ground.layer(lower);
            if (colours != ground.layer(lower + 1) && colours != ground.layer(layer)) {
                add(ground.layer(layer), colours, known, under, this::overlap);
            }
        }
        return under;
    }

    /** Two cells, by what they are, not by how they look. */
    private record Pair(MultiPolygon over, MultiPolygon under) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Pair p && p.over == over && p.under == under;
        }

        @Override
        public int hashCode() {
            return 31 * System.identityHashCode(over) + System.identityHashCode(under);
        }
    }

    private MultiPolygon overlap(MultiPolygon over, MultiPolygon under) {
        if (overlaps.size() > MOST_KEPT) {
            overlaps.clear();
        }
        return overlaps.computeIfAbsent(new Pair(over, under), p -> Areas.intersection(over, under));
    }

    private void add(
            LayerColours upper, LayerColours lower, int[] known, int[] under, BinaryOperator<MultiPolygon> overlap) {
        List<SpoolId> palette = ground.palette();
        for (Tint over : upper.tints()) {
            int a = palette.indexOf(over.spool());
            for (Tint beneath : lower.tints()) {
                int b = palette.indexOf(beneath.spool());
                boolean open = a != b && ((under[a] | known[a]) >> b & 1) == 0;
                if (open && over.prints() && beneath.prints() && meet(over, beneath, ground.lineWidth(), overlap)) {
                    under[a] |= 1 << b;
                }
            }
        }
    }
}
