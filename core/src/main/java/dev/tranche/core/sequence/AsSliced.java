package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Starts;
import dev.tranche.core.sequence.ToolTable.Tool;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A plan by height as its sliced file prints it.
 *
 * @param plan with the colours of the file
 * @param added the spools that the plan did not print with, by the numbers of their tools
 */
public record AsSliced(ColourPlan plan, Map<Integer, SpoolId> added) {
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
        if (numbers.isEmpty() || !isByHeight(plan)) {
            return Optional.empty();
        }
        Map<Integer, SpoolId> spools = new TreeMap<>();
        Map<Integer, SpoolId> added = new LinkedHashMap<>();
        Iterator<SpoolId> more = spare.iterator();
        for (Tool tool : tools.tools()) {
            if (tool.first() == 0) {
                continue;
            }
            if (tool.turns().size() > 1 || (tool.turns().isEmpty() && !more.hasNext())) {
                return Optional.empty();
            }
            if (tool.turns().isEmpty()) {
                added.put(tool.number(), more.next());
            }
            spools.put(
                    tool.number(),
                    tool.turns().isEmpty()
                            ? added.get(tool.number())
                            : tool.turns().get(0).spool());
        }
        List<SpoolId> layers = numbers.get().stream().map(spools::get).toList();
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
    public static ColourPlan turning(GridMatch match, ColourPlan plan, Set<Integer> above, List<SpoolId> spare) {
        List<SpoolId> turns = Stream.concat(Stream.of(plan.starts().get(0).spool()), spare.stream())
                .limit(ColourPlan.MOST_SPOOLS)
                .toList();
        List<SpoolId> layers = new ArrayList<>();
        int turn = 0;
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            turn += above.contains(layer) ? 1 : 0;
            layers.add(turns.get(turn % turns.size()));
        }
        return plan.layered(layers, match.grid());
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
