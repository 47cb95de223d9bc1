package dev.tranche.app.drawing;

import dev.tranche.core.purge.WashOut;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

/**
 * How the colour changes while one spool washes the other out: difference against filament pushed, and swatches under it.
 *
 * @param curve path of the difference
 * @param cleanX px where it is clean, {@code cleanY} on the curve
 * @param measured px of what was measured to be enough, if it was
 * @param tolerance px of the difference that counts as clean
 * @param swatches what comes out, along the way
 * @param ticks in mm of filament
 * @param differences ticks in CIEDE2000
 */
public record WashOutDrawing(
        int width,
        int height,
        double left,
        double right,
        double top,
        double bottom,
        String curve,
        double cleanX,
        double cleanY,
        OptionalDouble measured,
        double tolerance,
        List<Swatch> swatches,
        List<Tick> ticks,
        List<Tick> differences) {
    private static final double LEFT = 34;
    private static final double RIGHT = 10;
    private static final double TOP = 8;
    private static final double BOTTOM = 62;
    private static final int SWATCHES = 16;
    private static final double SWATCH = 26;

    /** A colour that comes out. */
    public record Swatch(double x, double y, double width, double height, String hex, String title) {}

    /** A mark on an axis. */
    public record Tick(double at, String text) {}

    /**
     * @param clean mm of filament after which it is clean by its colours
     * @param measured mm that were enough on the printer, if that was measured
     */
    public static WashOutDrawing of(
            WashOut curve, double clean, OptionalDouble measured, Filament filament, int width, int height) {
        double right = width - RIGHT;
        double bottom = height - BOTTOM;
        WashOut.Point last = curve.points().get(curve.points().size() - 1);
        double most = Math.max(1e-9, filament.length(last.pushed()));
        double highest = Math.max(curve.tolerance() * 2, curve.points().get(0).difference());
        StringBuilder path = new StringBuilder();
        for (WashOut.Point p : curve.points()) {
            path.append(path.isEmpty() ? 'M' : 'L')
                    .append(Words.format(
                            "%.1f %.1f",
                            LEFT + filament.length(p.pushed()) / most * (right - LEFT),
                            bottom - p.difference() / highest * (bottom - TOP)));
        }
        List<Swatch> swatches = new ArrayList<>();
        double w = (right - LEFT) / SWATCHES;
        for (int i = 0; i < SWATCHES; i++) {
            int at = Math.round(i * (curve.points().size() - 1) / (SWATCHES - 1f));
            WashOut.Point p = curve.points().get(at);
            swatches.add(new Swatch(
                    LEFT + i * w,
                    bottom + 20,
                    w,
                    SWATCH,
                    p.colour().hex(),
                    Words.format("after %.0f mm: difference %.1f", filament.length(p.pushed()), p.difference())));
        }
        double cleanX = x(clean, most, right);
        double tolerance = bottom - curve.tolerance() / highest * (bottom - TOP);
        return new WashOutDrawing(
                width,
                height,
                LEFT,
                right,
                TOP,
                bottom,
                path.toString(),
                cleanX,
                tolerance,
                measured.isEmpty() ? measured : OptionalDouble.of(x(measured.getAsDouble(), most, right)),
                tolerance,
                swatches,
                ticks(most, LEFT, right),
                ticks(highest, bottom, TOP));
    }

    private static double x(double length, double most, double right) {
        return LEFT + Math.min(1, length / most) * (right - LEFT);
    }

    private static List<Tick> ticks(double most, double from, double to) {
        double step = Math.max(1, Ticks.step(most, 6));
        List<Tick> ticks = new ArrayList<>();
        for (double v = 0; v <= most; v += step) {
            ticks.add(new Tick(from + v / most * (to - from), Words.format("%.0f", v)));
        }
        return ticks;
    }
}
