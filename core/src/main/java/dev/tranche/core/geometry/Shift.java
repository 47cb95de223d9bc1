package dev.tranche.core.geometry;

import dev.tranche.core.speech.Refusal;
import org.locationtech.jts.algorithm.Angle;

/**
 * By how much a solid is moved from where its file has it: turned about the upright through its middle, then moved.
 *
 * @param x mm as the model is placed, as {@code y}
 * @param z mm upwards
 * @param turn degrees against the clock seen from above, 0 or more and below 360
 */
public record Shift(double x, double y, double z, double turn) {
    public static final Shift NONE = new Shift(0, 0, 0);

    private static final double FARTHEST = 5000;

    public Shift {
        for (double mm : new double[] {x, y, z}) {
            if (!(Math.abs(mm) <= FARTHEST)) {
                throw Refusal.of("A part cannot be moved by %s mm; give at most %.0f mm.", mm, FARTHEST);
            }
        }
        if (!(Math.abs(turn) < 1e6)) {
            throw Refusal.of("A turn of %s degrees is none; give 0 to 360.", turn);
        }
        turn = turn - 360 * Math.floor(turn / 360);
    }

    /** Not turned. */
    public Shift(double x, double y, double z) {
        this(x, y, z, 0);
    }

    /** Moved and turned by so much more. */
    public Shift by(Shift more) {
        return new Shift(x + more.x, y + more.y, z + more.z, turn + more.turn);
    }

    /** Turned as much, and not moved. */
    public Shift onTheSpot() {
        return new Shift(0, 0, 0, turn);
    }

    /** As the same move is in a model that was scaled by that factor and turned by so many degrees. */
    public Shift along(double factor, double degrees) {
        double cos = factor * Angle.cosSnap(Math.toRadians(degrees));
        double sin = factor * Angle.sinSnap(Math.toRadians(degrees));
        return new Shift(cos * x - sin * y, sin * x + cos * y, factor * z, turn);
    }
}
