package dev.tranche.core.geometry;

import java.util.List;
import org.locationtech.jts.algorithm.RectangleLineIntersector;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.index.hprtree.HPRtree;

/**
 * Where an area lies, for many boxes that are laid beside it: its edges are put in a tree once, so that a box costs the logarithm
 * of their number, however many pieces and holes there are.
 */
public final class Whereabouts {
    private final HPRtree edges = new HPRtree();
    private final IndexedPointInAreaLocator inside;

    private record Edge(Coordinate from, Coordinate to) {}

    /** @param area valid, mm */
    public Whereabouts(MultiPolygon area) {
        this.inside = new IndexedPointInAreaLocator(area);
        Areas.polygons(area).flatMap(Areas::rings).forEach(ring -> {
            Coordinate[] corners = ring.getCoordinates();
            for (int i = 1; i < corners.length; i++) {
                edges.insert(new Envelope(corners[i - 1], corners[i]), new Edge(corners[i - 1], corners[i]));
            }
        });
        edges.build();
    }

    /** Whether any of the area lies in a box, or on its rim. */
    public boolean meets(Envelope box) {
        RectangleLineIntersector crossing = new RectangleLineIntersector(box);
        @SuppressWarnings("unchecked")
        List<Edge> near = edges.query(box);
        return near.stream().anyMatch(e -> crossing.intersects(e.from(), e.to()))
                || inside.locate(new Coordinate(box.getMinX(), box.getMinY())) != Location.EXTERIOR;
    }
}
