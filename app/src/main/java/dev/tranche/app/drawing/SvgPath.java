package dev.tranche.app.drawing;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;

/** Builds the {@code d} of an SVG path, to a hundredth of a pixel. */
public final class SvgPath {
    private final StringBuilder d = new StringBuilder();
    private final boolean coarse;

    public SvgPath() {
        this(false);
    }

    private SvgPath(boolean coarse) {
        this.coarse = coarse;
    }

    /** To a tenth of a pixel, for drawings of many small pieces. */
    public static SvgPath coarse() {
        return new SvgPath(true);
    }

    public SvgPath rectangle(double x, double y, double width, double height) {
        at('M', x, y);
        d.append('h');
        number(width);
        d.append('v');
        number(height);
        d.append('h');
        number(-width);
        d.append('z');
        return this;
    }

    public SvgPath move(double x, double y) {
        return at('M', x, y);
    }

    public SvgPath line(double x, double y) {
        return at('L', x, y);
    }

    /** Polygons with their holes, for the even-odd rule. */
    public SvgPath polygons(Geometry geometry, Frame frame) {
        for (int p = 0; p < geometry.getNumGeometries(); p++) {
            if (geometry.getGeometryN(p) instanceof Polygon polygon && !polygon.isEmpty()) {
                ring(polygon.getExteriorRing(), frame);
                for (int r = 0; r < polygon.getNumInteriorRing(); r++) {
                    ring(polygon.getInteriorRingN(r), frame);
                }
            }
        }
        return this;
    }

    private void ring(LineString ring, Frame frame) {
        Coordinate[] points = ring.getCoordinates();
        for (int i = 0; i < points.length - 1; i++) {
            at(i == 0 ? 'M' : 'L', frame.x(points[i].x), frame.y(points[i].y));
        }
        d.append('z');
    }

    private SvgPath at(char command, double x, double y) {
        d.append(command);
        number(x);
        d.append(' ');
        number(y);
        return this;
    }

    private void number(double value) {
        d.append(round(coarse ? Math.rint(value * 10) / 10 : value));
    }

    /** To hundredths, without a needless “.0”. */
    public static String round(double value) {
        long hundredths = Math.round(value * 100);
        if (hundredths % 100 == 0) {
            return Long.toString(hundredths / 100);
        }
        return Double.toString(hundredths / 100.0);
    }

    @Override
    public String toString() {
        return d.toString();
    }
}
