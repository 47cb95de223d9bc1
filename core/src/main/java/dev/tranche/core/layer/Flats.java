package dev.tranche.core.layer;

import dev.tranche.core.layer.Flat.Form;
import dev.tranche.core.speech.Progress;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.function.BinaryOperator;
import java.util.stream.Collectors;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** Tells engraved floors from raised tops. */
final class Flats {
    /** How far beside its rim one looks whether the model goes on higher, mm. */
    private static final double BESIDE = 0.02;

    private Flats() {}

    /** Lowest first; one a layer, the largest. */
    static List<Flat> of(CutModel model, Steps steps, Outlooks outlooks, boolean quick) {
        return model.surfaces().stream()
                .filter(s -> s.kind() != Surface.Kind.UNDERSIDE)
                .filter(s -> model.grid().firstAbove(s.height()) > 1)
                .map(s -> flat(model, s, steps, outlooks, quick))
                .collect(Collectors.toMap(
                        Flat::layer,
                        f -> f,
                        BinaryOperator.maxBy(Comparator.comparingDouble(Flat::area)),
                        TreeMap::new))
                .values()
                .stream()
                .toList();
    }

    private static Flat flat(CutModel model, Surface surface, Steps steps, Outlooks outlooks, boolean quick) {
        int layer = model.grid().firstAbove(surface.height()) - 1;
        MultiPolygon ledge = steps.ledge(layer);
        Form form = surface.kind() == Surface.Kind.TOP || layer == model.grid().count()
                ? Form.TOP
                : ledge.isEmpty() ? Form.COVERED : form(ledge, steps.outline(layer + 1));
        OptionalDouble seen = OptionalDouble.empty();
        if (quick && ledge.getArea() > 0) {
            Outlook above = outlooks.from(true, Progress.UNHEARD);
            seen = OptionalDouble.of(
                    Math.min(1, above.seen(above.layers() - layer).getArea() / ledge.getArea()));
        }
        return new Flat(surface.height(), layer, form, surface.area(), seen);
    }

    private static Form form(MultiPolygon area, MultiPolygon higher) {
        IndexedPointInAreaLocator model = new IndexedPointInAreaLocator(higher);
        double round = 0;
        double enclosed = 0;
        double within = 0;
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) ((Polygon) area.getGeometryN(i)).norm();
            round += piece.getExteriorRing().getLength();
            enclosed += beside(piece.getExteriorRing(), model);
            for (int r = 0; r < piece.getNumInteriorRing(); r++) {
                within += beside(piece.getInteriorRingN(r), model);
            }
        }
        return enclosed > round / 2 ? Form.FLOOR : within > 0 ? Form.BASE : Form.RAISED;
    }

    /** How much of a ring of a normal polygon has the model, going on higher, on its other side, mm. */
    private static double beside(LineString ring, IndexedPointInAreaLocator model) {
        Coordinate[] c = ring.getCoordinates();
        double beside = 0;
        for (int k = 1; k < c.length; k++) {
            double dx = c[k].x - c[k - 1].x;
            double dy = c[k].y - c[k - 1].y;
            double length = Math.hypot(dx, dy);
            // Normal polygons lie to the right of their rings.
            Coordinate other = new Coordinate(
                    (c[k].x + c[k - 1].x) / 2 - BESIDE * dy / length, (c[k].y + c[k - 1].y) / 2 + BESIDE * dx / length);
            beside += model.locate(other) == Location.EXTERIOR ? 0 : length;
        }
        return beside;
    }
}
