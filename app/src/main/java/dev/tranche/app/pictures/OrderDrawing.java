package dev.tranche.app.pictures;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Band;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The order inside some layers: a column a layer, or a band, printed from the bottom up; a dot where a spool is swapped.
 *
 * @param width px, as {@code height}
 * @param cells one a pass
 * @param dots one a swap
 * @param numbers of the layers, under the columns
 * @param first layer shown, from 1, as {@code last}
 * @param mixed whether any layer of the print has two colours
 */
public record OrderDrawing(
        int width,
        int height,
        List<Cell> cells,
        List<Dot> dots,
        List<Label> numbers,
        int first,
        int last,
        boolean mixed) {
    private static final int MOST_LAYERS = 40;
    private static final double TOP = 6;
    private static final double ROOM = 44;
    private static final double FOOT = 16;

    /** One colour being printed. */
    public record Cell(SpoolMark mark, String hex, double x, double y, double width, double height, String title) {}

    /** A swap. */
    public record Dot(double x, double y) {}

    /** The number of a layer. */
    public record Label(double x, String text) {}

    /** A column: layers printed together, and their colours in order. */
    private record Column(int first, int last, List<SpoolId> spools) {}

    /**
     * @param bands in which the order prints; none for layer by layer
     * @param from the first layer of interest
     */
    public static OrderDrawing of(Workpiece work, PrintOrder order, List<Band> bands, int from, int width) {
        List<Column> things = things(order);
        return things.isEmpty()
                ? of(
                        work,
                        order,
                        columns(order, bands, work.grid().count()),
                        "layer",
                        work.grid().count(),
                        from,
                        width)
                : of(work, order, things, "thing", things.size(), 1, width);
    }

    private static OrderDrawing of(
            Workpiece work, PrintOrder order, List<Column> columns, String each, int count, int from, int width) {
        int first = Math.max(1, Math.min(from - 1, count - MOST_LAYERS + 1));
        int last = Math.min(count, first + MOST_LAYERS - 1);
        double pitch = Math.min(60.0, (double) width / (last - first + 1));
        List<Cell> cells = new ArrayList<>();
        List<Dot> dots = new ArrayList<>();
        List<Label> numbers = new ArrayList<>();
        SpoolId loaded = null;
        for (Column column : columns) {
            int left = Math.max(first, column.first());
            int right = Math.min(last, column.last());
            if (left > right) {
                loaded = column.spools().get(column.spools().size() - 1);
                continue;
            }
            double x = (left - first) * pitch;
            double w = (right - left + 1) * pitch;
            double h = ROOM / column.spools().size();
            for (int i = 0; i < column.spools().size(); i++) {
                SpoolId spool = column.spools().get(i);
                double y = TOP + ROOM - (i + 1) * h;
                SpoolMark mark = SpoolMark.of(work, spool);
                String hex = mark.fade().isEmpty() || !"layer".equals(each)
                        ? ""
                        : work.paints().at(spool, (left + right) / 2).colour().hex();
                cells.add(new Cell(
                        mark, hex, x + 0.5, y, w - 1, h, named(column, each) + ": " + (i + 1) + ". " + mark.name()));
                if (loaded != null && !loaded.equals(spool) && !loaded.isMixture() && !spool.isMixture()) {
                    dots.add(i == 0 ? new Dot(x, TOP + ROOM - 3) : new Dot(x + w / 2, y + h));
                }
                loaded = spool;
            }
            if (pitch > 22 || column.first() % 5 == 0 || column.last() > column.first()) {
                numbers.add(new Label(x + w / 2, left == right ? "" + left : left + "–" + right));
            }
        }
        return new OrderDrawing(
                width, (int) (TOP + ROOM + FOOT), cells, dots, numbers, first, last, order.mixedLayers() > 0);
    }

    private static String named(Column c, String each) {
        return c.first() == c.last() ? each + " " + c.first() : each + "s " + c.first() + "–" + c.last();
    }

    /** What is printed whole, one after another, each with its colours as they come; none where all is printed together. */
    private static List<Column> things(PrintOrder order) {
        List<Column> things = new ArrayList<>();
        int last = -1;
        for (Pass pass : order.passes()) {
            if (pass.thing().isEmpty()) {
                continue;
            }
            if (pass.thing().getAsInt() != last) {
                last = pass.thing().getAsInt();
                things.add(new Column(things.size() + 1, things.size() + 1, new ArrayList<>()));
            }
            List<SpoolId> spools = things.get(things.size() - 1).spools();
            if (spools.isEmpty() || !spools.get(spools.size() - 1).equals(pass.spool())) {
                spools.add(pass.spool());
            }
        }
        return things;
    }

    private static List<Column> columns(PrintOrder order, List<Band> bands, int count) {
        int[] column = new int[count + 1];
        int[] ends = new int[count + 1];
        for (int layer = 1; layer <= count; layer++) {
            column[layer] = layer;
            ends[layer] = layer;
        }
        for (Band band : bands) {
            for (int layer = band.first(); layer <= band.last(); layer++) {
                column[layer] = band.first();
            }
            ends[band.first()] = band.last();
        }
        Map<Integer, List<SpoolId>> spools = new LinkedHashMap<>();
        for (Pass pass : order.passes()) {
            List<SpoolId> here = spools.computeIfAbsent(column[pass.layer()], k -> new ArrayList<>());
            if (!here.contains(pass.spool())) {
                here.add(pass.spool());
            }
        }
        return spools.entrySet().stream()
                .map(e -> new Column(e.getKey(), ends[e.getKey()], e.getValue()))
                .toList();
    }
}
