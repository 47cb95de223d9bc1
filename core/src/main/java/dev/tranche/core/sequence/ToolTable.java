package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Which spools the tools of a sliced file stand for.
 *
 * <p>What is proposed is the assignment under which the largest share of the plastic lies on layers that hold its spool,
 * and on layers of several colours in the shares of their areas; of more tools than spools those stand for one of whose own plastic the
 * largest shares do, and of equal ones the first. Where no assignment of one spool to a tool does, a tool may
 * stand for several in turn: the spool of each layer that it prints alone. What is left stands for the spools of the plan that
 * colour nothing, as those for supports do.
 *
 * @param tools those that print the plan's layers, by number
 * @param share of the plastic that lies on layers that hold its spool, 0…1; that of spools which colour nothing is not counted
 * @param others layers on which the file prints other spools than the plan has there, from 1, rising
 */
public record ToolTable(List<Tool> tools, double share, List<Integer> others) {
    /** Of less than this nobody can say that file and plan agree. */
    public static final double ENOUGH = 0.99;

    /** Up to here all assignments are looked at. */
    private static final int MOST_SPOOLS = 12;

    public ToolTable {
        tools = List.copyOf(tools);
        others = List.copyOf(others);
    }

    /** From this layer on, from 1, this spool. */
    public record Turn(int layer, SpoolId spool) {}

    /**
     * A tool of the file.
     *
     * @param number as the file has it
     * @param filament it extrudes, mm
     * @param first layer it prints on, and {@code last}
     * @param turns the spools it stands for, rising; none if there is none for it
     * @param chosen whether the owner said so
     */
    public record Tool(int number, double filament, int first, int last, List<Turn> turns, boolean chosen) {
        public Tool {
            turns = List.copyOf(turns);
        }

        public Optional<SpoolId> spool(int layer) {
            return turns.stream()
                    .filter(t -> t.layer() <= layer)
                    .reduce((before, after) -> after)
                    .or(() -> turns.stream().findFirst())
                    .map(Turn::spool);
        }
    }

    /** The spool that tool {@code number} stands for on {@code layer}. */
    public Optional<SpoolId> spool(int number, int layer) {
        return tools.stream().filter(t -> t.number() == number).findFirst().flatMap(t -> t.spool(layer));
    }

    /** Whether every tool that prints stands for a spool. */
    public boolean complete() {
        return tools.stream().noneMatch(t -> t.turns().isEmpty());
    }

    /** Whether file and plan agree well enough for a file to be written. */
    public boolean agrees() {
        return share >= ENOUGH;
    }

    /**
     * @param chosen spools that the owner gave to tools, by their numbers
     * @param atHand spools that are on the shelf
     */
    public static ToolTable of(
            GridMatch match, Colouring colouring, Map<Integer, SpoolId> chosen, Collection<SpoolId> atHand) {
        return new Maker(match, colouring, chosen, atHand).table();
    }

    private static final class Maker {
        private final GridMatch match;
        private final Colouring colouring;
        private final Map<Integer, SpoolId> chosen;
        private final int[] numbers;
        /** Spools that print anywhere, by their numbers in the plan. */
        private final List<SpoolId> spools;
        /** Spools of the plan that do not, though they are there. */
        private final List<SpoolId> idle;

        Maker(GridMatch match, Colouring colouring, Map<Integer, SpoolId> chosen, Collection<SpoolId> atHand) {
            this.match = match;
            this.colouring = colouring;
            // What undo has taken out of the plan is nobody's choice any more.
            this.chosen = chosen.entrySet().stream()
                    .filter(c -> colouring.plan().palette().contains(c.getValue()))
                    .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
            // What prints nothing but a raft, or a line to prime on, stands for no spool of the plan.
            this.numbers = match.layers().stream()
                    .flatMap(l -> l.stints().stream())
                    .mapToInt(Stint::tool)
                    .distinct()
                    .sorted()
                    .toArray();
            Set<SpoolId> printing = new HashSet<>();
            colouring.layers().forEach(l -> printing.addAll(l.spools()));
            this.spools = colouring.plan().numbering().stream()
                    .filter(printing::contains)
                    .toList();
            this.idle = colouring.plan().palette().stream()
                    .filter(s -> atHand.contains(s) && !printing.contains(s))
                    .toList();
        }

        ToolTable table() {
            int layers = match.grid().count();
            SpoolId[] single = single(weights());
            SpoolId[][] fixed = new SpoolId[layers][];
            Arrays.fill(fixed, single);
            ToolTable table = judged(fixed);
            if (!table.agrees() && numbers.length < spools.size()) {
                ToolTable inTurn = judged(inTurn(single));
                return inTurn.share() > table.share() ? inTurn : table;
            }
            return table;
        }

        /** How much plastic of each tool would lie where each spool has a share of the layer, mm. */
        private double[][] weights() {
            double[][] weights = new double[numbers.length][spools.size()];
            for (int layer = 1; layer <= match.grid().count(); layer++) {
                LayerColours colours = colouring.layer(layer);
                double area = colours.tints().stream()
                        .filter(Tint::prints)
                        .mapToDouble(Tint::squareMillimetres)
                        .sum();
                double all = match.layer(layer).extruded();
                double[] fed = fed(layer);
                for (int s = 0; s < spools.size() && area > 0 && all > 0; s++) {
                    double here = colours.tint(spools.get(s))
                                    .filter(Tint::prints)
                                    .map(Tint::squareMillimetres)
                                    .orElse(0.0)
                            / area;
                    for (int t = 0; t < numbers.length; t++) {
                        weights[t][s] += all * Math.min(fed[t] / all, here);
                    }
                }
            }
            return weights;
        }

        /** What each tool extrudes on a layer, mm. */
        private double[] fed(int layer) {
            double[] fed = new double[numbers.length];
            for (Stint stint : match.layer(layer).stints()) {
                fed[Arrays.binarySearch(numbers, stint.tool())] += stint.extruded();
            }
            return fed;
        }

        /** The best assignment of one spool to a tool; null where there is none left. */
        private SpoolId[] single(double[][] weights) {
            SpoolId[] single = new SpoolId[numbers.length];
            Set<SpoolId> taken = new HashSet<>();
            for (int t = 0; t < numbers.length; t++) {
                single[t] = chosen.get(numbers[t]);
                taken.add(single[t]);
            }
            List<Integer> free = new ArrayList<>();
            for (int t = 0; t < numbers.length; t++) {
                if (single[t] == null) {
                    free.add(t);
                }
            }
            List<Integer> left = new ArrayList<>();
            for (int s = 0; s < spools.size(); s++) {
                if (!taken.contains(spools.get(s))) {
                    left.add(s);
                }
            }
            double[][] worth = free.size() > left.size() ? shares(weights) : weights;
            int[] assigned = left.size() <= MOST_SPOOLS ? best(free, left, worth) : greedy(free, left, worth);
            for (int i = 0; i < free.size(); i++) {
                single[free.get(i)] = assigned[i] < 0 ? null : spools.get(left.get(assigned[i]));
                taken.add(single[free.get(i)]);
            }
            Iterator<SpoolId> others =
                    idle.stream().filter(s -> !taken.contains(s)).iterator();
            for (int t = 0; t < single.length; t++) {
                single[t] = single[t] == null && others.hasNext() ? others.next() : single[t];
            }
            return single;
        }

        /** The weights as hundredths of what each tool extrudes: who prints little of one spool is not passed over for who prints more. */
        private double[][] shares(double[][] weights) {
            double[] all = new double[numbers.length];
            for (int layer = 1; layer <= match.grid().count(); layer++) {
                double[] fed = fed(layer);
                Arrays.setAll(all, t -> all[t] + fed[t]);
            }
            double[][] shares = new double[weights.length][];
            for (int t = 0; t < shares.length; t++) {
                double whole = all[t];
                shares[t] = Arrays.stream(weights[t])
                        .map(w -> whole > 0 ? Math.rint(100 * w / whole) : 0)
                        .toArray();
            }
            return shares;
        }

        /** By dynamic programming over the sets of spools that are given away; where several are best, by number. */
        private static int[] best(List<Integer> tools, List<Integer> left, double[][] weights) {
            int sets = 1 << left.size();
            double[] now = new double[sets];
            Arrays.fill(now, Double.NEGATIVE_INFINITY);
            now[0] = 0;
            int[][] given = new int[tools.size()][sets];
            for (int i = 0; i < tools.size(); i++) {
                double[] next = new double[sets];
                Arrays.fill(next, Double.NEGATIVE_INFINITY);
                for (int set = 0; set < sets; set++) {
                    int more = left.size() - Integer.bitCount(set);
                    // None is held back; those that come first take what nobody prints.
                    if (more < tools.size() - i && now[set] >= 0 && now[set] >= next[set]) {
                        next[set] = now[set];
                        given[i][set] = -1;
                    }
                    for (int s = 0; s < left.size() && more > 0 && now[set] >= 0; s++) {
                        double sum = now[set] + weights[tools.get(i)][left.get(s)];
                        if ((set >> s & 1) == 0 && sum > next[set | 1 << s]) {
                            next[set | 1 << s] = sum;
                            given[i][set | 1 << s] = s;
                        }
                    }
                }
                now = next;
            }
            int set = 0;
            for (int other = 1; other < sets; other++) {
                set = now[other] > now[set] ? other : set;
            }
            int[] assigned = new int[tools.size()];
            for (int i = tools.size() - 1; i >= 0; i--) {
                assigned[i] = given[i][set];
                set = assigned[i] < 0 ? set : set ^ 1 << assigned[i];
            }
            return assigned;
        }

        private static int[] greedy(List<Integer> tools, List<Integer> left, double[][] weights) {
            int[] assigned = new int[tools.size()];
            boolean[] gone = new boolean[left.size()];
            for (int i = 0; i < tools.size(); i++) {
                assigned[i] = -1;
                for (int s = 0; s < left.size(); s++) {
                    boolean better = assigned[i] < 0
                            || weights[tools.get(i)][left.get(s)] > weights[tools.get(i)][left.get(assigned[i])];
                    assigned[i] = !gone[s] && better ? s : assigned[i];
                }
                if (assigned[i] >= 0) {
                    gone[assigned[i]] = true;
                }
            }
            return assigned;
        }

        /** On layers of as many tools as spools, those that cannot be what they stand for are what is left. */
        private SpoolId[][] inTurn(SpoolId[] single) {
            SpoolId[][] byLayer = new SpoolId[match.grid().count()][];
            SpoolId[] now = single.clone();
            for (int layer = 1; layer <= byLayer.length; layer++) {
                double[] fed = fed(layer);
                List<Integer> here = new ArrayList<>();
                for (int t = 0; t < fed.length; t++) {
                    if (fed[t] > 0) {
                        here.add(t);
                    }
                }
                List<SpoolId> present = new ArrayList<>(colouring.layer(layer).spools());
                if (here.size() == present.size()) {
                    SpoolId[] before = now.clone();
                    List<Integer> open = here.stream()
                            .filter(t -> chosen.containsKey(numbers[t]) || !present.remove(before[t]))
                            .filter(t -> !chosen.containsKey(numbers[t]))
                            .toList();
                    for (int i = 0; i < open.size() && i < present.size(); i++) {
                        now[open.get(i)] = present.get(i);
                    }
                }
                byLayer[layer - 1] = now.clone();
            }
            return byLayer;
        }

        private ToolTable judged(SpoolId[][] byLayer) {
            double all = 0;
            double right = 0;
            List<Integer> others = new ArrayList<>();
            double[] filament = new double[numbers.length];
            int[] first = new int[numbers.length];
            int[] last = new int[numbers.length];
            for (int layer = 1; layer <= byLayer.length; layer++) {
                double[] fed = fed(layer);
                Set<SpoolId> present = new HashSet<>(colouring.layer(layer).spools());
                Set<SpoolId> printed = new HashSet<>();
                for (int t = 0; t < fed.length; t++) {
                    if (fed[t] > 0) {
                        SpoolId spool = byLayer[layer - 1][t];
                        printed.add(spool);
                        boolean colours = spool == null || spools.contains(spool);
                        all += colours ? fed[t] : 0;
                        right += present.contains(spool) ? fed[t] : 0;
                        filament[t] += fed[t];
                        first[t] = first[t] == 0 ? layer : first[t];
                        last[t] = layer;
                    }
                }
                if (!printed.equals(present)) {
                    others.add(layer);
                }
            }
            List<Tool> tools = new ArrayList<>();
            for (int t = 0; t < numbers.length; t++) {
                tools.add(new Tool(
                        numbers[t],
                        filament[t],
                        first[t],
                        last[t],
                        turns(byLayer, t, first[t], last[t]),
                        chosen.containsKey(numbers[t])));
            }
            return new ToolTable(tools, all == 0 ? 0 : right / all, others);
        }

        private static List<Turn> turns(SpoolId[][] byLayer, int tool, int first, int last) {
            List<Turn> turns = new ArrayList<>();
            SpoolId now = null;
            for (int layer = Math.max(1, first); layer <= last; layer++) {
                SpoolId spool = byLayer[layer - 1][tool];
                if (spool != null && !spool.equals(now)) {
                    turns.add(new Turn(layer, spool));
                    now = spool;
                }
            }
            return turns;
        }
    }
}
