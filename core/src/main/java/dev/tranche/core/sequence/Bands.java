package dev.tranche.core.sequence;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Band.End;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Layers gathered into bands no higher than the nozzle can dip beside what stands, each as high as it can be; since a
 * part of a band is always a band, no other choice needs fewer.
 *
 * <p>In a band every colour is printed at once. What of a colour stands over another within the band, however many layers
 * higher, has to come after it: it may rest on it, and the nozzle cannot get under a roof. A band in which two colours each
 * stand over the other cannot be: it is cut there. What rests on nothing at all hangs over in any order.
 */
public final class Bands {
    private final Ground ground;
    private final List<Band> list;
    private final List<Stage> stages;

    private Bands(Ground ground, List<Band> list, List<Stage> stages) {
        this.ground = ground;
        this.list = List.copyOf(list);
        this.stages = List.copyOf(stages);
    }

    /**
     * @param earlier of the plan as it was before: what an edit leaves as it was is not looked at again
     * @param progress hears layers looked at, each twice
     */
    static Bands of(Ground ground, Optional<Bands> earlier, Progress progress) {
        Map<Integer, Integer> known = new HashMap<>();
        Set<Integer> passed = new HashSet<>();
        earlier.ifPresent(e -> {
            for (int i = 0; i < e.list.size(); i++) {
                Band band = e.list.get(i);
                if (ground.bears(band, e.ground)) {
                    known.put(band.first(), i);
                    IntStream.rangeClosed(band.first() + 1, band.last() + 1).forEach(passed::add);
                }
            }
        });
        int layers = ground.layers().size();
        Rests rests = Rests.of(ground, layer -> !passed.contains(layer), progress.part(0, 2L * layers));
        Maker maker = new Maker(ground, rests);
        int first = 1;
        while (first <= layers) {
            Integer at = known.get(first);
            first = at == null
                    ? maker.band(first, progress.part(layers, 2L * layers))
                    : maker.take(earlier.orElseThrow(), at);
        }
        return new Bands(ground, maker.bands, maker.stages);
    }

    /** Whether these are the bands of {@code other} ground too. */
    boolean areOf(Ground other) {
        return list.stream().allMatch(b -> other.bears(b, ground));
    }

    /** From the bed up, without gap or overlap. */
    public List<Band> list() {
        return list;
    }

    /** One a band. */
    List<Stage> stages() {
        return stages;
    }

    private static final class Maker {
        private final Ground ground;
        private final Rests rests;
        private final List<Band> bands = new ArrayList<>();
        private final List<Stage> stages = new ArrayList<>();

        Maker(Ground ground, Rests rests) {
            this.ground = ground;
            this.rests = rests;
        }

        /** Takes over a band; answers the layer after it. */
        int take(Bands earlier, int index) {
            bands.add(earlier.list.get(index));
            stages.add(earlier.stages.get(index));
            return bands.get(bands.size() - 1).last() + 1;
        }

        /** Makes the band from {@code first} on; answers the layer after it. */
        int band(int first, Progress progress) {
            int count = ground.layers().size();
            int[] before = new int[ground.palette().size()];
            for (int layer = first; layer < count; layer++) {
                progress.at(layer, count);
                int[] under = rests.under(layer + 1, first, before);
                int[] more = plus(before, under);
                End end = end(first, layer + 1, before, under);
                if (end != null) {
                    return close(first, layer, end, before);
                }
                before = more;
            }
            return close(first, count, new End.Top(), before);
        }

        /** Why the band from {@code first} cannot take in {@code layer}; null if it can. */
        private End end(int first, int layer, int[] before, int[] under) {
            if (ground.halts().contains(layer)) {
                return new End.Halt();
            }
            if (ground.apart().contains(layer)) {
                return new End.File();
            }
            int high = ground.grid().top(layer).micrometres()
                    - ground.grid().bottom(first).micrometres();
            if (high > ground.reach().micrometres()) {
                return new End.Reach();
            }
            return runsInCircles(plus(before, under)) ? circle(before, under) : null;
        }

        /** The first new demand that closes a circle. */
        private End circle(int[] before, int[] under) {
            int[] grown = before.clone();
            for (int upper = 0; upper < grown.length; upper++) {
                for (int lower = 0; lower < grown.length; lower++) {
                    if ((under[upper] >> lower & 1) == 1) {
                        grown[upper] |= 1 << lower;
                        if (runsInCircles(grown)) {
                            return new End.Circle(
                                    ground.palette().get(upper),
                                    ground.palette().get(lower));
                        }
                    }
                }
            }
            throw new IllegalStateException("no circle");
        }

        private int close(int first, int last, End end, int[] before) {
            bands.add(new Band(first, last, end));
            int colours = ground.layers().subList(first - 1, last).stream()
                    .flatMap(l -> l.spools().stream())
                    .mapToInt(ground.palette()::indexOf)
                    .reduce(0, (bits, place) -> bits | 1 << place);
            stages.add(Stage.of(colours, before));
            return last + 1;
        }

        private static int[] plus(int[] before, int[] more) {
            int[] sum = before.clone();
            Arrays.setAll(sum, i -> sum[i] | more[i]);
            return sum;
        }

        private static boolean runsInCircles(int[] before) {
            int done = 0;
            boolean moved = true;
            while (moved) {
                moved = false;
                for (int c = 0; c < before.length; c++) {
                    if ((done >> c & 1) == 0 && (before[c] & ~done) == 0) {
                        done |= 1 << c;
                        moved = true;
                    }
                }
            }
            return done != (1 << before.length) - 1;
        }
    }

    /** The spools of band {@code index} in the order in which {@code order} prints them; for what draws it. */
    public static List<SpoolId> spoolsOf(Band band, PrintOrder order) {
        return order.passes().stream()
                .filter(p -> p.layer() >= band.first() && p.layer() <= band.last())
                .map(Pass::spool)
                .distinct()
                .toList();
    }
}
