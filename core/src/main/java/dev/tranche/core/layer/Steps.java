package dev.tranche.core.layer;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How the outline of a model steps in and out from each layer to the next.
 *
 * <p>Border {@code k} lies above layer {@code k}: border 0 is the bed, and as many as there are layers is the top.
 *
 * @param ledges for each border what of the layer below it the layer above does not cover, mm
 * @param overhangs for each border what of the layer above it does not stand on the layer below, mm
 */
public record Steps(List<MultiPolygon> ledges, List<MultiPolygon> overhangs) {

    /** Of sections from the bed up. Layers of one outline step nowhere. */
    public static Steps of(List<Section> sections) {
        List<MultiPolygon> ledges = steps(sections, 1);
        List<MultiPolygon> overhangs = steps(sections, 0);
        return new Steps(ledges, overhangs);
    }

    /** @param back 1 for what the lower layer has alone, 0 for what the upper has */
    private static List<MultiPolygon> steps(List<Section> sections, int back) {
        return IntStream.rangeClosed(0, sections.size())
                .parallel()
                .mapToObj(border -> step(outline(sections, border - back), outline(sections, border - 1 + back)))
                .toList();
    }

    private static MultiPolygon outline(List<Section> sections, int at) {
        return at < 0 || at == sections.size()
                ? Areas.NOTHING
                : sections.get(at).outline();
    }

    private static MultiPolygon step(MultiPolygon of, MultiPolygon beyond) {
        return of == beyond || of.equalsExact(beyond) ? Areas.NOTHING : Areas.difference(of, beyond);
    }
}
