package dev.tranche.core.sequence;

import dev.tranche.core.coat.Patches;
import dev.tranche.core.coat.Patches.Patch;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Starts;
import dev.tranche.core.sequence.ToolTable.Tool;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A plan as its sliced file prints it.
 *
 * @param plan with the colours of the file
 * @param added the spools that the plan did not print with, by the numbers of their tools
 */
public record AsSliced(ColourPlan plan, SortedMap<Integer, SpoolId> added) {
    public AsSliced {
        added = Collections.unmodifiableSortedMap(new TreeMap<>(added));
    }

    /**
     * The colours of a file that changes tools between layers, whatever it prints round the model.
     *
     * @param tools that it prints with, as far as they stand for spools
     * @param spare spools for those that stand for none, the first first
     * @return empty where plan or file has several colours on a layer, one tool stands for several spools, there are not
     *     spools enough, or the plan is such already
     */
    public static Optional<AsSliced> byHeight(
            Surroundings file, ColourPlan plan, ToolTable tools, List<SpoolId> spare) {
        if (!isByHeight(plan)) {
            return Optional.empty();
        }
        LayerGrid grid = file.match().grid();
        return byLayer(file)
                .flatMap(numbers -> Given.to(file, numbers, tools, spare)
                        .filter(given -> starts(numbers) <= Starts.MOST && given.isLetteredIn(plan))
                        .map(given -> given.sliced(plan.layered(
                                numbers.stream().map(given.spools()::get).toList(), grid))))
                .filter(a -> !a.plan().equals(plan));
    }

    /**
     * The colours of a file that prints each part of the model with one tool.
     *
     * @param names of the parts
     * @return empty as of {@link #byHeight}, where the plan has regions that are not of whole parts, or where it is not told
     *     which tool prints which part
     */
    public static Optional<AsSliced> byPart(
            Surroundings file, Colouring colouring, List<String> names, ToolTable tools, List<SpoolId> spare) {
        ColourPlan plan = colouring.plan();
        if (!plan.mixed().isEmpty() || !plan.regions().areWholeParts()) {
            return Optional.empty();
        }
        return PartTools.of(file).flatMap(parts -> Given.to(file, parts.tools().values(), tools, spare)
                .filter(given -> given.isLetteredIn(plan) && !(isColoured(plan, parts, given) && given.holds(plan)))
                .map(given ->
                        given.sliced(coloured(plan, file.match().grid(), parts, most(parts, tools), given, names))));
    }

    /**
     * The colours of the plan, with spools for what the file prints beside the model.
     *
     * @return empty where tools that stand for none print anything of the model, or there are none
     */
    public static Optional<AsSliced> beside(Surroundings file, ColourPlan plan, ToolTable tools, List<SpoolId> spare) {
        Set<Integer> without = tools.tools().stream()
                .filter(t -> t.turns().isEmpty())
                .map(Tool::number)
                .collect(Collectors.toSet());
        return Optional.of(without)
                .filter(w -> !w.isEmpty() && file.toolsBesideAll().containsAll(w))
                .flatMap(w -> Given.to(file, w, tools, spare))
                .filter(given -> given.isLetteredIn(plan))
                .map(given -> given.sliced(plan));
    }

    /**
     * The colours of a file that prints one part with several tools, as it lays its lines.
     *
     * @param tools as of {@link #byHeight}, {@code spare} likewise
     * @throws Refusal if there are not spools enough, one tool stands for several, or the plan blends
     */
    public static AsSliced painted(
            Surroundings file, Painting painting, ColourPlan plan, ToolTable tools, List<SpoolId> spare) {
        LayerGrid grid = file.match().grid();
        if (!plan.mixed().isEmpty()) {
            throw new Refusal(
                    "The plan has blends, and none of them is in the file; take them out, then draw its colours.");
        }
        Set<Integer> numbers = new TreeSet<>(Set.of(painting.base()));
        painting.patches().forEach(p -> numbers.add(p.label()));
        Given given = Given.to(file, numbers, tools, spare)
                .filter(g -> g.isLetteredIn(plan))
                .orElseThrow(() -> Refusal.of(
                        "The file's %s need as many spools of one material; put more on the shelf, or say at the hand-off which spool each stands for.",
                        Words.count(tools.tools().size(), "tool")));
        Regions regions = Regions.NONE;
        for (List<Patch> patches : painting.patches().stream()
                .collect(Collectors.groupingBy(Patch::label, TreeMap::new, Collectors.toList()))
                .values()) {
            int tool = patches.get(0).label();
            for (Region region : Patches.regions(
                    patches,
                    "T" + tool,
                    "T" + tool + " of the file",
                    given.spools().get(tool),
                    grid)) {
                regions = regions.plus(region);
            }
        }
        ColourPlan base = plan.with(Regions.NONE)
                .layered(Collections.nCopies(grid.count(), given.spools().get(painting.base())), grid);
        return given.sliced(base.with(regions));
    }

    /** Whether each part has its colour, by whatever regions. */
    private static boolean isColoured(ColourPlan plan, PartTools parts, Given given) {
        return plan.starts().size() == 1
                && parts.tools().entrySet().stream().allMatch(t -> {
                    int region = plan.regions().ofPart(t.getKey());
                    SpoolId now = region < 0
                            ? plan.starts().get(0).spool()
                            : plan.regions().get(region).spool();
                    return now.equals(given.spools().get(t.getValue()));
                });
    }

    /** Of the tools of the parts the one that extrudes most. */
    private static int most(PartTools parts, ToolTable tools) {
        return tools.tools().stream()
                .filter(t -> parts.tools().containsValue(t.number()))
                .max(Comparator.comparingDouble(Tool::filament))
                .orElseThrow()
                .number();
    }

    private static ColourPlan coloured(
            ColourPlan plan, LayerGrid grid, PartTools parts, int base, Given given, List<String> names) {
        Regions regions = Regions.NONE;
        for (int tool : new TreeSet<>(parts.tools().values())) {
            Set<Integer> its = parts.of(tool);
            if (tool != base) {
                String first = names.get(Collections.min(its));
                Regions before = regions;
                String name = Words.free(
                        its.size() == 1 ? first : first + " and others",
                        Region.LONGEST_NAME,
                        taken -> before.list().stream().anyMatch(r -> r.name().equals(taken)));
                regions = before.colouring(its, name, given.spools().get(tool));
            }
        }
        return plan.with(Regions.NONE)
                .layered(Collections.nCopies(grid.count(), given.spools().get(base)), grid)
                .with(regions);
    }

    /** The spools that tools stand for, and which of them are {@code added} to those they stood for before. */
    private record Given(Map<Integer, SpoolId> spools, SortedMap<Integer, SpoolId> added) {
        /** For the tools that print the model, and for those that print nothing of it. */
        static Optional<Given> to(
                Surroundings file, Collection<Integer> ofModel, ToolTable tools, List<SpoolId> spare) {
            Set<Integer> numbers = new TreeSet<>(ofModel);
            numbers.addAll(file.toolsBesideAll());
            if (tools.tools().stream().anyMatch(t -> t.turns().size() > 1)) {
                return Optional.empty();
            }
            Map<Integer, SpoolId> spools = new HashMap<>();
            SortedMap<Integer, SpoolId> added = new TreeMap<>();
            Iterator<SpoolId> more = spare.stream()
                    .filter(s ->
                            numbers.stream().noneMatch(n -> tools.spool(n, 1).equals(Optional.of(s))))
                    .iterator();
            for (int number : numbers) {
                Optional<SpoolId> known = tools.spool(number, 1);
                if (known.isEmpty() && !more.hasNext()) {
                    return Optional.empty();
                }
                SpoolId spool = known.orElseGet(more::next);
                spools.put(number, spool);
                if (known.isEmpty()) {
                    added.put(number, spool);
                }
            }
            return Optional.of(new Given(spools, added));
        }

        /** A plan in the colours of the model, with letters for the others as well. */
        AsSliced sliced(ColourPlan plan) {
            return new AsSliced(plan.holding(new TreeMap<>(spools).values()), added);
        }

        boolean holds(ColourPlan plan) {
            return plan.palette().containsAll(spools.values());
        }

        boolean isLetteredIn(ColourPlan plan) {
            Set<SpoolId> lettered = new HashSet<>(plan.palette());
            lettered.addAll(spools.values());
            return lettered.size() <= ColourPlan.MOST_SPOOLS;
        }
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

    private static long starts(List<Integer> layers) {
        return 1
                + IntStream.range(1, layers.size())
                        .filter(i -> !layers.get(i).equals(layers.get(i - 1)))
                        .count();
    }

    /** The tool of each layer; empty if several print on one, or none does. */
    private static Optional<List<Integer>> byLayer(Surroundings file) {
        int layers = file.match().grid().count();
        List<Integer> tools = IntStream.rangeClosed(1, layers)
                .mapToObj(file::toolsOfModel)
                .takeWhile(t -> t.size() == 1)
                .map(t -> t.iterator().next())
                .toList();
        return Optional.of(tools).filter(t -> t.size() == layers);
    }
}
