package dev.tranche.core.coat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Follows the rims of an area made of squares, which lies to the left of the way. Squares that share a corner and no side do not
 * hang together; a rim that comes by a corner twice is two that touch there, as simple features want it (OGC 06-103r4, 6.1.11).
 *
 * <p>A corner has the number of the square that it is the lower left corner of. Headings are quarter turns to the left, from the
 * east.
 */
final class Rims {
    private static final int EAST = 0;

    private final Lattice lattice;
    private final boolean[] area;
    private final int columns;
    /** From a corner to the next, by heading. */
    private final int[] steps;
    /** From a corner to the square on the left of a way that leaves it, by heading. */
    private final int[] lefts;

    /** Squares whose lower side was followed. */
    private final boolean[] followed;
    /** Of squares with a rim on their left, its place among all rims. */
    private final int[] rimOnLeft;
    /** Each by its corners. */
    private final List<int[]> rims = new ArrayList<>();

    private int[] path = new int[64];
    private int length;

    private Rims(Lattice lattice, boolean[] area) {
        this.lattice = lattice;
        this.area = area;
        columns = lattice.columns();
        steps = new int[] {1, columns, -1, -columns};
        lefts = new int[] {0, -1, -columns - 1, -columns};
        followed = new boolean[area.length];
        rimOnLeft = new int[area.length];
    }

    /**
     * @param area of a lattice's squares, none of its outermost ring
     * @return in mm, with a corner only where the rim turns
     */
    static MultiPolygon of(Lattice lattice, boolean[] area) {
        return new Rims(lattice, area).polygons();
    }

    private MultiPolygon polygons() {
        int end = area.length - columns;
        for (int below = Lattice.change(area, 0, end, columns);
                below < end;
                below = Lattice.change(area, below + 1, end, columns)) {
            if (!area[below] && !followed[below + columns]) {
                follow(below + columns);
            }
        }
        GeometryFactory plane = new GeometryFactory();
        Map<Integer, LinearRing> shells = new TreeMap<>();
        Map<Integer, List<LinearRing>> holes = new HashMap<>();
        int[] outer = outer();
        for (int i = 0; i < outer.length; i++) {
            LinearRing ring = plane.createLinearRing(coordinates(rims.get(i)));
            if (outer[i] == i) {
                shells.put(i, ring);
            } else {
                holes.computeIfAbsent(outer[i], shell -> new ArrayList<>()).add(ring);
            }
        }
        return plane.createMultiPolygon(shells.entrySet().stream()
                .map(s -> plane.createPolygon(
                        s.getValue(), holes.getOrDefault(s.getKey(), List.of()).toArray(LinearRing[]::new)))
                .toArray(Polygon[]::new));
    }

    /** Along a square's lower side, which is rim, and on until there again. */
    private void follow(int square) {
        Map<Integer, Integer> touched = new HashMap<>();
        length = 0;
        int at = square;
        int heading = EAST;
        do {
            if (heading == EAST) {
                followed[at] = true;
            }
            at += steps[heading];
            int turn = turn(at, heading);
            if (turn != 0) {
                Integer before = touches(at) ? touched.put(at, length) : null;
                if (before != null) {
                    for (int i = before + 1; i < length; i++) {
                        touched.remove(path[i]);
                    }
                    touched.put(at, before);
                    part(before);
                }
                push(at);
            }
            heading = heading + turn & 3;
        } while (at != square || heading != EAST);
        part(0);
    }

    /** By how many quarters a rim turns left in a corner. */
    private int turn(int at, int heading) {
        if (!area[at + lefts[heading]]) {
            return 1;
        }
        return area[at + lefts[heading + 3 & 3]] ? -1 : 0;
    }

    /** Whether two squares of the area meet there and share no side. */
    private boolean touches(int at) {
        return area[at] == area[at - columns - 1] && area[at - 1] == area[at - columns] && area[at] != area[at - 1];
    }

    private void push(int corner) {
        if (length == path.length) {
            path = Arrays.copyOf(path, 2 * length);
        }
        path[length++] = corner;
    }

    /** Takes what was followed since a corner, and ends there, as a rim of its own. */
    private void part(int from) {
        int[] rim = Arrays.copyOfRange(path, from, length);
        for (int i = 0; i < rim.length; i++) {
            int below = rim[(i + 1) % rim.length];
            for (int at = rim[i] - columns; at >= below; at -= columns) {
                rimOnLeft[at] = rims.size();
            }
        }
        rims.add(rim);
        length = from;
    }

    private Coordinate[] coordinates(int[] rim) {
        Coordinate[] ring = new Coordinate[rim.length + 1];
        for (int i = 0; i < ring.length; i++) {
            int corner = rim[i % rim.length];
            ring[i] = new Coordinate(lattice.x(corner % columns), lattice.y(corner / columns));
        }
        return ring;
    }

    /** Whether the area lies round a rim, which then goes clockwise. */
    private boolean isHole(int[] rim) {
        long twice = 0;
        for (int i = 0; i < rim.length; i++) {
            int next = rim[(i + 1) % rim.length];
            twice += (long) (rim[i] % columns) * (next / columns) - (long) (next % columns) * (rim[i] / columns);
        }
        return twice < 0;
    }

    /** Of each rim the one round all that it is in, itself if it is no hole. */
    private int[] outer() {
        int[] outer = new int[rims.size()];
        for (int i = 0; i < outer.length; i++) {
            outer[i] = isHole(rims.get(i)) ? westward(rims.get(i)) : i;
        }
        for (int i = 0; i < outer.length; i++) {
            while (outer[outer[i]] != outer[i]) {
                outer[i] = outer[outer[i]];
            }
        }
        return outer;
    }

    /** The next rim from a hole, through the area. */
    private int westward(int[] hole) {
        int at = westOf(hole);
        while (area[at - 1]) {
            at--;
        }
        return rimOnLeft[at];
    }

    /** A square of the area west of all of a hole; its rim goes clockwise, and so northward there. */
    private int westOf(int[] hole) {
        int west = -1;
        for (int i = 0; i < hole.length; i++) {
            boolean north = (hole[(i + 1) % hole.length] - hole[i]) / columns > 0;
            if (north && (west < 0 || hole[i] % columns < west % columns)) {
                west = hole[i];
            }
        }
        return west - 1;
    }
}
