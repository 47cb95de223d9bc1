package dev.tranche.core.plan;

import dev.tranche.core.geometry.Span;
import dev.tranche.core.layer.UprightCut;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;

/**
 * The colours of a print seen from the front, cut upright along the X axis.
 *
 * @param y where it is cut, mm
 * @param colours for each spool, layer by layer, the stretches of X it fills
 */
public record Strata(double y, Map<SpoolId, List<List<Span>>> colours) {
    private static final int CANDIDATES = 15;
    private static final int MOST_LOOKED_AT = 60;

    /**
     * Where the model's own most telling cut is; with regions, where most of the colours are met on most of the layers,
     * that cut first.
     */
    static double mostTelling(Colouring colouring, UprightCut plain) {
        double y = plain.y();
        if (colouring.plan().regions().size() > 0) {
            Envelope box = colouring.model().footprint();
            long most = met(colouring, y);
            for (int i = 1; i <= CANDIDATES; i++) {
                double candidate = box.getMinY() + i * box.getHeight() / (CANDIDATES + 1);
                long here = met(colouring, candidate);
                if (here > most) {
                    most = here;
                    y = candidate;
                }
            }
        }
        return y;
    }

    /** How many colours are met, over some of the layers; a colour met at all counts for much. */
    private static long met(Colouring colouring, double y) {
        int layers = colouring.layers().size();
        int step = Math.max(1, layers / MOST_LOOKED_AT);
        Map<SpoolId, Long> found = new LinkedHashMap<>();
        for (int i = 0; i < layers; i += step) {
            for (Tint tint : colouring.layers().get(i).tints()) {
                if (tint.reaches(y)) {
                    found.merge(tint.spool(), 1L, Long::sum);
                }
            }
        }
        return 1000L * found.size()
                + found.values().stream().mapToLong(Long::longValue).sum();
    }

    /**
     * @param seen layers of an earlier plan, and {@code before} how they looked at the same cut; layers that are the very
     *     same are not looked at again
     */
    static Strata at(Colouring colouring, double y, List<LayerColours> seen, Strata before) {
        List<LayerColours> layers = colouring.layers();
        Map<SpoolId, List<List<Span>>> colours = new LinkedHashMap<>();
        colouring.plan().palette().forEach(s -> colours.put(s, new ArrayList<>()));
        for (int i = 0; i < layers.size(); i++) {
            LayerColours layer = layers.get(i);
            int at = i;
            boolean asBelow = i > 0 && layer == layers.get(i - 1);
            boolean asBefore = i < seen.size() && layer == seen.get(i);
            colours.forEach((spool, spans) -> spans.add(
                    asBelow
                            ? spans.get(at - 1)
                            : asBefore
                                    ? before.of(spool, at)
                                    : layer.tint(spool).map(t -> t.spansAt(y)).orElse(List.of())));
        }
        colours.values().removeIf(spans -> spans.stream().allMatch(List::isEmpty));
        return new Strata(y, colours);
    }

    private List<Span> of(SpoolId spool, int at) {
        List<List<Span>> spans = colours.get(spool);
        return spans == null ? List.of() : spans.get(at);
    }
}
