package dev.tranche.app.drawing;

import dev.tranche.core.geometry.Areas;
import java.util.List;
import java.util.stream.Stream;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;

/** Builds the {@code d} of an SVG path in whole hundredths or tenths of a pixel, each line from where the last one ended. */
public final class SvgPath {
    private final StringBuilder d = new StringBuilder();
    /** How many make a pixel. */
    private final int units;

    private long x;
    private long y;

    public SvgPath() {
        this(100);
    }

    private SvgPath(int units) {
        this.units = units;
    }

    /** To a tenth of a pixel, for drawings of many small pieces. */
    public static SvgPath coarse() {
        return new SvgPath(10);
    }

    /** A stretch of a shape: between two heights it reaches from one side to the other, px. */
    public record Step(double bottom, double top, double left, double right) {}

    /** Steps on one another, from the bottom up; those that look alike are drawn as one. */
    public SvgPath stairs(List<Step> steps) {
        move(steps.get(0).left(), steps.get(0).bottom());
        for (int i = 0; i < steps.size(); i++) {
            across(steps.get(i).left());
            if (i + 1 == steps.size() || whole(steps.get(i + 1).left()) != x) {
                along(steps.get(i).top());
            }
        }
        for (int i = steps.size() - 1; i >= 0; i--) {
            across(steps.get(i).right());
            if (i == 0 || whole(steps.get(i - 1).right()) != x) {
                along(steps.get(i).bottom());
            }
        }
        d.append('z');
        return this;
    }

    private void across(double toX) {
        long to = whole(toX);
        if (to != x) {
            d.append('h');
            number(to - x);
            x = to;
        }
    }

    private void along(double toY) {
        long to = whole(toY);
        if (to != y) {
            d.append('v');
            number(to - y);
            y = to;
        }
    }

    public SvgPath rectangle(double left, double top, double width, double height) {
        return stairs(List.of(new Step(top + height, top, left, left + width)));
    }

    public SvgPath move(double toX, double toY) {
        x = whole(toX);
        y = whole(toY);
        d.append('M');
        pair(x, y);
        return this;
    }

    public SvgPath line(double toX, double toY) {
        long nowX = whole(toX);
        long nowY = whole(toY);
        if (nowX != x && nowY != y) {
            d.append('l');
            pair(nowX - x, nowY - y);
            x = nowX;
            y = nowY;
        }
        across(toX);
        along(toY);
        return this;
    }

    /** Polygons with their holes, for the even-odd rule. */
    public SvgPath polygons(MultiPolygon area, Frame frame) {
        rings(area).forEach(ring -> ring(ring, frame));
        return this;
    }

    /**
     * The same without corners finer than so many {@code pixels}; by as much rings may cross, which that rule does not mind, and rings
     * all finer are left out.
     */
    public SvgPath polygons(MultiPolygon area, Frame frame, double pixels) {
        rings(area).forEach(ring -> {
            // Ring by ring: of polygons it looks whether they are valid, even where nobody wants to know.
            DouglasPeuckerSimplifier simplifier = new DouglasPeuckerSimplifier(ring);
            simplifier.setDistanceTolerance(pixels / frame.scaleY());
            if (simplifier.getResultGeometry() instanceof LinearRing simple) {
                ring(simple, frame);
            }
        });
        return this;
    }

    private static Stream<LinearRing> rings(MultiPolygon area) {
        return Areas.polygons(area).filter(p -> !p.isEmpty()).flatMap(Areas::rings);
    }

    private void ring(LineString ring, Frame frame) {
        CoordinateSequence points = ring.getCoordinateSequence();
        move(frame.x(points.getX(0)), frame.y(points.getY(0)));
        for (int i = 1; i < points.size() - 1; i++) {
            line(frame.x(points.getX(i)), frame.y(points.getY(i)));
        }
        d.append('z');
    }

    private long whole(double value) {
        return Math.round(value * units);
    }

    private void pair(long first, long second) {
        number(first);
        if (second >= 0) {
            d.append(' ');
        }
        number(second);
    }

    private void number(long value) {
        if (value < 0) {
            d.append('-');
        }
        long size = Math.abs(value);
        long parts = size % units;
        if (size >= units || parts == 0) {
            d.append(size / units);
        }
        if (parts != 0) {
            d.append('.');
            if (units == 100 && parts < 10) {
                d.append('0');
            }
            d.append(units == 100 && parts % 10 == 0 ? parts / 10 : parts);
        }
    }

    /** To the nearest hundredth, for numbers that stand in a drawing by themselves. */
    public static double hundredths(double value) {
        return Math.rint(value * 100) / 100;
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
