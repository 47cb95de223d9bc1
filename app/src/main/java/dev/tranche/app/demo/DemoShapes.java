package dev.tranche.app.demo;

import dev.tranche.core.geometry.Mesh;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.AffineTransformation;

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

    /** A tag for the key of the tool shed, with a hole for the string: 3 mm thick. */
    static Mesh shedTag() {
        Geometry tag = PLANE.toGeometry(new Envelope(5, 67, 5, 29)).buffer(5, 8);
        Geometry hole = PLANE.createPoint(new Coordinate(8, 17)).buffer(2.6, 16);
        return new SteppedSolid(tag.difference(hole), 3.0).mesh();
    }

    /** What is inlaid into the tag's face: the word and a line under it. */
    static Geometry shedFace() {
        Geometry word = Lettering.word("SHED", 0, 2, 13, 2.4);
        Geometry line = PLANE.toGeometry(new Envelope(-21, 21, -9.5, -7.5)).buffer(0.4, 4);
        return word.union(line);
    }

    /**
     * A round panel for the greenhouse window, 80 mm across: three leaves and what lies between them, each pane a solid
     * of its own, in leading that stands higher.
     */
    static List<Pane> leafPanel() {
        Geometry disc = PLANE.createPoint(new Coordinate(40, 40)).buffer(40, 48);
        Geometry inner = PLANE.createPoint(new Coordinate(40, 40)).buffer(36.5, 48);
        Geometry leaves = PLANE.createPolygon();
        Geometry lines = PLANE.createLineString(new Coordinate[] {new Coordinate(40, 2), new Coordinate(40, 40)});
        for (double angle : new double[] {90, 205, 335}) {
            Geometry leaf = leaf(angle);
            lines = lines.union(leaf.getBoundary()).union(line(angle, 0, 33)).union(line(angle, 31, 38));
            leaves = leaves.union(leaf);
        }
        Geometry leading = disc.difference(inner).union(lines.buffer(0.8, 4).intersection(disc));
        Geometry panes = inner.difference(leading);
        List<Pane> all = new ArrayList<>();
        all.add(new Pane("Leading", false, new SteppedSolid(leading, 1.6).mesh()));
        for (int i = 0; i < panes.getNumGeometries(); i++) {
            Geometry pane = panes.getGeometryN(i);
            if (pane.getArea() > 2) {
                boolean green = leaves.contains(pane.getInteriorPoint());
                all.add(new Pane(green ? "Leaf" : "Sky", green, new SteppedSolid(pane, 0.6).mesh()));
            }
        }
        return all;
    }

    /** A piece of the panel. */
    record Pane(String name, boolean green, Mesh mesh) {}

    /** What two discs share, pointing outwards from the middle. */
    private static Geometry leaf(double angle) {
        Geometry upright = PLANE.createPoint(new Coordinate(-13, 17))
                .buffer(21, 32)
                .intersection(PLANE.createPoint(new Coordinate(13, 17)).buffer(21, 32));
        return new AffineTransformation()
                .rotate(Math.toRadians(angle - 90))
                .translate(40, 40)
                .transform(upright);
    }

    private static Geometry line(double angle, double from, double to) {
        double c = Math.cos(Math.toRadians(angle));
        double s = Math.sin(Math.toRadians(angle));
        return PLANE.createLineString(
                new Coordinate[] {new Coordinate(40 + from * c, 40 + from * s), new Coordinate(40 + to * c, 40 + to * s)
                });
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

    /** A pot for the potting bench, 56 mm high, with a rim and a hole in its floor: walls of 2.4 mm. */
    static Mesh pot() {
        float[][] profile = {
            {5, 0},
            {22, 0},
            {28.2f, 46},
            {31, 48},
            {31, 56},
            {28.6f, 56},
            {28.6f, 49.5f},
            {25.9f, 47},
            {20, 2.4f},
            {5, 2.4f}
        };
        int sides = 72;
        List<float[]> corners = new ArrayList<>();
        for (int p = 0; p < profile.length; p++) {
            float[] from = profile[p];
            float[] to = profile[(p + 1) % profile.length];
            for (int i = 0; i < sides; i++) {
                float[] a = turned(from, i, sides);
                float[] b = turned(from, i + 1, sides);
                float[] c = turned(to, i + 1, sides);
                float[] d = turned(to, i, sides);
                corners.addAll(List.of(a, b, c, a, c, d));
            }
        }
        return MeshBuilder.of(corners);
    }

    private static float[] turned(float[] radiusAndHeight, int side, int sides) {
        double angle = 2 * Math.PI * (side % sides) / sides;
        double r = radiusAndHeight[0];
        return new float[] {(float) (32 + r * Math.cos(angle)), (float) (32 + r * Math.sin(angle)), radiusAndHeight[1]};
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
