package dev.tranche.app.pictures;

import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * A sliced file and its plan side by side, from the bed up: layers, colours, what stops, and where they contradict each
 * other.
 *
 * @param file what the file prints, and {@code plan} what the plan has; a column each
 * @param bottom y of the bed
 * @param rungs from layers of the one to layers of the other, where those are not the same
 * @param differs layers on which the two have other colours
 */
public record FileDrawing(
        int width,
        int height,
        double bottom,
        List<Fill> file,
        List<Fill> plan,
        List<Mark> swaps,
        List<Mark> stops,
        String rungs,
        List<Mark> differs,
        List<SectionDrawing.Tick> ruler) {
    public static final int FILE_LEFT = 62;
    public static final int FILE_RIGHT = 128;
    public static final int PLAN_LEFT = 168;
    public static final int PLAN_RIGHT = 234;

    private static final int TOP = 10;
    private static final int FOOT = 24;
    /** What is lower is drawn with what lies on it, px. */
    private static final double FINEST = 0.7;
    /** So many rungs are told apart. */
    private static final int MOST_RUNGS = 60;

    /**
     * What one spool fills; without one, plastic of which nobody has said what it is.
     *
     * @param turns where a fade begins and ends, px; of anything else nothing
     */
    public record Fill(Optional<SpoolMark> mark, String path, Optional<SectionDrawing.Turning> turns) {}

    /**
     * Something to point at.
     *
     * @param y px, and {@code height} of it downwards
     * @param kind its class
     */
    public record Mark(double y, double height, String kind, String title) {}

    /** A layer of a column, with what lies side by side in it. */
    private record Row(double from, double to, Map<SpoolId, Integer> percent) {}

    /** @param work with a sliced file */
    public static FileDrawing of(Workpiece work, int width, int height) {
        SlicedFile file = work.file().orElseThrow();
        LayerGrid grid = work.grid();
        double raft = work.match().map(m -> m.raft().millimetres()).orElse(0.0);
        List<SlicedLayer> runs = file.levels();
        double highest = Math.max(
                raft + grid.printedHeight().millimetres(),
                runs.stream().mapToDouble(r -> r.z().millimetres()).max().orElse(0));
        double scale = (height - TOP - FOOT) / highest;
        double bottom = height - FOOT;
        Scale y = new Scale(bottom, scale);
        return new FileDrawing(
                width,
                height,
                bottom,
                fills(work, fileRows(work, runs, raft), FILE_LEFT, y),
                fills(work, planRows(work, raft), PLAN_LEFT, y),
                swaps(work, raft, y),
                stops(work, raft, y),
                work.match().isPresent() ? "" : rungs(runs, grid, y),
                differs(work, raft, y),
                ruler(highest, y));
    }

    private record Scale(double bottom, double perMillimetre) {
        double at(double mm) {
            return bottom - mm * perMillimetre;
        }
    }

    private static List<Row> planRows(Workpiece work, double raft) {
        List<Row> rows = new ArrayList<>();
        LayerGrid grid = work.grid();
        for (int layer = 1; layer <= grid.count(); layer++) {
            LayerColours colours = work.colouring().layer(layer);
            Map<SpoolId, Double> areas = new LinkedHashMap<>();
            for (SpoolId spool : work.colours().numbering()) {
                colours.tint(spool).filter(Tint::prints).ifPresent(t -> areas.put(spool, t.squareMillimetres()));
            }
            rows.add(new Row(
                    raft + grid.bottom(layer).millimetres(),
                    raft + grid.top(layer).millimetres(),
                    percent(areas)));
        }
        return rows;
    }

    private static List<Row> fileRows(Workpiece work, List<SlicedLayer> runs, double raft) {
        List<Row> rows = new ArrayList<>();
        Optional<ToolTable> tools = work.tools();
        int before = work.match().map(GridMatch::before).orElse(0);
        double from = 0;
        for (int run = 0; run < runs.size(); run++) {
            SlicedLayer layer = runs.get(run);
            int number = run - before + 1;
            Map<SpoolId, Double> fed = new TreeMap<>((a, b) -> Integer.compare(
                    work.colours().numbering().indexOf(a),
                    work.colours().numbering().indexOf(b)));
            for (Stint stint : layer.stints()) {
                tools.filter(t -> number > 0)
                        .flatMap(t -> t.spool(stint.tool(), number))
                        .ifPresent(s -> fed.merge(s, stint.extruded(), Double::sum));
            }
            double to = layer.z().millimetres();
            // A raft leaves air, and the first layer is no thicker for it.
            from = number == 1 ? Math.max(from, raft) : from;
            rows.add(new Row(Math.min(from, to), to, percent(fed)));
            from = to;
        }
        return rows;
    }

    private static Map<SpoolId, Integer> percent(Map<SpoolId, Double> amounts) {
        double all = amounts.values().stream().mapToDouble(Double::doubleValue).sum();
        Map<SpoolId, Integer> percent = new LinkedHashMap<>();
        amounts.forEach((spool, amount) -> percent.put(spool, (int) Math.round(100 * amount / all)));
        return percent;
    }

    /** Neighbours that are alike, or too low to be told apart, as one block. */
    private static List<Fill> fills(Workpiece work, List<Row> rows, int left, Scale y) {
        Map<Optional<SpoolId>, SvgPath> paths = new LinkedHashMap<>();
        int row = 0;
        while (row < rows.size()) {
            Row first = rows.get(row);
            int last = row;
            while (last + 1 < rows.size()
                    && (rows.get(last + 1).percent().equals(first.percent())
                            || y.at(first.from()) - y.at(rows.get(last + 1).to()) < FINEST)) {
                last++;
            }
            block(paths, first, rows.get(last).to(), left, y);
            row = last + 1;
        }
        return paths.entrySet().stream()
                .map(e -> new Fill(
                        e.getKey().map(s -> SpoolMark.of(work, s)),
                        e.getValue().toString(),
                        e.getKey().flatMap(s -> turning(work, s, y))))
                .toList();
    }

    private static Optional<SectionDrawing.Turning> turning(Workpiece work, SpoolId paint, Scale y) {
        double raft = work.match().map(m -> m.raft().millimetres()).orElse(0.0);
        return work.colours()
                .mixtures()
                .find(paint)
                .flatMap(m -> m instanceof Mixture.Fade f ? Optional.of(f) : Optional.empty())
                .map(f -> new SectionDrawing.Turning(
                        y.at(raft + f.begins().millimetres()),
                        y.at(raft + f.ends().millimetres())));
    }

    private static void block(Map<Optional<SpoolId>, SvgPath> paths, Row row, double to, int left, Scale y) {
        double top = y.at(to);
        double height = y.at(row.from()) - top;
        double width = FILE_RIGHT - FILE_LEFT;
        if (row.percent().isEmpty()) {
            paths.computeIfAbsent(Optional.empty(), k -> SvgPath.coarse()).rectangle(left, top, width, height);
        }
        double at = left;
        double all = row.percent().values().stream().mapToInt(Integer::intValue).sum();
        for (Map.Entry<SpoolId, Integer> part : row.percent().entrySet()) {
            double wide = width * part.getValue() / all;
            paths.computeIfAbsent(Optional.of(part.getKey()), k -> SvgPath.coarse())
                    .rectangle(at, top, wide, height);
            at += wide;
        }
    }

    private static List<Mark> swaps(Workpiece work, double raft, Scale y) {
        return work.ledger().swaps().stream()
                .collect(Collectors.groupingBy(s -> s.layer(), TreeMap::new, Collectors.toList()))
                .values()
                .stream()
                .map(there -> new Mark(
                        SvgPath.hundredths(y.at(
                                raft + work.grid().bottom(there.get(0).layer()).millimetres())),
                        0,
                        "swap",
                        there.stream()
                                .map(s -> Words.format(
                                        "%s %s: %s to %s",
                                        s.name(), s.place(), work.label(s.out()), work.label(s.in())))
                                .collect(Collectors.joining("\n"))))
                .toList();
    }

    private static List<Mark> stops(Workpiece work, double raft, Scale y) {
        return work.stops().map(StopTable::rows).orElse(List.of()).stream()
                .map(r -> new Mark(
                        SvgPath.hundredths(y.at(
                                r.layer() == 0
                                        ? 0
                                        : raft + work.grid().bottom(r.layer()).millimetres())),
                        0,
                        r.choice().isPresent() ? "stop said" : "stop",
                        Words.format(
                                "Line %d: %s",
                                r.stop().line(), Words.quoted(r.stop().text()))))
                .toList();
    }

    /** Each from where a layer ends in the file to where it ends in the plan: level where they agree. */
    private static String rungs(List<SlicedLayer> runs, LayerGrid grid, Scale y) {
        SvgPath path = SvgPath.coarse();
        int count = Math.min(runs.size(), grid.count());
        int each = Math.max(1, count / MOST_RUNGS);
        for (int layer = 1; layer <= count; layer += each) {
            path.move(FILE_RIGHT, y.at(runs.get(layer - 1).z().millimetres()))
                    .line(PLAN_LEFT, y.at(grid.top(layer).millimetres()));
        }
        return path.toString();
    }

    private static List<Mark> differs(Workpiece work, double raft, Scale y) {
        List<Mark> marks = new ArrayList<>();
        List<Integer> others = work.tools().map(ToolTable::others).orElse(List.of());
        for (int i = 0; i < others.size(); i++) {
            int first = others.get(i);
            while (i + 1 < others.size() && others.get(i + 1) == others.get(i) + 1) {
                i++;
            }
            int last = others.get(i);
            double top = y.at(raft + work.grid().top(last).millimetres());
            marks.add(new Mark(
                    SvgPath.hundredths(top),
                    SvgPath.hundredths(
                            Math.max(2, y.at(raft + work.grid().bottom(first).millimetres()) - top)),
                    "differs",
                    first == last
                            ? Words.format("Layer %d has other colours", first)
                            : Words.format("Layers %d–%d have other colours", first, last)));
        }
        return marks;
    }

    private static List<SectionDrawing.Tick> ruler(double highest, Scale y) {
        List<SectionDrawing.Tick> ticks = new ArrayList<>();
        double step = Ticks.step(highest, 9);
        int decimals = step < 0.1 ? 2 : step < 1 ? 1 : 0;
        for (int i = 0; i * step <= highest + 1e-9; i++) {
            ticks.add(new SectionDrawing.Tick(y.at(i * step), Words.format("%." + decimals + "f", i * step)));
        }
        return ticks;
    }
}
