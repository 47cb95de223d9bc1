package dev.tranche.app.demo;

import dev.tranche.core.geometry.Mesh;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;

/** The models of Fernhollow's open day, made by code. */
final class DemoShapes {
    private static final GeometryFactory PLANE = new GeometryFactory();

    private DemoShapes() {}

    /** A label on a stake for a row of vegetables: base to 2.0, rim to 2.6, name to 3.2 mm. */
    static Mesh rowMarker(String name) {
        Geometry label = PLANE.toGeometry(new Envelope(3, 65, 61, 79)).buffer(3, 8);
        Geometry stake = PLANE.createPolygon(new Coordinate[] {
            new Coordinate(29, 59),
            new Coordinate(31.5, 8),
            new Coordinate(34, 0),
            new Coordinate(36.5, 8),
            new Coordinate(39, 59),
            new Coordinate(29, 59)
        });
        Geometry base = label.union(stake);
        Geometry rim = label.buffer(-0.6).difference(label.buffer(-2.2));
        Geometry letters = Lettering.word(name, 34, 70, 11, 1.9);
        return new SteppedSolid(base, 2.0)
                .raise(rim.union(letters), 2.6)
                .raise(letters, 3.2)
                .mesh();
    }

    /** Hollin Hill as a relief tile of 60 mm: a pond at 1.6 mm, the top near 8 mm. */
    static Mesh hollinHill() {
        int n = 96;
        double pitch = 60.0 / n;
        List<float[]> corners = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                float[] a = ground(i, j, pitch);
                float[] b = ground(i + 1, j, pitch);
                float[] c = ground(i + 1, j + 1, pitch);
                float[] d = ground(i, j + 1, pitch);
                corners.addAll(List.of(a, b, c, a, c, d));
            }
        }
        float[] middle = {30, 30, 0};
        for (int k = 0; k < n; k++) {
            side(corners, ground(k, 0, pitch), ground(k + 1, 0, pitch), middle);
            side(corners, ground(n, k, pitch), ground(n, k + 1, pitch), middle);
            side(corners, ground(k + 1, n, pitch), ground(k, n, pitch), middle);
            side(corners, ground(0, k + 1, pitch), ground(0, k, pitch), middle);
        }
        return MeshBuilder.of(corners);
    }

    /** A wall below an edge of the ground, and the slice of the underside that belongs to it. */
    private static void side(List<float[]> corners, float[] from, float[] to, float[] middle) {
        float[] under = {from[0], from[1], 0};
        float[] underTo = {to[0], to[1], 0};
        corners.addAll(List.of(under, underTo, to, under, to, from, underTo, under, middle));
    }

    private static float[] ground(int i, int j, double pitch) {
        double x = i * pitch;
        double y = j * pitch;
        double hill = 6.6 * bump(x, y, 35, 37, 15) + 3.0 * bump(x, y, 17, 46, 10) + 2.2 * bump(x, y, 48, 20, 9);
        double pond = 3.2 * bump(x, y, 17, 15, 9);
        // Below a few hundredths the ground is level: a meadow, not a slope nobody sees.
        double land = 2.5 + Math.max(0, hill - 0.06) - Math.max(0, pond - 0.06);
        return new float[] {(float) x, (float) y, (float) Math.max(1.6, land)};
    }

    private static double bump(double x, double y, double atX, double atY, double width) {
        double dx = (x - atX) / width;
        double dy = (y - atY) / width;
        return Math.exp(-(dx * dx + dy * dy));
    }
}
