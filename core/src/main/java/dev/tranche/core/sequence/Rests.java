package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.Colouring;
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
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Which colours of each layer stand over which others, by more than half a line all round: what stands over less holds on
 * to its own, and leaves the nozzle room.
 *
 * @param lineWidth mm
 * @param overlaps of cells that have been laid over one another: a cell that goes on unchanged from layer to layer is the
 *     very same
 * @param below for each layer, and each colour of it, those of the very layer beneath as bits; colours are places in the
 *     palette
 */
record Rests(Colouring colouring, double lineWidth, int[][] below, Map<Pair, MultiPolygon> overlaps) {
    /** From here on what lies further down is found again where it is needed. */
    private static final int MOST_KEPT = 50_000;

    /** @param progress hears layers done of all layers */
    static Rests of(Colouring colouring, double lineWidth, Progress progress) {
        AtomicInteger done = new AtomicInteger();
        List<SpoolId> palette = colouring.plan().palette();
        int[][] below = new int[colouring.layers().size()][palette.size()];
        IntStream.rangeClosed(2, below.length).parallel().forEach(layer -> {
            progress.at(done.incrementAndGet(), below.length);
            LayerColours upper = colouring.layer(layer);
            LayerColours lower = colouring.layer(layer - 1);
            // Colours of one layer do not overlap, so in equal layers none rests on another.
            if (upper == lower) {
                return;
            }
            for (Tint over : upper.tints()) {
                for (Tint under : lower.tints()) {
                    if (!over.spool().equals(under.spool())
                            && over.prints()
                            && under.prints()
                            && meet(over, under, lineWidth, Areas::intersection)) {
                        below[layer - 1][palette.indexOf(over.spool())] |= 1 << palette.indexOf(under.spool());
                    }
                }
            }
        });
        return new Rests(colouring, lineWidth, below, new HashMap<>());
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
        int[] under = below[layer - 1].clone();
        for (int lower = layer - 2; lower >= first; lower--) {
            LayerColours colours = colouring.layer(lower);
            if (colours != colouring.layer(lower + 1) && colours != colouring.layer(layer)) {
                add(colouring.layer(layer), colours, known, under);
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

    private void add(LayerColours upper, LayerColours lower, int[] known, int[] under) {
        List<SpoolId> palette = colouring.plan().palette();
        for (Tint over : upper.tints()) {
            int a = palette.indexOf(over.spool());
            for (Tint beneath : lower.tints()) {
                int b = palette.indexOf(beneath.spool());
                boolean open = a != b && ((under[a] | known[a]) >> b & 1) == 0;
                if (open && over.prints() && beneath.prints() && meet(over, beneath, lineWidth, this::overlap)) {
                    under[a] |= 1 << b;
                }
            }
        }
    }
}
