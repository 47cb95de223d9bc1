package dev.tranche.app.stored;

import dev.tranche.core.machine.Point;

/** A place on the bed, mm. */
record Spot(double x, double y) {

    static Spot of(Point p) {
        return new Spot(p.x(), p.y());
    }

    public Point point() {
        return new Point(x, y);
    }
}
