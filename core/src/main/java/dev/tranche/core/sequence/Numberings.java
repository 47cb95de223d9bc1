package dev.tranche.core.sequence;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Finds the numbering of spools that makes the numbered order cost least: every numbering is tried where there are few
 * colours to number; with more, numbers are exchanged two by two as long as that helps.
 */
final class Numberings {
    /** With more colours nobody would wait for all numberings to be tried. */
    static final int EXACT = 8;
    /** With more it takes too long at every edit. */
    static final int QUICK = 6;

    /** An unbroken run of equal layers. */
    private record Run(int colours, int count) {}

    private final List<Run> runs = new ArrayList<>();
    private final SwapCosts costs;
    /** Places in the palette that are used at all, in the order of their present numbers. */
    private final int[] used;

    private final int size;
    private final boolean all;

    /** Cost and end of what has been walked under the numbering being tried. */
    private final long[] walkCost;

    private final int[] walkEnd;
    private final int[] walkTried;
    private int tried;

    /**
     * @param numbers the present numbering: it stays where nothing is better
     * @param most colours of which all numberings are tried
     */
    Numberings(List<Stage> stages, int[] numbers, SwapCosts costs, int most) {
        this.costs = costs;
        int union = stages.stream().mapToInt(Stage::colours).reduce(0, (a, b) -> a | b);
        this.used = Arrays.stream(numbers).filter(c -> (union >> c & 1) == 1).toArray();
        this.size = used.length;
        this.all = size <= most;
        for (Stage stage : stages) {
            int colours = local(stage.colours());
            int last = runs.size() - 1;
            if (colours == 0) {
                continue;
            }
            if (last >= 0 && runs.get(last).colours() == colours) {
                runs.set(last, new Run(colours, runs.get(last).count() + 1));
            } else {
                runs.add(new Run(colours, 1));
            }
        }
        int cells = size <= EXACT ? (size + 1) << size : 0;
        walkCost = new long[cells];
        walkEnd = new int[cells];
        walkTried = new int[cells];
    }

    private int local(int colours) {
        int local = 0;
        for (int i = 0; i < size; i++) {
            local |= (colours >> used[i] & 1) << i;
        }
        return local;
    }

    /**
     * @param floor what no order can cost less than: the search ends where it is reached
     * @return places in the palette, by number
     */
    int[] best(long floor) {
        int[] best = new int[size];
        Arrays.setAll(best, i -> i);
        best = all ? exhausted(best, floor) : exchanged(best, floor);
        return Arrays.stream(best).map(i -> used[i]).toArray();
    }

    boolean proven() {
        return all;
    }

    /** Heap's algorithm (Heap, "Permutations by interchanges", Computer Journal 6, 1963). */
    private int[] exhausted(int[] start, long floor) {
        int[] numbers = start.clone();
        int[] best = start.clone();
        long least = cost(numbers);
        int[] counters = new int[size];
        int i = 0;
        while (i < size && least > floor) {
            if (counters[i] < i) {
                int other = i % 2 == 0 ? 0 : counters[i];
                exchange(numbers, other, i);
                long cost = cost(numbers);
                if (cost < least) {
                    least = cost;
                    best = numbers.clone();
                }
                counters[i]++;
                i = 0;
            } else {
                counters[i++] = 0;
            }
        }
        return best;
    }

    private int[] exchanged(int[] start, long floor) {
        int[] best = start.clone();
        long least = cost(best);
        boolean better = true;
        while (better && least > floor) {
            better = false;
            for (int i = 0; i < size; i++) {
                for (int j = i + 1; j < size; j++) {
                    exchange(best, i, j);
                    long cost = cost(best);
                    if (cost < least) {
                        least = cost;
                        better = true;
                    } else {
                        exchange(best, i, j);
                    }
                }
            }
        }
        return best;
    }

    private static void exchange(int[] numbers, int i, int j) {
        int kept = numbers[i];
        numbers[i] = numbers[j];
        numbers[j] = kept;
    }

    /** What the numbered order costs under {@code numbers}. In a run of equal layers two orders alternate from the second on. */
    private long cost(int[] numbers) {
        tried++;
        long sum = 0;
        int loaded = size;
        for (Run run : runs) {
            sum += walk(numbers, run.colours(), loaded);
            int first = end;
            loaded = first;
            if (run.count() > 1) {
                long there = walk(numbers, run.colours(), first);
                int second = end;
                long back = walk(numbers, run.colours(), second);
                int more = run.count() - 1;
                sum += (more + 1) / 2 * there + more / 2 * back;
                loaded = more % 2 == 1 ? second : first;
            }
        }
        return sum;
    }

    /** The colour the last walk ended with. */
    private int end;

    /** One layer; {@code loaded} is {@link #size} before the first. */
    private long walk(int[] numbers, int colours, int loaded) {
        int cell = colours * (size + 1) + loaded;
        boolean kept = cell < walkTried.length;
        if (kept && walkTried[cell] == tried) {
            end = walkEnd[cell];
            return walkCost[cell];
        }
        long sum = 0;
        int at = loaded;
        for (int c : numbers) {
            if ((colours >> c & 1) == 1 && c != loaded) {
                sum += at == size ? 0 : costs.of(used[at], used[c]);
                at = c;
            }
        }
        end = at;
        if (kept) {
            walkTried[cell] = tried;
            walkEnd[cell] = at;
            walkCost[cell] = sum;
        }
        return sum;
    }
}
