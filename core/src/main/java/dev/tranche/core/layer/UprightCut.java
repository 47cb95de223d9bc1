package dev.tranche.core.layer;

import dev.tranche.core.geometry.Span;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
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
        double[] depths = IntStream.range(0, CANDIDATES)
                .mapToDouble(i -> box.centre().y + (i - CANDIDATES / 2) * box.getHeight() / (CANDIDATES + 1))
                .toArray();
        List<List<List<Span>>> cuts =
                model.sections().parallelStream().map(s -> s.spansAt(depths)).toList();
        // From the middle outwards, so that the middle wins where all are alike.
        return IntStream.range(0, CANDIDATES)
                .map(i -> CANDIDATES / 2 + (i + 1) / 2 * (i % 2 == 0 ? 1 : -1))
                .mapToObj(i ->
                        of(model, depths[i], cuts.stream().map(c -> c.get(i)).toList()))
                .max(Comparator.comparingDouble(UprightCut::score))
                .orElseThrow();
    }

    /** The cut at a depth of the caller's choice. */
    public static UprightCut at(CutModel model, double y) {
        return of(model, y, model.sections().stream().map(s -> s.spansAt(y)).toList());
    }

    private static UprightCut of(CutModel model, double y, List<List<Span>> cut) {
        return new UprightCut(
                y,
                cut,
                model.sections().stream()
                        .map(section -> {
                            Envelope box = section.outline().getEnvelopeInternal();
                            return box.isNull() ? List.<Span>of() : List.of(new Span(box.getMinX(), box.getMaxX()));
                        })
                        .toList());
    }

    private double score() {
        Set<List<Span>> shapes = new HashSet<>(cut);
        long met = cut.stream().filter(s -> !s.isEmpty()).count();
        long pieces = shapes.stream().mapToLong(List::size).sum();
        return met + shapes.size() / (cut.size() + 1.0) + Math.min(pieces, 1000) / 1e6;
    }
}
