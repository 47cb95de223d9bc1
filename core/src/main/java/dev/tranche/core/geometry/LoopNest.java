package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.RayCrossingCounter;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateArrays;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.impl.CoordinateArraySequence;
import org.locationtech.jts.index.hprtree.HPRtree;

/**
 * Fills closed loops: solid is where the winding number is above 0, so that solids which overlap are joined and
 * cavities stay open; or, where facets contradict each other, where a point lies inside an odd number of loops.
 *
 * <p>Loops that do not cross, which is nearly all, are only nested. Those that do, and nests too deep to look
 * through one by one, are arranged by {@link Arrangement}.
 */
final class LoopNest {
    private static final double SPECK = 1e-9;
    /** From here on an index finds what may lie round a loop. */
    private static final int MANY = 40;
    /** Corners and boxes looked at in one section, before arranging all of it is less work. */
    private static final long WORTH = 4_000_000;

    private final List<Loop> loops = new ArrayList<>();
    private final boolean insideOut;
    private final boolean evenOdd;
    private final Arrangement.Rule rule;

    /**
     * @param opened whether loops were closed by straight lines, which may have turned parts of them round
     */
    LoopNest(List<CoordinateXY[]> loops, boolean insideOut, boolean evenOdd, boolean opened) {
        this.insideOut = insideOut;
        this.evenOdd = evenOdd;
        rule = evenOdd ? Arrangement.Rule.EVEN_ODD : opened ? Arrangement.Rule.NONZERO : Arrangement.Rule.POSITIVE;
        for (CoordinateXY[] points : loops) {
            double area = points.length < 4 ? 0 : -Area.ofRingSigned(points);
            if (Math.abs(area) > SPECK) {
                this.loops.add(new Loop(points, insideOut ? -area : area));
            }
        }
        this.loops.sort(Comparator.comparingDouble((Loop l) -> -Math.abs(l.area)));
    }

    /** What they fill; nothing if some cross, or it is too much work to tell. */
    Optional<MultiPolygon> nested(Effort effort) {
        return settle(loops, evenOdd, effort) ? assemble(loops, effort) : Optional.empty();
    }

    /** Only counts what {@link #arranged} will have to do, at a fraction of its cost. */
    void foresee(Effort effort) {
        Arrangement.foresee(corners(), effort);
    }

    /** What they fill, wherever they cross. */
    MultiPolygon arranged(Effort effort) {
        return Arrangement.fill(corners(), rule, effort);
    }

    private List<CoordinateXY[]> corners() {
        return loops.stream().map(l -> insideOut ? turned(l.points) : l.points).toList();
    }

    /** Finds what each loop is among the larger ones; false if some cross, or it is too much work to tell. */
    private static boolean settle(List<Loop> nest, boolean evenOdd, Effort effort) {
        Budget budget = new Budget();
        if (nest.size() <= MANY) {
            for (int i = 0; i < nest.size(); i++) {
                if (!nest.get(i).settle(nest, i, evenOdd, budget)) {
                    return false;
                }
            }
            return true;
        }
        HPRtree boxes = new HPRtree();
        for (int i = 0; i < nest.size(); i++) {
            nest.get(i).rank = i;
            boxes.insert(nest.get(i).box, nest.get(i));
        }
        for (Loop loop : nest) {
            effort.step();
            List<Loop> round = new ArrayList<>();
            loop.alone = true;
            boxes.query(loop.box, item -> {
                Loop other = (Loop) item;
                budget.spend(1);
                loop.alone &= other == loop;
                if (other.rank < loop.rank && other.box.covers(loop.box)) {
                    round.add(other);
                }
            });
            round.sort(Comparator.comparingInt(l -> l.rank));
            if (!budget.spend(0) || !loop.settle(round, round.size(), evenOdd, budget)) {
                return false;
            }
        }
        return true;
    }

    private static CoordinateXY[] turned(CoordinateXY[] points) {
        CoordinateXY[] turned = points.clone();
        CoordinateArrays.reverse(turned);
        return turned;
    }

    /** How much may be looked at before it is given up. */
    private static final class Budget {
        private long left = WORTH;

        boolean spend(long looks) {
            left -= looks;
            return left >= 0;
        }
    }

    /** What they bound, unless some cross; of what stands alone, each is looked at for itself. */
    private static Optional<MultiPolygon> assemble(List<Loop> nest, Effort effort) {
        for (Loop loop : nest) {
            if (loop.role == Role.HOLE) {
                loop.shell.holes.add(Section.PLANE.createLinearRing(loop.points));
            }
        }
        List<Polygon> polygons = new ArrayList<>();
        List<Polygon> together = new ArrayList<>();
        for (Loop loop : nest) {
            if (loop.role == Role.SHELL) {
                Polygon polygon = Section.PLANE.createPolygon(
                        Section.PLANE.createLinearRing(loop.points), loop.holes.toArray(LinearRing[]::new));
                polygons.add(polygon);
                if (!loop.alone) {
                    together.add(polygon);
                } else if (!polygon.isValid()) {
                    return Optional.empty();
                }
                effort.step();
            }
        }
        return joined(together).isValid() ? Optional.of(joined(polygons)) : Optional.empty();
    }

    private static MultiPolygon joined(List<Polygon> polygons) {
        return Section.PLANE.createMultiPolygon(polygons.toArray(Polygon[]::new));
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
        /** Place among all loops, the largest first. */
        int rank;
        /** Whether its box is known to meet no other's. */
        boolean alone;

        Role role;
        /** The nearest loop round this one that bounds plastic from outside; itself if it does so. */
        Loop shell;

        Loop(CoordinateXY[] points, double area) {
            this.points = points;
            this.area = area;
            this.box = new CoordinateArraySequence(points, 2).expandEnvelope(new Envelope());
        }

        /** Finds what this loop is among the first {@code count}, larger ones; false if it crosses its parent. */
        boolean settle(List<Loop> larger, int count, boolean evenOdd, Budget budget) {
            Loop parent = null;
            for (int i = count - 1; i >= 0 && parent == null; i--) {
                if (larger.get(i).box.covers(box)) {
                    if (!budget.spend(larger.get(i).points.length)) {
                        return false;
                    }
                    parent = larger.get(i).holds(this) ? larger.get(i) : null;
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
            return parent == null
                    || budget.spend((long) points.length * parent.points.length / 8) && parent.holdsAll(this);
        }

        private boolean holds(Loop other) {
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
