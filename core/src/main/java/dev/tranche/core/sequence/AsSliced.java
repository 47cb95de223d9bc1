package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Starts;
import dev.tranche.core.sequence.ToolTable.Tool;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A plan by height as its sliced file prints it.
 *
 * @param plan with the colours of the file
 * @param added the spools that the plan did not print with, by the numbers of their tools
 */
public record AsSliced(ColourPlan plan, SortedMap<Integer, SpoolId> added) {
    public AsSliced {
        added = Collections.unmodifiableSortedMap(new TreeMap<>(added));
    }

    /**
     * The colours of a file that changes tools between layers.
     *
     * @param tools that it prints with, as far as they stand for spools
     * @param spare spools for those that stand for none, the first first
     * @return empty where plan or file has several colours on a layer, one tool stands for several spools, there are not
     *     spools enough, or the plan is such already
     */
    public static Optional<AsSliced> of(GridMatch match, ColourPlan plan, ToolTable tools, List<SpoolId> spare) {
        Optional<List<Integer>> numbers = byLayer(match);
        boolean inTurn = tools.tools().stream().anyMatch(t -> t.turns().size() > 1);
        if (numbers.isEmpty() || inTurn || !isByHeight(plan)) {
            return Optional.empty();
        }
        Map<Integer, SpoolId> spools = new HashMap<>();
        SortedMap<Integer, SpoolId> added = new TreeMap<>();
        Iterator<SpoolId> more = spare.iterator();
        for (Tool tool : tools.tools()) {
            Optional<SpoolId> known = tool.spool(tool.first());
            if (known.isEmpty() && numbers.get().contains(tool.number()) && more.hasNext()) {
                added.put(tool.number(), more.next());
            }
            spools.put(tool.number(), known.orElse(added.get(tool.number())));
        }
        List<SpoolId> layers = numbers.get().stream().map(spools::get).toList();
        if (layers.contains(null)) {
            return Optional.empty();
        }
        Set<SpoolId> lettered = new HashSet<>(plan.palette());
        lettered.addAll(layers);
        return starts(layers) > Starts.MOST || lettered.size() > ColourPlan.MOST_SPOOLS
                ? Optional.empty()
                : Optional.of(new AsSliced(plan.layered(layers, match.grid()), added))
                        .filter(a -> !a.plan().equals(plan));
    }

    /**
     * A colour from each of these layers on.
     *
     * @param above the layers, from 2
     * @param spare spools that take turns with the plan's own; not empty
     */
    public static ColourPlan turning(LayerGrid grid, ColourPlan plan, Set<Integer> above, List<SpoolId> spare) {
        List<SpoolId> turns = Stream.concat(Stream.of(plan.starts().get(0).spool()), spare.stream())
                .limit(ColourPlan.MOST_SPOOLS)
                .toList();
        List<SpoolId> layers = new ArrayList<>();
        int turn = 0;
        for (int layer = 1; layer <= grid.count(); layer++) {
            turn += above.contains(layer) ? 1 : 0;
            layers.add(turns.get(turn % turns.size()));
        }
        return plan.layered(layers, grid);
    }

    /** Whether each layer of the plan has one colour, wherever the model has what. */
    public static boolean isByHeight(ColourPlan plan) {
        return plan.regions().list().isEmpty() && plan.mixed().isEmpty();
    }

    private static long starts(List<SpoolId> layers) {
        return 1
                + IntStream.range(1, layers.size())
                        .filter(i -> !layers.get(i).equals(layers.get(i - 1)))
                        .count();
    }

    /** The tool of each layer; empty if several print on one. */
    private static Optional<List<Integer>> byLayer(GridMatch match) {
        List<List<Integer>> tools = match.layers().stream()
                .map(l -> l.stints().stream().map(Stint::tool).distinct().toList())
                .toList();
        return tools.stream().allMatch(t -> t.size() == 1)
                ? Optional.of(tools.stream().map(t -> t.get(0)).toList())
                : Optional.empty();
    }
}
