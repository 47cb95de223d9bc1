package dev.tranche.core.geometry;

import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.triangulate.polygon.PolygonTriangulator;

/**
 * Areas raised to solids with upright walls. Each is closed: lids and walls have the same corners, since a lid is cut
 * into triangles without new ones.
 */
public final class Prism {
    private final List<float[]> corners = new ArrayList<>();

    private Prism() {}

    /** One solid for each polygon of {@code area}. */
    public static List<Mesh> of(MultiPolygon area, Height from, Height to) {
        List<Mesh> solids = new ArrayList<>();
        for (int i = 0; i < area.getNumGeometries(); i++) {
            solids.add(of((Polygon) area.getGeometryN(i).norm(), from.micrometres(), to.micrometres()));
        }
        return solids;
    }

    private static Mesh of(Polygon polygon, int from, int to) {
        Prism prism = new Prism();
        prism.lids(polygon, from, to);
        prism.walls(polygon.getExteriorRing(), from, to);
        for (int r = 0; r < polygon.getNumInteriorRing(); r++) {
            prism.walls(polygon.getInteriorRingN(r), from, to);
        }
        int n = prism.corners.size();
        float[] x = new float[n];
        float[] y = new float[n];
        int[] z = new int[n];
        for (int i = 0; i < n; i++) {
            float[] c = prism.corners.get(i);
            x[i] = c[0];
            y[i] = c[1];
            z[i] = (int) c[2];
        }
        return Mesh.standing(x, y, z, 0);
    }

    private void lids(Polygon polygon, int from, int to) {
        Geometry triangles = PolygonTriangulator.triangulate(polygon);
        for (int i = 0; i < triangles.getNumGeometries(); i++) {
            Coordinate[] t = triangles.getGeometryN(i).getCoordinates();
            boolean up = Orientation.isCCW(t);
            add(t[0], to, t[up ? 1 : 2], to, t[up ? 2 : 1], to);
            add(t[0], from, t[up ? 2 : 1], from, t[up ? 1 : 2], from);
        }
    }

    /** Rings in normal form run clockwise outside and counter-clockwise round holes: plastic is on the right. */
    private void walls(LineString ring, int from, int to) {
        Coordinate[] c = ring.getCoordinates();
        for (int i = 1; i < c.length; i++) {
            add(c[i], from, c[i - 1], from, c[i - 1], to);
            add(c[i], from, c[i - 1], to, c[i], to);
        }
    }

    private void add(Coordinate a, int za, Coordinate b, int zb, Coordinate c, int zc) {
        corners.add(new float[] {(float) a.x, (float) a.y, za});
        corners.add(new float[] {(float) b.x, (float) b.y, zb});
        corners.add(new float[] {(float) c.x, (float) c.y, zc});
    }
}
