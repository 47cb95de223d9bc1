package dev.tranche.app.demo;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Triangles;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;

/** A watertight solid of outlines that lie within one another, each raised above the one before. */
final class SteppedSolid {
    private final List<float[]> corners = new ArrayList<>();
    private Geometry below;
    private double height;

    /** Begins with a base on the bed. */
    SteppedSolid(Geometry outline, double top) {
        flat(outline, 0, false);
        walls(outline, 0, top);
        below = outline;
        height = top;
    }

    /** Raises {@code outline}, which lies within the last one, to {@code top}. */
    SteppedSolid raise(Geometry outline, double top) {
        flat(below.difference(outline), height, true);
        walls(outline, height, top);
        below = outline;
        height = top;
        return this;
    }

    Mesh mesh() {
        flat(below, height, true);
        return MeshBuilder.of(corners);
    }

    private void flat(Geometry area, double z, boolean up) {
        Areas.polygons(Areas.of(area)).map(Triangles::of).forEach(c -> {
            for (int i = 0; i < c.length; i += 3) {
                corner(c[i], z);
                corner(c[up ? i + 1 : i + 2], z);
                corner(c[up ? i + 2 : i + 1], z);
            }
        });
    }

    private void walls(Geometry outline, double from, double to) {
        Geometry normal = outline.norm();
        for (int p = 0; p < normal.getNumGeometries(); p++) {
            Polygon polygon = (Polygon) normal.getGeometryN(p);
            wall(polygon.getExteriorRing(), from, to);
            for (int r = 0; r < polygon.getNumInteriorRing(); r++) {
                wall(polygon.getInteriorRingN(r), from, to);
            }
        }
    }

    /** Normalised rings run clockwise outside and counter-clockwise round holes: plastic is on the right. */
    private void wall(LineString ring, double from, double to) {
        Coordinate[] c = ring.getCoordinates();
        for (int i = 1; i < c.length; i++) {
            corner(c[i], from);
            corner(c[i - 1], from);
            corner(c[i - 1], to);
            corner(c[i], from);
            corner(c[i - 1], to);
            corner(c[i], to);
        }
    }

    private void corner(Coordinate c, double z) {
        corners.add(new float[] {(float) c.x, (float) c.y, (float) z});
    }
}
