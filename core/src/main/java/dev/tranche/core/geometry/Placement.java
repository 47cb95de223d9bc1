package dev.tranche.core.geometry;

import dev.tranche.core.speech.Refusal;
import org.locationtech.jts.algorithm.Angle;

/**
 * How a model is scaled and which way it lies: scaled along its own axes, then tipped so that the direction
 * {@code downX downY downZ} of the model points at the bed, then turned about the upright.
 *
 * @param scaleX factor along the model's X, as {@code scaleY} and {@code scaleZ}
 * @param downX of the direction that is to face the bed, a unit vector of the scaled model
 * @param turn degrees, counter-clockwise seen from above
 * @param lift mm by which it is held above the bed
 */
public record Placement(
        double scaleX,
        double scaleY,
        double scaleZ,
        double downX,
        double downY,
        double downZ,
        double turn,
        double lift) {
    /** Longer than this, mm, nothing is printed in one piece. */
    public static final double BEYOND_ANY_BED = 1000;

    private static final double MOST_BEDS = 300;
    private static final double SMALLEST = 0.001;

    /** As the file has it. */
    public static final Placement AS_IS = new Placement(1, 1, 1, 0, 0, -1, 0, 0);

    public Placement {
        scale(scaleX);
        scale(scaleY);
        scale(scaleZ);
        double length = Math.sqrt(downX * downX + downY * downY + downZ * downZ);
        if (!(Math.abs(length - 1) < 1e-6)) {
            throw new IllegalArgumentException("down is a unit vector, not of length " + length);
        }
        if (!(Math.abs(turn) <= 360)) {
            throw Refusal.of("A turn of %s° is out of range; give −360 to 360.", turn);
        }
        if (!(lift >= 0 && lift <= 1000)) {
            throw Refusal.of("A lift of %s mm is out of range; give 0 to 1000.", lift);
        }
    }

    private static void scale(double factor) {
        if (!(factor >= SMALLEST && factor <= 1000)) {
            throw Refusal.of("A scale of %s is out of range; give 0.001 to 1000, 1 being as it is.", factor);
        }
    }

    /**
     * As a plan begins: what no bed holds, being of something real or told in another unit, a tenth as large, or a hundredth,
     * and so on, until it is no longer than most beds.
     *
     * @param longest side of the model, mm
     */
    public Placement toBeHeldByABed(double longest) {
        if (!(longest > BEYOND_ANY_BED)) {
            return this;
        }
        double tenths = Math.max(SMALLEST, Math.pow(10, -Math.ceil(Math.log10(longest / MOST_BEDS))));
        return scaled(tenths, tenths, tenths);
    }

    public Placement scaled(double x, double y, double z) {
        return new Placement(x, y, z, downX, downY, downZ, turn, lift);
    }

    public Placement turned(double degrees) {
        return new Placement(scaleX, scaleY, scaleZ, downX, downY, downZ, degrees, lift);
    }

    public Placement lifted(double mm) {
        return new Placement(scaleX, scaleY, scaleZ, downX, downY, downZ, turn, mm);
    }

    /** Laid on the side that now looks in the given direction of the model; need not be of length 1. */
    public Placement layingDown(double x, double y, double z) {
        double length = Math.sqrt(x * x + y * y + z * z);
        if (!(length > 1e-9)) {
            throw new Refusal("That face looks nowhere; choose another.");
        }
        return new Placement(scaleX, scaleY, scaleZ, x / length, y / length, z / length, turn, lift);
    }

    /** Laid on the side that looks in the given direction as the model lies now; need not be of length 1. */
    public Placement layingOn(double x, double y, double z) {
        double[] r = scaled(1, 1, 1).matrix();
        return layingDown(
                r[0] * x + r[3] * y + r[6] * z, r[1] * x + r[4] * y + r[7] * z, r[2] * x + r[5] * y + r[8] * z);
    }

    /** Turned upside down: for face-down work. */
    public Placement flipped() {
        return new Placement(scaleX, scaleY, scaleZ, -downX, -downY, -downZ, turn, lift);
    }

    public boolean liesAs(Placement other) {
        return downX == other.downX && downY == other.downY && downZ == other.downZ;
    }

    public boolean scalesEvenly() {
        return scaleX == scaleY && scaleY == scaleZ;
    }

    /**
     * The 3 × 3 matrix, row by row, by which corners are multiplied: exact for the six sides of a box.
     */
    double[] matrix() {
        double[] tip = tip();
        double radians = Math.toRadians(turn);
        double c = Angle.cosSnap(radians);
        double s = Angle.sinSnap(radians);
        double[] scale = {scaleX, scaleY, scaleZ};
        double[] m = new double[9];
        for (int column = 0; column < 3; column++) {
            m[column] = (c * tip[column] - s * tip[3 + column]) * scale[column];
            m[3 + column] = (s * tip[column] + c * tip[3 + column]) * scale[column];
            m[6 + column] = tip[6 + column] * scale[column];
        }
        return m;
    }

    /**
     * The rotation that takes down to −Z about the axis between them, by Rodrigues' formula; half a turn about X
     * where down points straight up.
     */
    private double[] tip() {
        double cos = -downZ;
        if (cos > 1 - 1e-12) {
            return new double[] {1, 0, 0, 0, 1, 0, 0, 0, 1};
        }
        if (cos < -1 + 1e-12) {
            return new double[] {1, 0, 0, 0, -1, 0, 0, 0, -1};
        }
        // axis = down × (0, 0, −1) = (−downY, downX, 0), of length sin
        double kx = -downY;
        double ky = downX;
        double f = 1 / (1 + cos);
        return new double[] {cos + kx * kx * f, kx * ky * f, ky, kx * ky * f, cos + ky * ky * f, -kx, -ky, kx, cos};
    }
}
