package dev.tranche.core.sequence;

import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Things printed whole, one after another, each layer of each as slicing programs do it. They come in the order that goes on with
 * the loaded spool most often: from every kind of thing that could be the first, always the one that needs fewest swaps next.
 */
final class OneAfterAnother {
    private final List<SpoolId> palette;
    private final NumberedOrder numbered;
    private final List<Thing> things;
    private final Map<List<LayerColours>, List<Stage>> stages = new IdentityHashMap<>();
    private final Map<List<LayerColours>, Map<Integer, Step>> steps = new IdentityHashMap<>();

    OneAfterAnother(List<SpoolId> palette, NumberedOrder numbered, List<Thing> things) {
        this.palette = palette;
        this.numbered = numbered;
        this.things = things;
        things.forEach(t -> stages.computeIfAbsent(
                t.layers(), layers -> layers.stream().map(this::stage).toList()));
    }

    private Stage stage(LayerColours layer) {
        return Stage.of(
                layer.spools().stream().mapToInt(s -> 1 << palette.indexOf(s)).reduce(0, (a, b) -> a | b));
    }

    PrintOrder order() {
        double[] whole = new double[things.get(0).layers().size()];
        things.forEach(t -> {
            for (int i = 0; i < whole.length; i++) {
                whole[i] += size(t.layers().get(i));
            }
        });
        double[] done = new double[whole.length];
        List<Pass> passes = new ArrayList<>();
        SpoolId loaded = first();
        boolean begun = false;
        for (int number : best()) {
            Thing thing = things.get(number);
            List<int[]> colours = orders(thing, begun ? palette.indexOf(loaded) : -1);
            for (int i = 0; i < whole.length; i++) {
                if (whole[i] == 0 && !begun) {
                    // A layer in which nothing prints belongs to whatever is loaded.
                    passes.add(new Pass(i + 1, loaded, 0, 1));
                }
                for (int place : colours.get(i)) {
                    loaded = palette.get(place);
                    double from = Math.min(1, done[i] / whole[i]);
                    done[i] += thing.layers().get(i).tint(loaded).orElseThrow().squareMillimetres();
                    // What is left of adding up areas is no work.
                    double to = done[i] > whole[i] * (1 - 1e-9) ? 1 : done[i] / whole[i];
                    passes.add(new Pass(i + 1, loaded, from, to).of(number));
                }
            }
            begun = true;
        }
        return new PrintOrder(passes, false);
    }

    /** The spool that is loaded first. */
    private SpoolId first() {
        return orders(things.get(best().get(0)), -1).stream()
                .filter(o -> o.length > 0)
                .findFirst()
                .map(o -> palette.get(o[0]))
                .orElse(palette.get(0));
    }

    private static double size(LayerColours layer) {
        return layer.tints().stream()
                .filter(Tint::prints)
                .mapToDouble(Tint::squareMillimetres)
                .sum();
    }

    /** The colours of each layer in their order, as places in the palette. */
    private List<int[]> orders(Thing thing, int loaded) {
        List<int[]> orders = new ArrayList<>();
        int last = loaded;
        for (Stage stage : stages.get(thing.layers())) {
            int[] order = numbered.order(stage.colours(), last);
            orders.add(order);
            last = order.length == 0 ? last : order[order.length - 1];
        }
        return orders;
    }

    /** What a thing needs, printed after a spool, and the spool it leaves. */
    private record Step(int swaps, int loaded) {}

    private Step step(Thing thing, int loaded) {
        return steps.computeIfAbsent(thing.layers(), l -> new HashMap<>()).computeIfAbsent(loaded, from -> {
            int swaps = 0;
            int at = from;
            for (Stage stage : stages.get(thing.layers())) {
                for (int c : numbered.order(stage.colours(), at)) {
                    swaps += at >= 0 && c != at ? 1 : 0;
                    at = c;
                }
            }
            return new Step(swaps, at);
        });
    }

    /** Places of the things, in the order in which they are printed. */
    private List<Integer> best() {
        List<Integer> best = List.of();
        int fewest = Integer.MAX_VALUE;
        Map<List<LayerColours>, Boolean> tried = new IdentityHashMap<>();
        boolean allLast = things.stream().allMatch(Thing::lastOnly);
        for (int first = 0; first < things.size(); first++) {
            Thing thing = things.get(first);
            if ((allLast || !thing.lastOnly()) && tried.put(thing.layers(), true) == null) {
                List<Integer> order = new ArrayList<>();
                int swaps = from(first, order);
                if (swaps < fewest) {
                    fewest = swaps;
                    best = order;
                }
            }
        }
        return best;
    }

    private int from(int first, List<Integer> order) {
        List<Integer> left = IntStream.range(0, things.size())
                .filter(i -> i != first)
                .boxed()
                .collect(Collectors.toCollection(ArrayList::new));
        order.add(first);
        Step step = step(things.get(first), -1);
        int swaps = step.swaps();
        while (!left.isEmpty()) {
            int loaded = step.loaded();
            int next = IntStream.range(0, left.size())
                    .boxed()
                    .min(Comparator.comparing(
                                    (Integer i) -> things.get(left.get(i)).lastOnly())
                            .thenComparingInt(
                                    i -> step(things.get(left.get(i)), loaded).swaps()))
                    .orElseThrow();
            step = step(things.get(left.get(next)), loaded);
            swaps += step.swaps();
            order.add(left.remove((int) next));
        }
        return swaps;
    }
}
