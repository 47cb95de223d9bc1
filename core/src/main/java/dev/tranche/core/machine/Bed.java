package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import org.locationtech.jts.geom.Envelope;

/** The surface that is printed on, mm. Its origin is where the firmware says X0 Y0 is. */
public sealed interface Bed {
    boolean contains(Point point);

    /** The rectangle round the bed. */
    Envelope bounds();

    /** Its size. */
    double squareMillimetres();

    /** A bed of {@code width} by {@code depth}, origin at its front left corner. */
    record Rectangular(double width, double depth) implements Bed {
        public Rectangular {
            check("width", width);
            check("depth", depth);
        }

        @Override
        public boolean contains(Point p) {
            return p.x() >= 0 && p.x() <= width && p.y() >= 0 && p.y() <= depth;
        }

        @Override
        public Envelope bounds() {
            return new Envelope(0, width, 0, depth);
        }

        @Override
        public double squareMillimetres() {
            return width * depth;
        }
    }

    /** A round bed, origin in its middle. */
    record Round(double diameter) implements Bed {
        public Round {
            check("diameter", diameter);
        }

        @Override
        public boolean contains(Point p) {
            return Math.hypot(p.x(), p.y()) <= diameter / 2;
        }

        @Override
        public Envelope bounds() {
            return new Envelope(-diameter / 2, diameter / 2, -diameter / 2, diameter / 2);
        }

        @Override
        public double squareMillimetres() {
            return Math.PI * diameter * diameter / 4;
        }
    }

    private static void check(String what, double millimetres) {
        if (!(millimetres >= 20 && millimetres <= 3000)) {
            throw Refusal.of("A bed %s of %s mm cannot be; give 20 to 3000 mm.", what, millimetres);
        }
    }
}
