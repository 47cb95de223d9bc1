package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Which colours of each layer rest on which others of the layer below, by more than half a line all round: what rests on
 * less holds on to its own.
 *
 * @param below for each layer, and each colour of it, those beneath as bits; colours are places in the palette
 */
record Rests(int[][] below) {

    static Rests of(Colouring colouring, double lineWidth) {
        List<SpoolId> palette = colouring.plan().palette();
        int[][] below = new int[colouring.layers().size()][palette.size()];
        IntStream.rangeClosed(2, below.length).parallel().forEach(layer -> {
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
                            && meet(over, under, lineWidth)) {
                        below[layer - 1][palette.indexOf(over.spool())] |= 1 << palette.indexOf(under.spool());
                    }
                }
            }
        });
        return new Rests(below);
    }

    private static boolean meet(Tint over, Tint under, double lineWidth) {
        List<MultiPolygon> shared = new ArrayList<>();
        for (MultiPolygon a : over.cells()) {
            for (MultiPolygon b : under.cells()) {
                if (a.getEnvelopeInternal().intersects(b.getEnvelopeInternal())) {
                    MultiPolygon both = Areas.intersection(a, b);
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

    /** For each colour of {@code layer}, from 1, those beneath it. */
    int[] under(int layer) {
        return below[layer - 1];
    }
}
