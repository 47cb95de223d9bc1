package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import org.locationtech.jts.geom.Envelope;

/**
 * The bed from above with what stands on it.
 *
 * @param bed its outline
 * @param lines every {@code pitch} mm
 * @param matrix from mm on the bed to px, as a transform
 * @param copies outlines that can be moved
 * @param inFile rectangles round the lines of a sliced file, which decides where things stand
 * @param park where the nozzle waits
 */
public record PlateDrawing(
        int width,
        int height,
        String bed,
        String lines,
        int pitch,
        String matrix,
        List<Copy> copies,
        List<String> inFile,
        Optional<Mark> park,
        List<SectionDrawing.Tick> across,
        List<SectionDrawing.Tick> along) {

    private static final int ROOM = 34;
    private static final int EDGE = 14;

    /** @param state what is wrong with it, as a class; empty if nothing is */
    public record Copy(int number, String path, double x, double y, String state, String title) {}

    public record Mark(double x, double y, String name) {}

    public static PlateDrawing of(Workpiece work, int width, int height) {
        Bed bed = work.machine().printer().bed();
        Envelope box = shown(work, bed);
        double scale = Math.min((width - ROOM - EDGE) / box.getWidth(), (height - ROOM - EDGE) / box.getHeight());
        Frame frame = new Frame(ROOM, height - ROOM, box.getMinX(), box.getMinY(), scale, scale);
        int pitch = (int) Math.max(1, Ticks.step(box.getWidth(), 12));
        return new PlateDrawing(
                (int) Math.ceil(ROOM + box.getWidth() * scale + EDGE),
                height,
                outline(bed, frame),
                lines(bed, frame, pitch),
                pitch,
                Words.format("matrix(%.6f 0 0 %.6f %.4f %.4f)", scale, -scale, frame.x(0), frame.y(0)),
                work.match().isPresent() ? List.of() : copies(work.layout(), frame),
                work.match().map(m -> inFile(m, frame)).orElse(List.of()),
                work.machine().printer().parkSpot().map(p -> mark(p, frame)),
                ticks(bed.bounds().getMinX(), bed.bounds().getMaxX(), pitch, frame::x),
                ticks(bed.bounds().getMinY(), bed.bounds().getMaxY(), pitch, frame::y));
    }

    /** The bed, and whatever stands beside it. */
    private static Envelope shown(Workpiece work, Bed bed) {
        Envelope box = new Envelope(bed.bounds());
        work.machine().printer().parkSpot().ifPresent(p -> box.expandToInclude(p.x(), p.y()));
        if (work.match().isEmpty()) {
            work.layout().copies().forEach(c -> box.expandToInclude(c.outline().getEnvelopeInternal()));
        }
        // What is far off is not worth a bed as small as a stamp.
        Envelope most = new Envelope(bed.bounds());
        most.expandBy(bed.bounds().getWidth() / 2, bed.bounds().getHeight() / 2);
        return box.intersection(most);
    }

    private static String outline(Bed bed, Frame frame) {
        Envelope b = bed.bounds();
        if (bed instanceof Bed.Round) {
            double r = SvgPath.hundredths(frame.x(b.getMaxX()) - frame.x(b.centre().x));
            return Words.format(
                    "M%.2f %.2fa%.2f %.2f 0 1 0 %.2f 0a%.2f %.2f 0 1 0 %.2f 0z",
                    frame.x(b.getMinX()), frame.y(b.centre().y), r, r, 2 * r, r, r, -2 * r);
        }
        return new SvgPath()
                .rectangle(
                        frame.x(b.getMinX()),
                        frame.y(b.getMaxY()),
                        frame.x(b.getMaxX()) - frame.x(b.getMinX()),
                        frame.y(b.getMinY()) - frame.y(b.getMaxY()))
                .toString();
    }

    private static String lines(Bed bed, Frame frame, int pitch) {
        if (bed instanceof Bed.Round) {
            return "";
        }
        Envelope b = bed.bounds();
        SvgPath path = new SvgPath();
        for (double x = pitch; x < b.getMaxX(); x += pitch) {
            path.move(frame.x(x), frame.y(b.getMinY())).line(frame.x(x), frame.y(b.getMaxY()));
        }
        for (double y = pitch; y < b.getMaxY(); y += pitch) {
            path.move(frame.x(b.getMinX()), frame.y(y)).line(frame.x(b.getMaxX()), frame.y(y));
        }
        return path.toString();
    }

    private static List<Copy> copies(Layout layout, Frame frame) {
        List<Copy> copies = new ArrayList<>();
        for (int i = 0; i < layout.copies().size(); i++) {
            Layout.Copy c = layout.copies().get(i);
            String state = c.beyond() ? "beyond" : layout.isNear(i) ? "near" : "";
            copies.add(new Copy(
                    i,
                    SvgPath.coarse().polygons(c.outline(), frame).toString(),
                    SvgPath.hundredths(frame.x(c.spot().x())),
                    SvgPath.hundredths(frame.y(c.spot().y())),
                    state,
                    Words.format(
                            "Copy %d at X %.1f Y %.1f, turned by %.0f°%s",
                            i + 1,
                            c.spot().x(),
                            c.spot().y(),
                            c.spot().turn(),
                            state.isEmpty()
                                    ? ""
                                    : c.beyond() ? "; it reaches beyond the bed" : "; another is too near")));
        }
        return copies;
    }

    /** The largest lines of each layer, skirts and towers among them. */
    private static List<String> inFile(GridMatch match, Frame frame) {
        return match.layer(Math.min(2, match.grid().count())).lines().stream()
                .map(SlicedLayer.Line::extent)
                .map(e -> new SvgPath()
                        .rectangle(
                                frame.x(e.getMinX()),
                                frame.y(e.getMaxY()),
                                frame.x(e.getMaxX()) - frame.x(e.getMinX()),
                                frame.y(e.getMinY()) - frame.y(e.getMaxY()))
                        .toString())
                .distinct()
                .toList();
    }

    private static Mark mark(Point p, Frame frame) {
        return new Mark(SvgPath.hundredths(frame.x(p.x())), SvgPath.hundredths(frame.y(p.y())), "waits here");
    }

    private static List<SectionDrawing.Tick> ticks(double from, double to, int pitch, DoubleUnaryOperator at) {
        List<SectionDrawing.Tick> ticks = new ArrayList<>();
        for (double mm = Math.ceil(from / pitch) * pitch; mm <= to + 1e-9; mm += pitch) {
            ticks.add(new SectionDrawing.Tick(SvgPath.hundredths(at.applyAsDouble(mm)), Words.format("%.0f", mm)));
        }
        return ticks;
    }
}
