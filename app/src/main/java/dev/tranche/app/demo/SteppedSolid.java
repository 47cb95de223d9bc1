package dev.tranche.app.demo;

import dev.tranche.core.geometry.Mesh;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.triangulate.polygon.PolygonTriangulator;

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
        Geometry triangles = PolygonTriangulator.triangulate(area);
        for (int i = 0; i < triangles.getNumGeometries(); i++) {
            Coordinate[] t = triangles.getGeometryN(i).getCoordinates();
            boolean counterClockwise = org.locationtech.jts.algorithm.Orientation.isCCW(t);
            boolean keep = counterClockwise == up;
            corner(t[0], z);
            corner(t[keep ? 1 : 2], z);
            corner(t[keep ? 2 : 1], z);
        }
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
