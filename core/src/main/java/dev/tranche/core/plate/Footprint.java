package dev.tranche.core.plate;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * What a model covers of the bed, whatever its height: all its layers over one another.
 *
 * @param outline with the middle of its rectangle at the origin, mm
 */
public record Footprint(MultiPolygon outline) {
    /** Finer than anyone places a copy, mm. */
    private static final double TOLERANCE = 0.02;
    /** Of a model of more, as many are looked at, evenly. */
    private static final int MOST_LAYERS = 200;

    public static Footprint of(CutModel model) {
        List<Section> sections = model.sections();
        double each = Math.max(1, sections.size() / (double) MOST_LAYERS);
        List<MultiPolygon> layers = new ArrayList<>();
        for (double at = 0; at < sections.size(); at += each) {
            MultiPolygon outline = sections.get((int) at).outline();
            if (layers.isEmpty() || layers.get(layers.size() - 1) != outline) {
                layers.add(Areas.of(TopologyPreservingSimplifier.simplify(outline, TOLERANCE)));
            }
        }
        MultiPolygon all = Areas.union(layers);
        Envelope box = all.getEnvelopeInternal();
        Coordinate middle = box.isNull() ? new Coordinate() : box.centre();
        return new Footprint(Areas.of(
                AffineTransformation.translationInstance(-middle.x, -middle.y).transform(all)));
    }

    /** As it stands on a bed. */
    public MultiPolygon at(Spot spot) {
        AffineTransformation move = AffineTransformation.rotationInstance(Math.toRadians(spot.turn()));
        move.translate(spot.x(), spot.y());
        return Areas.of(move.transform(outline));
    }

    /** The rectangle of it, turned by so many degrees. */
    Envelope turned(double degrees) {
        return AffineTransformation.rotationInstance(Math.toRadians(degrees))
                .transform(outline)
                .getEnvelopeInternal();
    }
}
