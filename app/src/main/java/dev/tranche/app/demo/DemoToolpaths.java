package dev.tranche.app.demo;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Words;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;

/**
 * A stand-in for a slicing program: two walls and a zigzag on every layer, as plain G-code. For the demo only; it
 * knows nothing of supports, bridges or seams.
 */
final class DemoToolpaths {
    private static final double LINE = 0.45;
    private static final double FILAMENT = Math.PI * 1.75 * 1.75 / 4;

    private final StringBuilder out = new StringBuilder();
    private final double shiftX;
    private final double shiftY;
    private double e;
    private double x;
    private double y;
    private double thickness;

    private DemoToolpaths(double shiftX, double shiftY) {
        this.shiftX = shiftX;
        this.shiftY = shiftY;
    }

    static InputStream stream(String gcode) {
        return new ByteArrayInputStream(gcode.getBytes(StandardCharsets.US_ASCII));
    }

    /** A file that prints {@code model} in the middle of a bed of this size. */
    static String of(CutModel model, double bedWidth, double bedDepth) {
        Coordinate centre = model.footprint().centre();
        DemoToolpaths paths = new DemoToolpaths(bedWidth / 2 - centre.x, bedDepth / 2 - centre.y);
        paths.out.append(
                "; toolpaths of the Fernhollow demo\nM140 S60\nM104 S210\nG28\nM190 S60\nM109 S210\nG90\nM82\nG92 E0\n");
        paths.out.append("G1 Z0.3 F600\nG1 X5 Y5 F7200\nG1 X5 Y80 E4 F1500\nG92 E0\n");
        for (int layer = 1; layer <= model.grid().count(); layer++) {
            paths.thickness = model.grid().thickness(layer).millimetres();
            paths.rise(layer, model.grid().top(layer).toString());
            paths.layer(model.section(layer), layer);
        }
        paths.out.append("M104 S0\nM140 S0\nG1 X0 F7200\nM84\n");
        return paths.out.toString();
    }

    /** The same of a plan in its colours, with a tool for each spool; the loaded one begins each layer. */
    static String of(Colouring colouring, double bedWidth, double bedDepth) {
        CutModel model = colouring.model();
        List<SpoolId> numbering = colouring.plan().numbering();
        Coordinate centre = model.footprint().centre();
        DemoToolpaths paths = new DemoToolpaths(bedWidth / 2 - centre.x, bedDepth / 2 - centre.y);
        paths.out.append(
                "; toolpaths of the Fernhollow demo\nM140 S60\nM104 S210\nG28\nM190 S60\nM109 S210\nG90\nM82\nG92 E0\n");
        SpoolId loaded = null;
        for (int layer = 1; layer <= model.grid().count(); layer++) {
            paths.thickness = model.grid().thickness(layer).millimetres();
            paths.rise(layer, model.grid().top(layer).toString());
            LayerColours colours = colouring.layer(layer);
            List<SpoolId> spools = new ArrayList<>(numbering);
            spools.retainAll(colours.spools());
            if (spools.remove(loaded)) {
                spools.add(0, loaded);
            }
            for (SpoolId spool : spools) {
                if (!spool.equals(loaded)) {
                    paths.out.append("T").append(numbering.indexOf(spool)).append('\n');
                    loaded = spool;
                }
                paths.layer(Section.of(colours.tint(spool).orElseThrow().area(), List.of()), layer);
            }
        }
        paths.out.append("M104 S0\nM140 S0\nG1 X0 F7200\nM84\n");
        return paths.out.toString();
    }

    private void rise(int number, String top) {
        out.append("; layer ").append(number).append("\nG1 Z").append(top).append(" F600\n");
    }

    private void layer(Section section, int number) {
        for (int wall = 0; wall < 2; wall++) {
            Geometry ring = section.outline().buffer(-LINE * (0.5 + wall), 4);
            for (int p = 0; p < ring.getNumGeometries(); p++) {
                if (ring.getGeometryN(p) instanceof Polygon polygon && !polygon.isEmpty()) {
                    trace(polygon.getExteriorRing().getCoordinates());
                    for (int r = 0; r < polygon.getNumInteriorRing(); r++) {
                        trace(polygon.getInteriorRingN(r).getCoordinates());
                    }
                }
            }
        }
        fill(section, number % 2 == 0);
    }

    private void trace(Coordinate[] points) {
        go(points[0].x, points[0].y);
        for (int i = 1; i < points.length; i++) {
            extrude(points[i].x, points[i].y, 1800);
        }
    }

    /** Lines across, from left to right and back, apart by two line widths. */
    private void fill(Section section, boolean offset) {
        var inner = section.outline().buffer(-LINE * 2.2, 2);
        if (!(inner instanceof Polygon || inner instanceof org.locationtech.jts.geom.MultiPolygon) || inner.isEmpty()) {
            return;
        }
        var polygons = inner instanceof Polygon p
                ? inner.getFactory().createMultiPolygon(new Polygon[] {p})
                : (org.locationtech.jts.geom.MultiPolygon) inner;
        Section inside = Section.of(polygons, List.of());
        boolean back = false;
        var box = polygons.getEnvelopeInternal();
        for (double at = box.getMinY() + (offset ? LINE : 0.01); at < box.getMaxY(); at += 2 * LINE) {
            for (Span span : inside.spansAt(at)) {
                go(back ? span.to() : span.from(), at);
                extrude(back ? span.from() : span.to(), at, 3000);
            }
            back = !back;
        }
    }

    private void go(double toX, double toY) {
        boolean far = Math.hypot(toX - x, toY - y) > 2;
        if (far) {
            out.append(Words.format("G1 E%.4f F1800\n", e - 1));
        }
        x = toX;
        y = toY;
        out.append(Words.format("G1 X%.3f Y%.3f F7200\n", x + shiftX, y + shiftY));
        if (far) {
            out.append(Words.format("G1 E%.4f F1800\n", e));
        }
    }

    private void extrude(double toX, double toY, int feed) {
        e += Math.hypot(toX - x, toY - y) * LINE * thickness / FILAMENT;
        x = toX;
        y = toY;
        out.append(Words.format("G1 X%.3f Y%.3f E%.4f F%d\n", x + shiftX, y + shiftY, e, feed));
    }
}
