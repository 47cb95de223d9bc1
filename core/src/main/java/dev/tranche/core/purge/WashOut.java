package dev.tranche.core.purge;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Melt;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.stream.IntStream;

/**
 * How the colour at the nozzle changes while one spool washes the other out.
 *
 * @param points evenly spaced, from nothing pushed on
 * @param tolerance CIEDE2000 up to which it counts as clean
 */
public record WashOut(List<Point> points, double tolerance) {

    /**
     * @param pushed through so far
     * @param difference CIEDE2000 to the new colour
     * @param colour that comes out
     */
    public record Point(Volume pushed, double difference, Srgb colour) {}

    public WashOut {
        points = List.copyOf(points);
    }

    /**
     * @param deadVolume V₀ of the nozzle
     * @param tolerance τ
     * @param most pushed at the last point
     * @param count of points, at least two
     */
    public static WashOut of(Spool out, Spool in, Volume deadVolume, double tolerance, Volume most, int count) {
        LinearRgb old = out.colour().linear();
        LinearRgb fresh = in.colour().linear();
        Lab target = Melt.mix(old, fresh, 0).lab();
        return new WashOut(
                IntStream.range(0, count)
                        .mapToObj(i -> {
                            Volume pushed = most.times(i / (count - 1.0));
                            LinearRgb mix = Melt.mix(
                                    old, fresh, Math.exp(-pushed.cubicMillimetres() / deadVolume.cubicMillimetres()));
                            return new Point(pushed, mix.lab().differenceTo(target), Srgb.of(mix));
                        })
                        .toList(),
                tolerance);
    }
}
