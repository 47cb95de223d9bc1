package dev.tranche.core.sequence;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * The cheapest order there is of all stages' colours: the dynamic programming of {@link Tours} within a stage, begun with
 * what it costs to arrive at each of its colours from the stage before. What the print begins with is free.
 *
 * <p>Stages that are alike, and entered alike, are passed once, so that a thousand equal layers cost little more than one.
 *
 * @param orders of each stage, as places in the palette; nothing for an empty stage
 * @param cost of all of it
 * @param proven whether no order is cheaper: false where a stage holds more than {@value Tours#EXACT} colours
 */
record BestOrder(List<int[]> orders, long cost, boolean proven) {

    static BestOrder of(List<Stage> stages, SwapCosts costs) {
        Map<Stage, Tours> tours =
                stages.stream().distinct().collect(Collectors.toMap(Function.identity(), s -> Tours.of(s, costs)));
        return new Run(stages.stream().map(tours::get).toArray(Tours[]::new), costs).best();
    }

    private static final class Run {
        private final Tours[] tours;
        private final SwapCosts costs;
        private final Tours.Passage[] passages;
        /** For each stage, by its colours: the one that is loaded before it is begun with each, as a place in the palette. */
        private final int[][] loaded;
        /** What the cheapest way to begin the present stage costs; the passages count from there. */
        private long spent;

        Run(Tours[] tours, SwapCosts costs) {
            this.tours = tours;
            this.costs = costs;
            this.passages = new Tours.Passage[tours.length];
            this.loaded = new int[tours.length][];
        }

        BestOrder best() {
            int last = -1;
            for (int i = 0; i < tours.length; i++) {
                if (tours[i].size() > 0) {
                    passages[i] = tours[i].passage(entered(i, last));
                    last = i;
                }
            }
            if (last < 0) {
                return new BestOrder(List.of(new int[tours.length][0]), 0, true);
            }
            long[] costs = passages[last].costs();
            int end = 0;
            for (int c = 1; c < costs.length; c++) {
                end = costs[c] < costs[end] ? c : end;
            }
            boolean proven = Arrays.stream(tours).allMatch(Tours::exact);
            return new BestOrder(traced(tours[last].colour(end)), spent + costs[end], proven);
        }

        /** What it costs to begin {@code stage} with each of its colours, above the least of that. */
        private long[] entered(int stage, int previous) {
            int k = tours[stage].size();
            loaded[stage] = new int[k];
            long[] entered = new long[k];
            if (previous < 0) {
                return entered;
            }
            long[] passed = passages[previous].costs();
            Arrays.fill(entered, Tours.NO_WAY);
            for (int first = 0; first < k; first++) {
                for (int end = 0; end < passed.length; end++) {
                    int from = tours[previous].colour(end);
                    long cost = passed[end] + costs.of(from, tours[stage].colour(first));
                    if (cost < entered[first]) {
                        entered[first] = cost;
                        loaded[stage][first] = from;
                    }
                }
            }
            long least = Arrays.stream(entered).min().getAsLong();
            spent += least;
            for (int first = 0; first < k; first++) {
                entered[first] -= least;
            }
            return entered;
        }

        private List<int[]> traced(int lastColour) {
            int[][] orders = new int[tours.length][];
            int end = lastColour;
            for (int i = tours.length - 1; i >= 0; i--) {
                Tours t = tours[i];
                if (t.size() == 0) {
                    orders[i] = new int[0];
                    continue;
                }
                int[] way = passages[i].way(t.place(end));
                end = loaded[i][way[0]];
                orders[i] = Arrays.stream(way).map(t::colour).toArray();
            }
            return List.of(orders);
        }
    }
}
