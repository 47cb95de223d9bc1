package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Frame;
import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.layer.Flat.Form;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Surface;
import dev.tranche.core.layer.UprightCut;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Strata;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/**
 * The model cut upright and filled with its strata.
 *
 * @param width px, as {@code height}
 * @param left px where the model's plate begins, as {@code right}, where it ends
 * @param bottom px of the bed, and {@code top} of the highest layer
 * @param perMillimetre px a mm of height
 * @param stretch how many times heights are drawn larger than widths
 * @param depth y of the cut, mm
 * @param outline what the model reaches at other depths
 * @param strata one a spool
 * @param labels of the tranches, where there is room
 * @param borders between strata, without the bed, and ends of fades
 * @param halts stops without a change of spool
 * @param ruler ticks in mm on the left
 * @param layers ticks in layers on the right
 * @param surfaces places where the mesh is flat
 */
public record SectionDrawing(
        int width,
        int height,
        double left,
        double right,
        double bottom,
        double top,
        double perMillimetre,
        String stretch,
        String depth,
        String outline,
        List<Stratum> strata,
        List<Label> labels,
        List<Border> borders,
        List<Stop> halts,
        List<Tick> ruler,
        List<Tick> layers,
        List<Flat> surfaces) {

    /** Less than it is no row of its own, px. */
    private static final double FINEST = 1.4;

    /**
     * What one spool fills.
     *
     * @param plain whether all its bands are too low for a hatch
     * @param turns where a fade begins and ends, px; of anything else nothing
     */
    public record Stratum(SpoolMark mark, String path, boolean plain, Optional<Turning> turns) {}

    /** Between which heights a fade turns, px. */
    public record Turning(double begins, double ends) {}

    /** A tranche's letter beside it. */
    public record Label(char letter, double x, double y) {}

    /**
     * Where a colour starts, or a fade begins or ends.
     *
     * @param move where to send the height it is dragged to
     * @param fades whether nothing but a fade begins or ends there
     */
    public record Border(String move, double y, String height, int layer, boolean fades) {}

    /** Where the print halts. */
    public record Stop(double y, int layer, String title) {}

    /** A mark on a ruler. */
    public record Tick(double y, String text) {}

    /**
     * A level place.
     *
     * @param offered whether a colour may start there
     * @param layer whose top it is, and {@code act} what may be done with it in one action; empty if nothing
     */
    public record Flat(double y, String height, double area, String what, boolean offered, int layer, String act) {}

    /** Where a colour may start: of many the largest, from the bed up. */
    public List<Flat> mainFlats() {
        return offers().sorted(Comparator.comparingDouble(Flat::area).reversed())
                .limit(MOST_SHOWN)
                .sorted(Comparator.comparingDouble(Flat::y).reversed())
                .toList();
    }

    /** What {@link #mainFlats} leaves. */
    public List<Flat> otherFlats() {
        List<Flat> main = mainFlats();
        return offers().filter(f -> !main.contains(f)).toList();
    }

    private Stream<Flat> offers() {
        return surfaces.stream().filter(Flat::offered);
    }

    /** Whether there is a level place where anything is to be begun; a model's own top is none. */
    public boolean offersFlats() {
        return surfaces.stream().anyMatch(f -> f.offered() || !f.act().isEmpty());
    }

    /** The drawing of a desk, with rulers. */
    public static SectionDrawing of(Workpiece work, int width, int height) {
        return of(work, width, height, false);
    }

    /** @param even whether heights are drawn as large as widths */
    public static SectionDrawing of(Workpiece work, int width, int height, boolean even) {
        return draw(work, width, height, new Margins(44, work.grid().count() < 1000 ? 46 : 54, 14, 22), even);
    }

    /** The small one on a card, without rulers. */
    public static SectionDrawing small(Workpiece work, int width, int height) {
        return draw(work, width, height, new Margins(6, 6, 6, 6), false);
    }

    /** For a number beside a ruler, px. */
    private static final double ROOM = 16;
    /** More that can be done at a press would be a list to search. */
    private static final int MOST_ACTS = 3;

    private static final int MOST_SHOWN = 16;

    private record Margins(int left, int right, int top, int bottom) {}

    private static SectionDrawing draw(Workpiece work, int width, int height, Margins m, boolean even) {
        LayerGrid grid = work.grid();
        Envelope box = work.cut().model().footprint();
        double printed =
                Math.max(grid.printedHeight().millimetres(), grid.modelHeight().millimetres());
        double room = width - m.left() - m.right();
        double widest = room / Math.max(box.getWidth(), 1e-3);
        double highest = (height - m.top() - m.bottom()) / printed;
        double scaleX = even ? Math.min(widest, highest) : widest;
        double scaleY = even ? scaleX : highest;
        double spare = height - m.top() - m.bottom() - printed * scaleY;
        double bottom = height - m.bottom() - spare / 2;
        Frame frame = new Frame(m.left(), bottom, box.getMinX(), 0, scaleX, scaleY);
        UprightCut upright = work.cut().upright();
        Strata colours = work.colouring().strata(upright);
        List<Stratum> strata = new ArrayList<>();
        colours.colours()
                .forEach((spool, spans) -> strata.add(
                        stratum(SpoolMark.of(work, spool), spans, grid, frame, turning(work, spool, frame))));
        List<Label> labels = new ArrayList<>();
        List<Border> borders = new ArrayList<>();
        for (Tranche t : work.tranches()) {
            double top = frame.y(grid.top(t.lastLayer()).millimetres());
            double base = frame.y(grid.bottom(t.firstLayer()).millimetres());
            if (base - top >= 11) {
                labels.add(
                        new Label(work.colours().letter(t.spool()), frame.x(box.getMaxX()) + 2, (top + base) / 2 + 4));
            }
            if (t.firstLayer() > 1) {
                String at = grid.bottom(t.firstLayer()).toString();
                borders.add(new Border(
                        "starts/" + t.index() + "/move", SvgPath.hundredths(base), at, t.firstLayer(), false));
            }
        }
        borders.addAll(fading(work, frame));
        return new SectionDrawing(
                width,
                height,
                m.left(),
                width - m.right(),
                bottom,
                SvgPath.hundredths(frame.y(printed)),
                scaleY,
                Words.format("%.1f", scaleY / scaleX),
                Words.format("%.1f", colours.y()),
                rows(upright.outline(), 1, grid.count(), grid, frame),
                strata,
                labels,
                borders,
                work.ledger().pauses().stream()
                        .map(p -> new Stop(
                                frame.y(p.height().millimetres()),
                                p.layer(),
                                "Halt before layer " + p.layer() + ": " + p.note()))
                        .toList(),
                ruler(printed, frame),
                layerTicks(grid, frame),
                flats(work, frame));
    }

    private static Optional<Turning> turning(Workpiece work, SpoolId paint, Frame frame) {
        return fades(work)
                .filter(f -> f.id().equals(paint))
                .findFirst()
                .map(f -> new Turning(
                        SvgPath.hundredths(frame.y(f.begins().millimetres())),
                        SvgPath.hundredths(frame.y(f.ends().millimetres()))));
    }

    private static Stream<Mixture.Fade> fades(Workpiece work) {
        return work.colours().mixed().stream()
                .flatMap(m -> m instanceof Mixture.Fade f ? Stream.of(f) : Stream.empty());
    }

    /** An end of a fade, and where to send the height it is dragged to. */
    private record End(Height height, String move) {}

    /** Ends of fades at which no colour starts. */
    private static List<Border> fading(Workpiece work, Frame frame) {
        Set<Height> starts =
                work.colours().starts().list().stream().map(ColourStart::wished).collect(Collectors.toSet());
        LayerGrid grid = work.grid();
        return fades(work)
                .flatMap(f -> Stream.of(
                        new End(f.begins(), "paints/" + f.id().value() + "/begins"),
                        new End(f.ends(), "paints/" + f.id().value() + "/ends")))
                .filter(e -> !starts.contains(e.height()) && !e.height().isAbove(grid.printedHeight()))
                .map(e -> new Border(
                        e.move(),
                        SvgPath.hundredths(frame.y(e.height().millimetres())),
                        e.height().toString(),
                        Math.min(grid.count(), grid.firstAbove(e.height())),
                        true))
                .toList();
    }

    private static Stratum stratum(
            SpoolMark mark, List<List<Span>> spans, LayerGrid grid, Frame frame, Optional<Turning> turns) {
        int run = 0;
        int longest = 0;
        for (List<Span> layer : spans) {
            run = layer.isEmpty() ? 0 : run + 1;
            longest = Math.max(longest, run);
        }
        boolean plain = longest * grid.layerHeight().millimetres() * frame.scaleY() < mark.pitch();
        return new Stratum(mark, rows(spans, 1, grid.count(), grid, frame), plain, turns);
    }

    /**
     * Layers as they will be printed; neighbours of one shape, or too thin to be told apart, drawn as one block, and blocks
     * that stand on one another as one outline.
     */
    private static String rows(List<List<Span>> spans, int from, int to, LayerGrid grid, Frame frame) {
        SvgPath path = SvgPath.coarse();
        List<List<SvgPath.Step>> columns = new ArrayList<>();
        List<Span> below = List.of();
        int layer = from;
        while (layer <= to) {
            List<Span> shape = spans.get(layer - 1);
            int last = layer;
            double bottom = frame.y(grid.bottom(layer).millimetres());
            while (last < to
                    && (spans.get(last).equals(shape)
                            || frame.y(grid.top(last + 1).millimetres()) > bottom - FINEST)) {
                last++;
            }
            double top = frame.y(grid.top(last).millimetres());
            if (!standsOn(shape, below)) {
                columns.forEach(path::stairs);
                columns = new ArrayList<>();
                for (int i = 0; i < shape.size(); i++) {
                    columns.add(new ArrayList<>());
                }
            }
            for (int i = 0; i < shape.size(); i++) {
                Span span = shape.get(i);
                columns.get(i).add(new SvgPath.Step(bottom, top, frame.x(span.from()), frame.x(span.to())));
            }
            below = shape;
            layer = last + 1;
        }
        columns.forEach(path::stairs);
        return path.toString();
    }

    /** Whether each stretch of a layer lies over one of its own below. */
    private static boolean standsOn(List<Span> shape, List<Span> below) {
        if (shape.size() != below.size()) {
            return false;
        }
        for (int i = 0; i < shape.size(); i++) {
            if (shape.get(i).from() > below.get(i).to()
                    || shape.get(i).to() < below.get(i).from()) {
                return false;
            }
        }
        return true;
    }

    private static List<Tick> ruler(double printed, Frame frame) {
        List<Tick> ticks = new ArrayList<>();
        double step = Ticks.step(printed, marks(printed, frame, 9));
        int decimals = step < 0.1 ? 2 : step < 1 ? 1 : 0;
        for (int i = 0; i * step <= printed + 1e-9; i++) {
            ticks.add(new Tick(frame.y(i * step), Words.format("%." + decimals + "f", i * step)));
        }
        return ticks;
    }

    /** How many marks have room, at most {@code most}. */
    private static int marks(double printed, Frame frame, int most) {
        return (int) Math.max(1, Math.min(most, printed * frame.scaleY() / ROOM));
    }

    /** Numbers at the middles of every so many layers. */
    private static List<Tick> layerTicks(LayerGrid grid, Frame frame) {
        List<Tick> ticks = new ArrayList<>();
        int step = (int)
                Math.max(1, Ticks.step(grid.count(), marks(grid.printedHeight().millimetres(), frame, 12)));
        for (int layer = 1; layer <= grid.count(); layer = layer == 1 && step > 1 ? step : layer + step) {
            double middle = (grid.bottom(layer).millimetres() + grid.top(layer).millimetres()) / 2;
            ticks.add(new Tick(frame.y(middle), Integer.toString(layer)));
        }
        return ticks;
    }

    /** Floors, raised tops and undersides; one a height. */
    private static List<Flat> flats(Workpiece work, Frame frame) {
        List<dev.tranche.core.layer.Flat> known = work.colouring().outlooks().flats();
        Set<Integer> acts = known.stream()
                .filter(dev.tranche.core.layer.Flat::isWithin)
                .sorted(Comparator.comparingDouble(dev.tranche.core.layer.Flat::area)
                        .reversed())
                .limit(MOST_ACTS)
                .map(dev.tranche.core.layer.Flat::layer)
                .collect(Collectors.toSet());
        Map<Height, Flat> flats = new TreeMap<>();
        work.cut().model().surfaces().stream()
                .filter(s -> s.kind() == Surface.Kind.UNDERSIDE)
                .forEach(s -> flats.put(
                        s.height(),
                        new Flat(
                                frame.y(s.height().millimetres()),
                                s.height().toString(),
                                s.area(),
                                Words.format("underside of %.0f mm²", s.area()),
                                true,
                                0,
                                "")));
        for (dev.tranche.core.layer.Flat f : known) {
            boolean top = f.form() == Form.TOP;
            String act = !acts.contains(f.layer())
                    ? ""
                    : f.form() == Form.FLOOR
                            ? "Colour this floor"
                            : f.form() == Form.BASE ? "Colour this top" : "Colour this lettering";
            flats.put(
                    f.height(),
                    new Flat(
                            frame.y(f.height().millimetres()),
                            f.height().toString(),
                            f.area(),
                            Words.format("%s, %.0f mm²", f.name(), f.area()),
                            !top,
                            f.layer(),
                            act));
        }
        return List.copyOf(flats.values());
    }
}
