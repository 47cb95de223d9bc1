package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import org.locationtech.jts.geom.Envelope;

/**
 * How far the nozzle can go, mm; often a little beyond the bed. On a round bed it is the oval within.
 *
 * @param minX as {@code maxX}, {@code minY} and {@code maxY}, in the coordinates of the bed
 */
public record Travel(double minX, double maxX, double minY, double maxY) {
    private static final double TOLERANCE = 0.1;

    public Travel {
        if (!(minX < maxX && minY < maxY && minX >= -3000 && maxX <= 6000 && minY >= -3000 && maxY <= 6000)) {
            throw Refusal.of(
                    "Travel from X %s to %s and Y %s to %s cannot be; the low end must be below the high one.",
                    minX, maxX, minY, maxY);
        }
    }

    /** As far as the bed goes. */
    public static Travel over(Bed bed) {
        var b = bed.bounds();
        return new Travel(b.getMinX(), b.getMaxX(), b.getMinY(), b.getMaxY());
    }

    public double low(Axis axis) {
        return axis == Axis.X ? minX : minY;
    }

    public double high(Axis axis) {
        return axis == Axis.X ? maxX : maxY;
    }

    /** Whether all of {@code box} is between its ends, to a tenth of a millimetre; an empty one is. */
    public boolean covers(Envelope box) {
        Envelope reach = new Envelope(minX, maxX, minY, maxY);
        reach.expandBy(TOLERANCE);
        return box.isNull() || reach.covers(box);
    }

    boolean reaches(Point p, Bed bed) {
        if (bed instanceof Bed.Round) {
            double x = (p.x() - (minX + maxX) / 2) / ((maxX - minX) / 2);
            double y = (p.y() - (minY + maxY) / 2) / ((maxY - minY) / 2);
            return x * x + y * y <= 1 + 1e-9;
        }
        return p.x() >= minX && p.x() <= maxX && p.y() >= minY && p.y() <= maxY;
    }
}
