package dev.tranche.core.geometry;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * A straight line through the plane: where it begins, and its step, by which places on it are counted.
 *
 * @param x mm, as {@code y}
 * @param dx mm for one step, as {@code dy}; not both 0
 */
public record Course(double x, double y, double dx, double dy) {
    public Course {
        if (dx == 0 && dy == 0) {
            throw new IllegalArgumentException("a line without direction at " + x + ", " + y);
        }
    }

    /** From one place to another, which is one step away. */
    public static Course between(Coordinate from, Coordinate to) {
        return new Course(from.x, from.y, to.x - from.x, to.y - from.y);
    }

    /** Parallel to the X axis, counted in mm of X. */
    static Course level(double y) {
        return new Course(0, y, 1, 0);
    }

    /** How long a step is, mm. */
    public double length() {
        return Math.sqrt(dx * dx + dy * dy);
    }

    public Coordinate at(double steps) {
        return new Coordinate(x + steps * dx, y + steps * dy);
    }

    /** Above 0 to the left of it, below to the right. */
    double side(Coordinate c) {
        return side(c.x, c.y);
    }

    /** As {@link #side(Coordinate)}, of a place given by its coordinates, mm. */
    double side(double ofX, double ofY) {
        return dx * (ofY - y) - dy * (ofX - x);
    }

    /** Where the place on it nearest to {@code c} is. */
    double steps(Coordinate c) {
        return steps(c.x, c.y);
    }

    /** As {@link #steps(Coordinate)}, of a place given by its coordinates, mm. */
    double steps(double ofX, double ofY) {
        return ((ofX - x) * dx + (ofY - y) * dy) / (dx * dx + dy * dy);
    }

    /** Whether a rectangle lies wholly to one side of it. */
    boolean misses(Envelope box) {
        double across = Math.abs(dx) * box.getHeight() / 2 + Math.abs(dy) * box.getWidth() / 2;
        double middle = dx * ((box.getMinY() + box.getMaxY()) / 2 - y) - dy * ((box.getMinX() + box.getMaxX()) / 2 - x);
        return Math.abs(middle) > across;
    }
}
