package dev.tranche.core.plate;

import dev.tranche.core.speech.Refusal;
import org.locationtech.jts.algorithm.Angle;
import org.locationtech.jts.geom.util.AffineTransformation;

/**
 * Where a copy stands.
 *
 * @param x of the middle of the model's rectangle, mm on the bed, as {@code y}
 * @param turn degrees against the clock, 0 or more and below 360
 */
public record Spot(double x, double y, double turn) {
    private static final double FARTHEST = 5000;

    public Spot {
        if (!(Math.abs(x) <= FARTHEST && Math.abs(y) <= FARTHEST)) {
            throw Refusal.of("A copy at X %s Y %s mm is on no bed; give millimetres on the bed.", x, y);
        }
        if (!(Math.abs(turn) < 1e6)) {
            throw Refusal.of("A turn of %s degrees is none; give 0 to 360.", turn);
        }
        turn = turn - 360 * Math.floor(turn / 360);
    }

    /** From places round the middle of what stands there to places on the bed. */
    AffineTransformation transformation() {
        AffineTransformation move = AffineTransformation.rotationInstance(Math.toRadians(turn));
        move.translate(x, y);
        return move;
    }

    /** Moved by so much of what stands there, whichever way it is turned. */
    Spot along(double dx, double dy) {
        double cos = Angle.cosSnap(Math.toRadians(turn));
        double sin = Angle.sinSnap(Math.toRadians(turn));
        return by(cos * dx - sin * dy, sin * dx + cos * dy, 0);
    }

    /** Moved and turned by so much. */
    public Spot by(double dx, double dy, double dTurn) {
        return new Spot(x + dx, y + dy, turn + dTurn);
    }
}
