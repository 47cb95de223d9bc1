package dev.tranche.core.sequence;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * The cheapest order there is of all stages' colours: dynamic programming over the colour that is loaded at the end of
 * each stage, with the ways through one stage from {@link Tours}. What the print begins with is free.
 *
 * <p>Stages that are alike share their ways, so that a thousand layers cost little more than their distinct sets.
 *
 * @param orders of each stage, as places in the palette; nothing for an empty stage
 * @param cost of all of it
 * @param proven whether no order is cheaper: false where a stage holds more than {@value Tours#EXACT} colours
 */
record BestOrder(List<int[]> orders, long cost, boolean proven) {

    static BestOrder of(List<Stage> stages, SwapCosts costs) {
        Map<Stage, Tours> tours = stages.stream().distinct().collect(Collectors.toList()).parallelStream()
                .collect(Collectors.toConcurrentMap(s -> s, s -> Tours.of(s, costs)));
        return new Run(stages.stream().map(tours::get).toArray(Tours[]::new), costs).best();
    }

    private static final class Run {
        private final Tours[] tours;
        private final SwapCosts costs;
        /** For each stage, by the colour it ends with: the one it begins with, and the one loaded before it. */
        private final byte[][] firsts;

        private final byte[][] loaded;

        Run(Tours[] tours, SwapCosts costs) {
            this.tours = tours;
            this.costs = costs;
            this.firsts = new byte[tours.length][];
            this.loaded = new byte[tours.length][];
        }

        BestOrder best() {
            long[] best = null;
            for (int i = 0; i < tours.length; i++) {
                if (tours[i].size() > 0) {
                    best = after(i, best);
                }
            }
            if (best == null) {
                return new BestOrder(List.of(new int[tours.length][0]), 0, true);
            }
            int end = 0;
            for (int c = 1; c < best.length; c++) {
                end = best[c] < best[end] ? c : end;
            }
            boolean proven = Arrays.stream(tours).allMatch(Tours::exact);
            return new BestOrder(traced(end), best[end], proven);
        }

        /** @param before what it costs to be at this stage with each colour loaded; null at the beginning */
        private long[] after(int stage, long[] before) {
            Tours t = tours[stage];
            int k = t.size();
            long[] after = new long[costs.size()];
            Arrays.fill(after, Tours.NO_WAY);
            firsts[stage] = new byte[costs.size()];
            loaded[stage] = new byte[costs.size()];
            for (int first = 0; first < k; first++) {
                int colour = t.colour(first);
                int from = colour;
                long entered = before == null ? 0 : Tours.NO_WAY;
                for (int p = 0; before != null && p < before.length; p++) {
                    if (before[p] != Tours.NO_WAY && before[p] + costs.of(p, colour) < entered) {
                        entered = before[p] + costs.of(p, colour);
                        from = p;
                    }
                }
                for (int last = 0; last < k; last++) {
                    long length = t.length(first, last);
                    int end = t.colour(last);
                    if (length != Tours.NO_WAY && entered + length < after[end]) {
                        after[end] = entered + length;
                        firsts[stage][end] = (byte) first;
                        loaded[stage][end] = (byte) from;
                    }
                }
            }
            return after;
        }

        private List<int[]> traced(int lastColour) {
            int[][] orders = new int[tours.length][];
            Map<Long, int[]> known = new HashMap<>();
            Map<Tours, Integer> numbers = new HashMap<>();
            int end = lastColour;
            for (int i = tours.length - 1; i >= 0; i--) {
                Tours t = tours[i];
                if (t.size() == 0) {
                    orders[i] = new int[0];
                    continue;
                }
                int first = firsts[i][end];
                int last = place(t, end);
                long key = ((long) numbers.computeIfAbsent(t, x -> numbers.size()) << 16) + first * 256L + last;
                orders[i] = known.computeIfAbsent(key, x -> t.way(first, last));
                end = loaded[i][end];
            }
            return List.of(orders);
        }

        private static int place(Tours t, int colour) {
            int i = 0;
            while (t.colour(i) != colour) {
                i++;
            }
            return i;
        }
    }
}
