package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.triangulate.polygon.PolygonTriangulator;
import org.tinfour.common.IConstraint;
import org.tinfour.common.PolygonConstraint;
import org.tinfour.common.Vertex;
import org.tinfour.standard.IncrementalTin;
import org.tinfour.utils.TriangleCollector;

/**
 * Polygons cut into triangles that have no other corners than theirs, so that walls on their outlines meet them everywhere.
 *
 * <p>Ears are cut off by JTS; where there are many holes that takes time by their number's power of 2.5 (measured: 2 s for 3,600,
 * over a minute for 14,000), and by the square of the corners of a comb (6 s for 40,000). Such are cut by Tinfour's constrained
 * Delaunay triangulation, which takes 0.1 to 0.7 s for any of these.
 */
public final class Triangles {
    /** Of no more holes ears are cut off in less time than it takes to triangulate them. */
    private static final int FEW_HOLES = 8;
    /** Of no more corners ears are cut off in less than a second, whatever the outline. */
    private static final int FEW_CORNERS = 10_000;
    /** Corners nearer to each other than a hundred-thousandth of this are one, mm. */
    private static final double SPACING = 1e-3;
    /** Of an area: what rounding may make of it. */
    private static final double ROUNDING = 1e-9;

    private Triangles() {}

    /**
     * @param polygon valid
     * @return three corners for each triangle, counter-clockwise
     */
    public static Coordinate[] of(Polygon polygon) {
        if (polygon.getNumInteriorRing() > FEW_HOLES || polygon.getNumPoints() > FEW_CORNERS) {
            Coordinate[] corners = delaunay(polygon);
            double size = Areas.size(polygon);
            if (Math.abs(size(corners) - size) <= ROUNDING * size) {
                return corners;
            }
        }
        return ears(polygon);
    }

    private static Coordinate[] ears(Polygon polygon) {
        Geometry triangles = PolygonTriangulator.triangulate(polygon);
        Coordinate[] corners = new Coordinate[3 * triangles.getNumGeometries()];
        for (int i = 0; i < corners.length; i += 3) {
            Coordinate[] t = triangles.getGeometryN(i / 3).getCoordinates();
            boolean left = Orientation.isCCW(t);
            corners[i] = t[0];
            corners[i + 1] = t[left ? 1 : 2];
            corners[i + 2] = t[left ? 2 : 1];
        }
        return corners;
    }

    private static Coordinate[] delaunay(Polygon polygon) {
        List<Vertex> vertices = new ArrayList<>();
        List<Coordinate> places = new ArrayList<>();
        List<IConstraint> outlines = new ArrayList<>();
        Areas.rings(polygon).forEach(ring -> {
            PolygonConstraint outline = new PolygonConstraint();
            for (Coordinate corner : wound(ring, ring != polygon.getExteriorRing())) {
                Vertex vertex = new Vertex(corner.x, corner.y, 0, places.size());
                places.add(corner);
                vertices.add(vertex);
                outline.add(vertex);
            }
            outline.complete();
            outlines.add(outline);
        });
        IncrementalTin tin = new IncrementalTin(SPACING);
        tin.add(vertices, null);
        tin.addConstraints(outlines, false);
        List<Coordinate> corners = new ArrayList<>();
        Consumer<Vertex[]> keep =
                t -> Arrays.stream(t).map(v -> places.get(v.getIndex())).forEach(corners::add);
        TriangleCollector.visitTrianglesConstrained(tin, keep);
        tin.dispose();
        return corners.toArray(Coordinate[]::new);
    }

    /** Corners of a ring, the last of which is not the first again. */
    private static List<Coordinate> wound(LinearRing ring, boolean clockwise) {
        LinearRing wound = Orientation.isCCW(ring.getCoordinateSequence()) == clockwise ? ring.reverse() : ring;
        Coordinate[] corners = wound.getCoordinates();
        return List.of(corners).subList(0, corners.length - 1);
    }

    private static double size(Coordinate[] corners) {
        double twice = 0;
        for (int i = 0; i < corners.length; i += 3) {
            Coordinate a = corners[i];
            Coordinate b = corners[i + 1];
            Coordinate c = corners[i + 2];
            twice += Math.abs((b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y));
        }
        return twice / 2;
    }
}
