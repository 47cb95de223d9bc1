package dev.tranche.core.layer;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Span;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;

/**
 * A model seen from the front, cut upright along the X axis, layer by layer as it will be printed.
 *
 * @param y where it is cut, mm
 * @param cut for each layer the stretches of X in plastic
 * @param outline for each layer all the X it reaches, at any depth; empty for an empty layer
 */
public record UprightCut(double y, List<List<Span>> cut, List<List<Span>> outline) {
    private static final int CANDIDATES = 15;

    /** The cut, of fifteen over the depth of the model, that meets most layers and, of those, shows most steps. */
    public static UprightCut mostTelling(CutModel model) {
        Envelope box = model.footprint();
        UprightCut best = null;
        double bestScore = -1;
        for (int i = 0; i < CANDIDATES; i++) {
            // From the middle outwards, so that the middle wins where all are alike.
            int step = (i + 1) / 2 * (i % 2 == 0 ? 1 : -1);
            double y = box.centre().y + step * box.getHeight() / (CANDIDATES + 1);
            UprightCut candidate = at(model, y);
            double score = candidate.score();
            if (score > bestScore) {
                best = candidate;
                bestScore = score;
            }
        }
        return best;
    }

    /** The cut at a depth of the caller's choice. */
    public static UprightCut at(CutModel model, double y) {
        List<List<Span>> cut = new ArrayList<>();
        List<List<Span>> outline = new ArrayList<>();
        for (Section section : model.sections()) {
            cut.add(section.spansAt(y));
            Envelope box = section.outline().getEnvelopeInternal();
            outline.add(box.isNull() ? List.of() : List.of(new Span(box.getMinX(), box.getMaxX())));
        }
        return new UprightCut(y, List.copyOf(cut), List.copyOf(outline));
    }

    private double score() {
        Set<List<Span>> shapes = new HashSet<>(cut);
        long met = cut.stream().filter(s -> !s.isEmpty()).count();
        long pieces = shapes.stream().mapToLong(List::size).sum();
        return met + shapes.size() / (cut.size() + 1.0) + Math.min(pieces, 1000) / 1e6;
    }
}
