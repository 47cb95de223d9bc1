package dev.tranche.core.geometry;

import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Areas raised to solids with upright walls. Each is closed: lids and walls have the same corners, since a lid is cut
 * into triangles without new ones.
 */
public final class Prism {
    private final float[] x;
    private final float[] y;
    private final int[] z;
    private int corners;

    private Prism(int corners) {
        x = new float[corners];
        y = new float[corners];
        z = new int[corners];
    }

    /** One solid for each polygon of {@code area}. */
    public static List<Mesh> of(MultiPolygon area, Height from, Height to) {
        List<Mesh> solids = new ArrayList<>();
        for (int i = 0; i < area.getNumGeometries(); i++) {
            solids.add(of((Polygon) area.getGeometryN(i).norm(), from.micrometres(), to.micrometres()));
        }
        return solids;
    }

    private static Mesh of(Polygon polygon, int from, int to) {
        Coordinate[] lid = Triangles.of(polygon);
        int edges = polygon.getNumPoints() - 1 - polygon.getNumInteriorRing();
        Prism prism = new Prism(2 * lid.length + 6 * edges);
        prism.lids(lid, from, to);
        Areas.rings(polygon).forEach(ring -> prism.walls(ring, from, to));
        return Mesh.standing(prism.x, prism.y, prism.z, 0);
    }

    private void lids(Coordinate[] lid, int from, int to) {
        for (int i = 0; i < lid.length; i += 3) {
            add(lid[i], to, lid[i + 1], to, lid[i + 2], to);
            add(lid[i], from, lid[i + 2], from, lid[i + 1], from);
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
        add(a, za);
        add(b, zb);
        add(c, zc);
    }

    private void add(Coordinate corner, int height) {
        x[corners] = (float) corner.x;
        y[corners] = (float) corner.y;
        z[corners++] = height;
    }
}
