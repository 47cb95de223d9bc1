package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.RayCrossingCounter;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.impl.CoordinateArraySequence;
import org.locationtech.jts.geom.util.GeometryFixer;

/**
 * Fills closed loops: solid is where the winding number is above 0, so that solids which overlap are joined and
 * cavities stay open; or, where facets contradict each other, where a point lies inside an odd number of loops.
 *
 * <p>Loops that do not cross, which is nearly all, are only nested. Those that do are overlaid by JTS.
 */
final class LoopNest {
    private static final double SPECK = 1e-9;

    private LoopNest() {}

    static MultiPolygon fill(List<CoordinateXY[]> loops, boolean insideOut, boolean evenOdd) {
        List<Loop> nest = new ArrayList<>(loops.size());
        for (CoordinateXY[] points : loops) {
            double area = points.length < 4 ? 0 : -Area.ofRingSigned(points);
            if (Math.abs(area) > SPECK) {
                nest.add(new Loop(points, insideOut ? -area : area));
            }
        }
        nest.sort(Comparator.comparingDouble((Loop l) -> -Math.abs(l.area)));
        boolean crossing = false;
        for (int i = 0; i < nest.size() && !crossing; i++) {
            crossing = !nest.get(i).settle(nest.subList(0, i), evenOdd);
        }
        if (!crossing) {
            MultiPolygon outline = assemble(nest);
            if (outline.isValid()) {
                return outline;
            }
        }
        return overlay(nest, evenOdd);
    }

    private static MultiPolygon assemble(List<Loop> nest) {
        for (Loop loop : nest) {
            if (loop.role == Role.HOLE) {
                loop.shell.holes.add(Section.PLANE.createLinearRing(loop.points));
            }
        }
        List<Polygon> polygons = new ArrayList<>();
        for (Loop loop : nest) {
            if (loop.role == Role.SHELL) {
                polygons.add(Section.PLANE.createPolygon(
                        Section.PLANE.createLinearRing(loop.points), loop.holes.toArray(LinearRing[]::new)));
            }
        }
        return Section.PLANE.createMultiPolygon(polygons.toArray(Polygon[]::new));
    }

    private static MultiPolygon overlay(List<Loop> nest, boolean evenOdd) {
        MultiPolygon solid = Areas.NOTHING;
        MultiPolygon hollow = Areas.NOTHING;
        for (Loop loop : nest) {
            MultiPolygon piece = Areas.of(GeometryFixer.fix(Section.PLANE.createPolygon(loop.points)));
            if (evenOdd) {
                solid = Areas.either(solid, piece);
            } else if (loop.area > 0) {
                solid = Areas.union(List.of(solid, piece));
            } else {
                hollow = Areas.union(List.of(hollow, piece));
            }
        }
        return Areas.difference(solid, hollow);
    }

    private enum Role {
        SHELL,
        HOLE,
        INNER
    }

    private static final class Loop {
        final CoordinateXY[] points;
        final double area;
        final Envelope box;
        final List<LinearRing> holes = new ArrayList<>();
        int winding;
        Role role;
        /** The nearest loop round this one that bounds plastic from outside; itself if it does so. */
        Loop shell;

        Loop(CoordinateXY[] points, double area) {
            this.points = points;
            this.area = area;
            this.box = new CoordinateArraySequence(points, 2).expandEnvelope(new Envelope());
        }

        /** Finds what this loop is among the larger ones; false if it crosses its parent. */
        boolean settle(List<Loop> larger, boolean evenOdd) {
            Loop parent = null;
            for (int i = larger.size() - 1; i >= 0 && parent == null; i--) {
                if (larger.get(i).holds(this)) {
                    parent = larger.get(i);
                }
            }
            int outside = parent == null ? 0 : parent.winding;
            winding = outside + (evenOdd ? (outside > 0 ? -1 : 1) : area > 0 ? 1 : -1);
            if (outside <= 0 && winding > 0) {
                role = Role.SHELL;
                shell = this;
                return true;
            }
            shell = parent == null ? null : parent.shell;
            if (outside > 0 && winding <= 0) {
                role = Role.HOLE;
                return true;
            }
            role = Role.INNER;
            return parent == null || parent.holdsAll(this);
        }

        private boolean holds(Loop other) {
            if (!box.covers(other.box)) {
                return false;
            }
            for (Coordinate point : other.points) {
                int where = RayCrossingCounter.locatePointInRing(point, points);
                if (where != Location.BOUNDARY) {
                    return where == Location.INTERIOR;
                }
            }
            return false;
        }

        private boolean holdsAll(Loop other) {
            for (Coordinate point : other.points) {
                if (RayCrossingCounter.locatePointInRing(point, points) == Location.EXTERIOR) {
                    return false;
                }
            }
            return true;
        }
    }
}
