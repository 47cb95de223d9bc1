package dev.tranche.core.rearrange;

import dev.tranche.core.check.Bench;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A block of three by three cells of 8 mm, of which each has a colour of its own on each layer: stacks in any order.
 *
 * @param colours of the cells, layer by layer, from 0
 */
record Patchwork(List<List<Integer>> colours) {
    static final int CELLS = 9;
    private static final double WIDE = 8;
    private static final List<Spool> PALETTE = List.of(
            Spools.SOOT,
            Spools.CHALK,
            Spools.BURGUNDY,
            Spools.spool(21, "Leaf", "#3E7D3A"),
            Spools.spool(22, "Pond", "#2F6C8C"));

    Bench bench(Ordering.Rule rule, double reach) {
        Bench bench = new Bench();
        PALETTE.forEach(s -> bench.shelf.put(s.id(), s));
        bench.printer = Printers.reaching(reach);
        bench.mesh = new Shapes()
                .box(0, 0, 0, 3 * WIDE, 3 * WIDE, 0.2 * colours.size())
                .mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        for (int layer = 1; layer <= colours.size(); layer++) {
            for (int cell = 0; cell < CELLS; cell++) {
                int colour = colours.get(layer - 1).get(cell);
                if (colour > 0) {
                    bench.region(new Region(
                            "cell " + cell + " of " + layer,
                            new Shape.Zone(
                                    new Outline.Box(WIDE, WIDE),
                                    WIDE * (cell % 3) + WIDE / 2,
                                    WIDE * (cell / 3) + WIDE / 2,
                                    0,
                                    false),
                            PALETTE.get(colour).id(),
                            Range.ofLayers(bench.grid, layer, layer)));
                }
            }
        }
        bench.plan = bench.plan.with(bench.plan.ordering().by(rule));
        return bench;
    }

    /** As it is sliced: on each layer the loaded tool first, then the others by number. */
    byte[] bytes() {
        StringBuilder out = new StringBuilder("M109 S210\nG28\nG90\nM83\n");
        int loaded = -1;
        Set<Integer> used = new HashSet<>();
        for (int layer = 1; layer <= colours.size(); layer++) {
            List<Integer> cells = colours.get(layer - 1);
            int first = loaded;
            List<Integer> tools = cells.stream()
                    .distinct()
                    .sorted((a, b) -> a == first ? -1 : b == first ? 1 : Integer.compare(a, b))
                    .toList();
            out.append("G1 Z").append(number(0.2 * layer)).append(" F600\n");
            for (int tool : tools) {
                if (tool != loaded) {
                    out.append(loaded < 0 ? "" : "G1 E-2 F1800\n")
                            .append('T')
                            .append(tool)
                            .append('\n');
                    // One that has not been used is not drawn back.
                    out.append(used.add(tool) ? "" : "G1 E2 F1800\n");
                    loaded = tool;
                }
                for (int cell = 0; cell < CELLS; cell++) {
                    if (cells.get(cell) == tool) {
                        cell(out, cell, layer);
                    }
                }
            }
        }
        return out.append("G91\nG1 Z5\nG90\nM104 S0\n").toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** Lines to and fro, along on one layer and across on the next. */
    private static void cell(StringBuilder out, int cell, int layer) {
        double x = 60 + WIDE * (cell % 3) + 0.2;
        double y = 60 + WIDE * (cell / 3) + 0.2;
        double wide = WIDE - 0.4;
        for (int i = 0; i <= 4; i++) {
            double at = wide * i / 4;
            boolean along = layer % 2 == 0;
            boolean back = i % 2 == 1;
            double fromX = along ? x + (back ? wide : 0) : x + at;
            double fromY = along ? y + at : y + (back ? wide : 0);
            double toX = along ? x + (back ? 0 : wide) : x + at;
            double toY = along ? y + at : y + (back ? 0 : wide);
            out.append("G0 X")
                    .append(number(fromX))
                    .append(" Y")
                    .append(number(fromY))
                    .append(" F7200\n");
            out.append("G1 X")
                    .append(number(toX))
                    .append(" Y")
                    .append(number(toY))
                    .append(" E0.25 F1800\n");
        }
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.4f", value);
    }
}
