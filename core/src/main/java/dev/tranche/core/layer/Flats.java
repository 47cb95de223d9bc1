package dev.tranche.core.layer;

import dev.tranche.core.layer.Flat.Form;
import dev.tranche.core.speech.Progress;
import java.util.List;
import java.util.OptionalDouble;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** Tells engraved floors from raised tops. */
final class Flats {
    /** How far beside its rim one looks whether the model goes on higher, mm. */
    private static final double BESIDE = 0.02;

    private Flats() {}

    /** Lowest first; one a layer. */
    static List<Flat> of(CutModel model, Steps steps, Outlooks outlooks, boolean quick) {
        return model.surfaces().stream()
                .filter(s -> s.kind() != Surface.Kind.UNDERSIDE)
                .filter(s -> model.grid().firstAbove(s.height()) > 1)
                .map(s -> flat(model, s, steps, outlooks, quick))
                .toList();
    }

    private static Flat flat(CutModel model, Surface surface, Steps steps, Outlooks outlooks, boolean quick) {
        int layer = model.grid().firstAbove(surface.height()) - 1;
        MultiPolygon ledge = steps.ledge(layer);
        Form form = surface.kind() == Surface.Kind.TOP || layer == model.grid().count()
                ? Form.TOP
                : isEnclosed(ledge, steps.outline(layer + 1)) ? Form.FLOOR : Form.RAISED;
        OptionalDouble seen = OptionalDouble.empty();
        if (quick && ledge.getArea() > 0) {
            Outlook above = outlooks.from(true, Progress.UNHEARD);
            seen = OptionalDouble.of(
                    Math.min(1, above.seen(above.layers() - layer).getArea() / ledge.getArea()));
        }
        return new Flat(surface.height(), layer, form, surface.area(), seen);
    }

    /** Whether most of what goes round an area is the model, going on higher. */
    private static boolean isEnclosed(MultiPolygon area, MultiPolygon higher) {
        IndexedPointInAreaLocator model = new IndexedPointInAreaLocator(higher);
        double enclosed = 0;
        double all = 0;
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) ((Polygon) area.getGeometryN(i)).norm();
            Coordinate[] c = piece.getExteriorRing().getCoordinates();
            for (int k = 1; k < c.length; k++) {
                double dx = c[k].x - c[k - 1].x;
                double dy = c[k].y - c[k - 1].y;
                double length = Math.hypot(dx, dy);
                // Normal rings run clockwise: outside is to the left.
                Coordinate outside = new Coordinate(
                        (c[k].x + c[k - 1].x) / 2 - BESIDE * dy / length,
                        (c[k].y + c[k - 1].y) / 2 + BESIDE * dx / length);
                all += length;
                enclosed += model.locate(outside) == Location.EXTERIOR ? 0 : length;
            }
        }
        return enclosed > all / 2;
    }
}
