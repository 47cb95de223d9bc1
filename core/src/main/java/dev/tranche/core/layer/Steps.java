package dev.tranche.core.layer;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * How the outline of a model steps in and out from each layer to the next; each step is worked out when it is first asked for.
 * A step narrower than {@value #NOTABLE} mm is none: a line of plastic bulges farther than that.
 *
 * <p>Border {@code k} lies above layer {@code k}: border 0 is the bed, and as many as there are layers is the top.
 */
final class Steps {
    private static final double NOTABLE = 0.05;

    private final List<Section> sections;
    private final AtomicReferenceArray<MultiPolygon> ledges;
    private final AtomicReferenceArray<MultiPolygon> overhangs;

    /** @param sections from the bed up */
    Steps(List<Section> sections) {
        this.sections = sections;
        this.ledges = new AtomicReferenceArray<>(sections.size() + 1);
        this.overhangs = new AtomicReferenceArray<>(sections.size() + 1);
    }

    /** What of the layer below a border the layer above it does not cover, mm. */
    MultiPolygon ledge(int border) {
        return known(ledges, border, outline(border), outline(border + 1));
    }

    /** What of the layer above a border does not stand on the layer below it, mm. */
    MultiPolygon overhang(int border) {
        return known(overhangs, border, outline(border + 1), outline(border));
    }

    /** What of {@code layer} is solid; nothing of layer 0 and of the one above the last. */
    MultiPolygon outline(int layer) {
        return layer < 1 || layer > sections.size()
                ? Areas.NOTHING
                : sections.get(layer - 1).outline();
    }

    int layers() {
        return sections.size();
    }

    /** Layers of one outline step nowhere. */
    private static MultiPolygon known(
            AtomicReferenceArray<MultiPolygon> known, int border, MultiPolygon of, MultiPolygon beyond) {
        MultiPolygon step = known.get(border);
        if (step == null) {
            step = isSame(of, beyond) ? Areas.NOTHING : notable(Areas.difference(of, beyond));
            known.set(border, step);
        }
        return step;
    }

    static boolean isSame(MultiPolygon a, MultiPolygon b) {
        return a == b || a.equalsExact(b);
    }

    static MultiPolygon notable(MultiPolygon area) {
        List<Polygon> kept = new ArrayList<>();
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) area.getGeometryN(i);
            // The width of a long strip is twice its area over its outline.
            if (2 * Areas.size(piece) > NOTABLE * Areas.perimeter(piece)) {
                kept.add(piece);
            }
        }
        return kept.size() == area.getNumGeometries()
                ? area
                : area.getFactory().createMultiPolygon(kept.toArray(Polygon[]::new));
    }
}
