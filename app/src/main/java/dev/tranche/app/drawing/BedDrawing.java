package dev.tranche.app.drawing;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;

/**
 * The bed from above with the path of the nozzle during a macro.
 *
 * @param bed its outline
 * @param travel how far the nozzle can go
 * @param lines every {@code pitch} mm
 * @param legs pieces of the path, each with its step
 * @param drops filament pushed out while standing: a disc as large as its volume
 * @param entry where the print was left
 * @param park where the nozzle waits
 * @param lever the selector's switch
 */
public record BedDrawing(
        int width,
        int height,
        String bed,
        String travel,
        String lines,
        int pitch,
        List<Leg> legs,
        List<Drop> drops,
        Mark entry,
        Optional<Mark> park,
        Optional<Mark> lever) {

    /**
     * @param lifted whether it is above the print
     * @param arrow where its direction is shown, as a transform; empty on short ones
     */
    public record Leg(int step, String path, boolean lifted, boolean beyond, String arrow) {}

    /** Filament in mm at one spot. */
    public record Drop(int step, double x, double y, double radius, String title) {}

    /** A place, with its name and coordinates. */
    public record Mark(double x, double y, String name) {}

    public static BedDrawing of(Printer printer, DryRun run, ControllerState entry, int width, int height) {
        Travel t = printer.travel();
        var b = printer.bed().bounds();
        double minX = Math.min(t.minX(), b.getMinX());
        double maxX = Math.max(t.maxX(), b.getMaxX());
        double minY = Math.min(t.minY(), b.getMinY());
        double maxY = Math.max(t.maxY(), b.getMaxY());
        double scale = Math.min((width - 24) / (maxX - minX), (height - 24) / (maxY - minY));
        Frame frame = new Frame(
                (width - (maxX - minX) * scale) / 2,
                height - (height - (maxY - minY) * scale) / 2,
                minX,
                minY,
                scale,
                scale);
        int pitch = (int) Ticks.step(b.getWidth(), 12);
        return new BedDrawing(
                width,
                height,
                outline(printer.bed(), frame),
                printer.bed() instanceof Bed.Round
                        ? oval(frame, t.minX(), t.maxX(), t.minY(), t.maxY())
                        : box(frame, t.minX(), t.maxX(), t.minY(), t.maxY()),
                lines(printer.bed(), frame, pitch),
                pitch,
                legs(printer, run, entry, frame),
                drops(printer, run, frame),
                mark(frame, entry.x(), entry.y(), "print"),
                printer.parkSpot().map(p -> mark(frame, p.x(), p.y(), "park")),
                printer.selector().map(s -> lever(printer, s.lever(), frame)));
    }

    private static List<Leg> legs(Printer printer, DryRun run, ControllerState entry, Frame frame) {
        List<Leg> legs = new ArrayList<>();
        for (DryRun.Leg leg : run.path()) {
            double x0 = frame.x(leg.fromX());
            double y0 = frame.y(leg.fromY());
            double x1 = frame.x(leg.toX());
            double y1 = frame.y(leg.toY());
            double length = Math.hypot(x1 - x0, y1 - y0);
            if (length < 0.05) {
                continue;
            }
            String arrow = length < 24
                    ? ""
                    : Words.format(
                            "translate(%.1f %.1f) rotate(%.1f)",
                            x0 + 0.6 * (x1 - x0), y0 + 0.6 * (y1 - y0), Math.toDegrees(Math.atan2(y1 - y0, x1 - x0)));
            boolean lifted = Math.min(leg.fromZ(), leg.toZ()) > entry.z() + 0.05;
            boolean beyond = !printer.reaches(new dev.tranche.core.machine.Point(leg.toX(), leg.toY()))
                    || !printer.reaches(new dev.tranche.core.machine.Point(leg.fromX(), leg.fromY()));
            legs.add(new Leg(leg.step(), new SvgPath().move(x0, y0).line(x1, y1).toString(), lifted, beyond, arrow));
        }
        return legs;
    }

    /** Discs whose area is the filament's volume: a sphere would hide how much more a purge is than a prime. */
    private static List<Drop> drops(Printer printer, DryRun run, Frame frame) {
        Map<String, Drop> drops = new LinkedHashMap<>();
        Map<String, Double> fed = new LinkedHashMap<>();
        for (DryRun.Leg leg : run.path()) {
            boolean stands = leg.fromX() == leg.toX() && leg.fromY() == leg.toY();
            if (stands && leg.fed() > 0) {
                String place = leg.step() + "/" + leg.toX() + "/" + leg.toY();
                double sum = fed.merge(place, leg.fed(), Double::sum);
                double volume = printer.filament().volume(sum).cubicMillimetres();
                drops.put(
                        place,
                        new Drop(
                                leg.step(),
                                frame.x(leg.toX()),
                                frame.y(leg.toY()),
                                Math.max(1.5, Math.min(26, 0.75 * Math.sqrt(volume))),
                                Words.format("%.0f mm of filament pushed", sum)));
            }
        }
        return List.copyOf(drops.values());
    }

    private static Mark lever(Printer printer, Lever lever, Frame frame) {
        Travel t = printer.travel();
        double middle = lever.axis() == Axis.X ? (t.minY() + t.maxY()) / 2 : (t.minX() + t.maxX()) / 2;
        return lever.axis() == Axis.X
                ? mark(frame, lever.position(), middle, "switch")
                : mark(frame, middle, lever.position(), "switch");
    }

    private static Mark mark(Frame frame, double x, double y, String name) {
        return new Mark(frame.x(x), frame.y(y), name);
    }

    private static String box(Frame f, double minX, double maxX, double minY, double maxY) {
        return new SvgPath()
                .rectangle(f.x(minX), f.y(maxY), f.x(maxX) - f.x(minX), f.y(minY) - f.y(maxY))
                .toString();
    }

    private static String oval(Frame f, double minX, double maxX, double minY, double maxY) {
        double rx = (f.x(maxX) - f.x(minX)) / 2;
        double ry = (f.y(minY) - f.y(maxY)) / 2;
        return Words.format(
                "M%.2f %.2fa%.2f %.2f 0 1 0 %.2f 0a%.2f %.2f 0 1 0 %.2f 0z",
                f.x(minX), f.y((minY + maxY) / 2), rx, ry, 2 * rx, rx, ry, -2 * rx);
    }

    /** The rim of a bed. */
    public static String outline(Bed bed, Frame frame) {
        Envelope b = bed.bounds();
        return bed instanceof Bed.Round
                ? oval(frame, b.getMinX(), b.getMaxX(), b.getMinY(), b.getMaxY())
                : box(frame, b.getMinX(), b.getMaxX(), b.getMinY(), b.getMaxY());
    }

    /** Lines over a bed with corners, every {@code pitch} mm. */
    public static String lines(Bed bed, Frame frame, int pitch) {
        Envelope b = bed.bounds();
        return bed instanceof Bed.Round ? "" : grid(frame, b.getMaxX(), b.getMaxY(), pitch);
    }

    private static String grid(Frame f, double maxX, double maxY, int pitch) {
        SvgPath path = new SvgPath();
        for (double x = pitch; x < maxX; x += pitch) {
            path.move(f.x(x), f.y(0)).line(f.x(x), f.y(maxY));
        }
        for (double y = pitch; y < maxY; y += pitch) {
            path.move(f.x(0), f.y(y)).line(f.x(maxX), f.y(y));
        }
        return path.toString();
    }
}
