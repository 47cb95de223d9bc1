package dev.tranche.app.pictures;

import dev.tranche.app.drawing.BedDrawing;
import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Rims;
import dev.tranche.core.plate.TowerStand;
import dev.tranche.core.returns.ReturnPath;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;

/**
 * The bed from above with what stands on it.
 *
 * @param bed its outline
 * @param lines every {@code pitch} mm
 * @param matrix from mm on the bed to px, as a transform
 * @param seen the colours of one copy as they are seen from above, where its middle stands at 0, 0 px
 * @param copies outlines that can be moved, unless they stand where a sliced file has them
 * @param pieces the parts of the first copy, the largest first, where there are several that can be moved
 * @param inFile rectangles round what else such a file draws: skirts and towers
 * @param tower that can be moved, too
 * @param rims that are drawn round copies on the first layer; empty where there are none
 * @param clear round what is printed one after another, where the head needs room beside it; empty otherwise
 * @param ways back from swaps, those that are alike once, and no more than can be told apart
 * @param waits where the nozzle waits
 */
public record PlateDrawing(
        int width,
        int height,
        String bed,
        String lines,
        int pitch,
        String matrix,
        List<Seen> seen,
        List<Copy> copies,
        List<Piece> pieces,
        List<String> inFile,
        Optional<Tower> tower,
        String rims,
        String clear,
        List<Way> ways,
        List<Mark> waits,
        List<SectionDrawing.Tick> across,
        List<SectionDrawing.Tick> along) {

    private static final int ROOM = 34;
    private static final int EDGE = 14;
    private static final int MOST_LINES = 40;
    private static final int MOST_LOOKS = 12;
    /** More lie over one another anyhow. */
    private static final int MOST_PIECES = 100;
    /** As wide as a tower's name, px. */
    private static final int NAME = 44;

    /** What is drawn later covers what was drawn before. */
    public record Seen(String path, char letter) {}

    /**
     * A copy.
     *
     * @param place of it, as a transform of what is seen
     * @param state what is wrong with it, as a class; empty if nothing is
     */
    public record Copy(int number, String path, String place, double x, double y, String state, String title) {}

    /**
     * A part.
     *
     * @param path what a string round it would enclose
     */
    public record Piece(int number, String path, String name) {}

    public record Mark(double x, double y, String name) {}

    /**
     * A tower.
     *
     * @param roomy whether its name has room in it
     * @param state what is wrong with it, as a class; empty if nothing is
     */
    public record Tower(String path, double x, double y, boolean roomy, String state, String title) {}

    /**
     * A way back.
     *
     * @param stained what of it leads over another colour, and {@code clean} whether nothing does
     */
    public record Way(String path, String stained, boolean clean, String title) {}

    public static PlateDrawing of(Workpiece work, int width, int height) {
        Bed bed = work.machine().printer().bed();
        Envelope box = shown(work, bed);
        double scale = Math.min((width - ROOM - EDGE) / box.getWidth(), (height - ROOM - EDGE) / box.getHeight());
        Frame frame = new Frame(ROOM, height - ROOM, box.getMinX(), box.getMinY(), scale, scale);
        int pitch = (int) Math.max(1, Ticks.step(box.getWidth(), 12));
        return new PlateDrawing(
                (int) Math.ceil(ROOM + box.getWidth() * scale + EDGE),
                height,
                BedDrawing.outline(bed, frame),
                BedDrawing.lines(bed, frame, pitch),
                pitch,
                Words.format("matrix(%.6f 0 0 %.6f %.4f %.4f)", scale, -scale, frame.x(0), frame.y(0)),
                seen(work, scale),
                copies(work.layout(), frame),
                pieces(work, frame),
                work.match().map(m -> inFile(m, work.layout(), frame)).orElse(List.of()),
                work.returns().tower().map(t -> tower(t, frame)),
                work.match().isPresent() ? "" : rims(work, frame),
                clear(work, frame),
                WaysBack.shown(WaysBack.of(work)).stream()
                        .map(w -> way(w, frame))
                        .toList(),
                waits(work, frame),
                ticks(bed.bounds().getMinX(), bed.bounds().getMaxX(), pitch, frame::x),
                ticks(bed.bounds().getMinY(), bed.bounds().getMaxY(), pitch, frame::y));
    }

    /** The bed, and whatever stands beside it. */
    private static Envelope shown(Workpiece work, Bed bed) {
        Envelope box = new Envelope(bed.bounds());
        work.machine().printer().parkSpot().ifPresent(p -> box.expandToInclude(p.x(), p.y()));
        work.returns().waits().forEach(p -> box.expandToInclude(p.x(), p.y()));
        work.layout().copies().forEach(c -> box.expandToInclude(c.outline().getEnvelopeInternal()));
        work.returns().tower().ifPresent(t -> box.expandToInclude(t.outline().getEnvelopeInternal()));
        // What is far off is not worth a bed as small as a stamp.
        Envelope most = new Envelope(bed.bounds());
        most.expandBy(bed.bounds().getWidth() / 2, bed.bounds().getHeight() / 2);
        return box.intersection(most);
    }

    private static List<Copy> copies(Layout layout, Frame frame) {
        List<Copy> copies = new ArrayList<>();
        for (int i = 0; i < layout.copies().size(); i++) {
            Layout.Copy c = layout.copies().get(i);
            String state = c.beyond() ? "beyond" : layout.isNear(i) ? "near" : "";
            copies.add(new Copy(
                    i,
                    SvgPath.coarse().polygons(c.outline(), frame).toString(),
                    Words.format(
                            "translate(%.2f %.2f) rotate(%.2f)",
                            frame.x(c.spot().x()),
                            frame.y(c.spot().y()),
                            -c.spot().turn()),
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

    private static List<Piece> pieces(Workpiece work, Frame frame) {
        CutModel model = work.cut().model();
        int shown = model.solids().size() - model.hidden().size();
        if (work.match().isPresent() || work.layout().copies().isEmpty() || shown < 2 || shown > MOST_PIECES) {
            return List.of();
        }
        AffineTransformation onBed = work.reckoning()
                .brief()
                .footprint()
                .from(work.layout().copies().get(0).spot());
        record Hull(int number, Geometry outline) {}
        return IntStream.range(0, model.solids().size())
                .filter(i -> !model.hidden().contains(i))
                .mapToObj(i -> new Hull(
                        i, onBed.transform(Footprint.hull(model.solids().get(i)))))
                .sorted(Comparator.comparingDouble(h -> -h.outline().getArea()))
                .map(h -> new Piece(
                        h.number(),
                        SvgPath.coarse().polygons(Areas.of(h.outline()), frame).toString(),
                        work.partNames().get(h.number())))
                .toList();
    }

    /** The largest lines of a layer that are of no copy: skirts and towers. */
    private static List<String> inFile(GridMatch match, Layout layout, Frame frame) {
        List<Envelope> copies = layout.copies().stream()
                .map(c -> c.outline().getEnvelopeInternal())
                .toList();
        return match.layer(Math.min(2, match.grid().count())).lines().stream()
                .map(SlicedLayer.Line::extent)
                .filter(e -> copies.stream().noneMatch(c -> c.covers(e.centre()) && c.getArea() * 1.5 > e.getArea()))
                .limit(MOST_LINES)
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

    /** Layers from the bed up, each over those before: the lowest, the highest, and some between, those with other colours first. */
    private static List<Seen> seen(Workpiece work, double scale) {
        Coordinate middle = work.reckoning().brief().footprint().middle();
        Frame frame = new Frame(0, 0, middle.x, middle.y, scale, scale);
        List<Seen> seen = new ArrayList<>();
        for (int layer : looks(work)) {
            for (Tint tint : work.colouring().layer(layer).tints()) {
                SvgPath path = SvgPath.coarse();
                tint.cells().forEach(c -> path.polygons(c, frame, 0.5));
                seen.add(new Seen(path.toString(), work.colours().letter(tint.spool())));
            }
        }
        return seen;
    }

    private static SortedSet<Integer> looks(Workpiece work) {
        int count = work.grid().count();
        List<LayerColours> layers = work.colouring().layers();
        SortedSet<Integer> looks = new TreeSet<>(List.of(1, count));
        for (int layer = 2; layer <= count && looks.size() < MOST_LOOKS; layer++) {
            if (!layers.get(layer - 1).spools().equals(layers.get(layer - 2).spools())) {
                looks.add(layer);
            }
        }
        double each = Math.max(1, count / (double) MOST_LOOKS);
        for (double at = 1; at <= count && looks.size() < 2 * MOST_LOOKS; at += each) {
            int layer = (int) at;
            boolean asBelow = layer > 1 && layers.get(layer - 1) == layers.get(layer - 2);
            if (!asBelow) {
                looks.add(layer);
            }
        }
        return looks;
    }

    private static Tower tower(TowerStand t, Frame frame) {
        String state = t.beyond() ? "beyond" : t.tooNear().isEmpty() ? "" : "near";
        return new Tower(
                new SvgPath().polygons(t.outline(), frame).toString(),
                SvgPath.hundredths(frame.x(t.spot().x())),
                SvgPath.hundredths(frame.y(t.spot().y())),
                Math.min(t.width(), t.depth()) * frame.scaleX() > NAME,
                state,
                Words.format(
                        "Tower of %.0f × %.1f mm at X %.1f Y %.1f, turned by %.0f°%s",
                        t.width(),
                        t.depth(),
                        t.spot().x(),
                        t.spot().y(),
                        t.spot().turn(),
                        state.isEmpty() ? "" : t.beyond() ? "; it reaches beyond the bed" : "; a copy is too near"));
    }

    /** A brim round each copy, a skirt round all that stands there. */
    private static String rims(Workpiece work, Frame frame) {
        Rims rims = work.plan().content().plate().rims();
        SvgPath path = SvgPath.coarse();
        List<Geometry> outlines = new ArrayList<>();
        work.layout().copies().forEach(c -> outlines.add(c.outline()));
        if (rims.brim() > 0) {
            outlines.forEach(o -> path.polygons(Areas.of(o.buffer(rims.brim())), frame));
        }
        if (rims.skirt() > 0) {
            work.returns().tower().ifPresent(t -> outlines.add(t.outline()));
            Geometry hull = Areas.NOTHING.getFactory().buildGeometry(outlines).convexHull();
            path.polygons(Areas.of(hull.buffer(rims.skirt())), frame);
        }
        return path.toString();
    }

    private static String clear(Workpiece work, Frame frame) {
        double needed = work.headRoom();
        SvgPath path = SvgPath.coarse();
        if (needed > 0 && work.orders().things().size() > 1) {
            work.layout()
                    .copies()
                    .forEach(c -> path.polygons(Areas.of(c.outline().buffer(needed / 2)), frame));
        }
        return path.toString();
    }

    private static Way way(WaysBack alike, Frame frame) {
        SvgPath path = new SvgPath();
        SvgPath stained = new SvgPath();
        ReturnPath first = alike.path();
        line(path, first.places(), frame);
        first.stains().forEach(s -> line(stained, first.between(s.from(), s.to()), frame));
        return new Way(path.toString(), stained.toString(), first.isClean(), alike.swaps() + ": " + alike.sentence());
    }

    private static void line(SvgPath path, List<Coordinate> places, Frame frame) {
        path.move(frame.x(places.get(0).x), frame.y(places.get(0).y));
        places.stream().skip(1).forEach(c -> path.line(frame.x(c.x), frame.y(c.y)));
    }

    private static List<Mark> waits(Workpiece work, Frame frame) {
        List<Point> spots = new ArrayList<>(work.returns().waits());
        work.machine().printer().parkSpot().filter(p -> !spots.contains(p)).ifPresent(spots::add);
        return spots.stream()
                .map(p -> new Mark(
                        SvgPath.hundredths(frame.x(p.x())),
                        SvgPath.hundredths(frame.y(p.y())),
                        Words.format("The nozzle waits here, at X %.1f Y %.1f", p.x(), p.y())))
                .toList();
    }

    private static List<SectionDrawing.Tick> ticks(double from, double to, int pitch, DoubleUnaryOperator at) {
        List<SectionDrawing.Tick> ticks = new ArrayList<>();
        for (double mm = Math.ceil(from / pitch) * pitch; mm <= to + 1e-9; mm += pitch) {
            ticks.add(new SectionDrawing.Tick(SvgPath.hundredths(at.applyAsDouble(mm)), Words.format("%.0f", mm)));
        }
        return ticks;
    }
}
