package dev.tranche.core.sequence;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Band.End;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
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
    private final List<Band> list;
    private final List<Stage> stages;

    private Bands(List<Band> list, List<Stage> stages) {
        this.list = List.copyOf(list);
        this.stages = List.copyOf(stages);
    }

    /** @param reach of the nozzle beside standing plastic */
    public static Bands of(Colouring colouring, double lineWidth, Height reach) {
        return of(colouring, lineWidth, reach, Set.of(), Progress.UNHEARD);
    }

    /**
     * @param apart layers, from 1, that cannot be begun before those beneath them are done, as the sliced file has them
     * @param progress hears layers looked at, each twice
     */
    static Bands of(Colouring colouring, double lineWidth, Height reach, Set<Integer> apart, Progress progress) {
        int layers = colouring.layers().size();
        Rests rests = Rests.of(colouring, lineWidth, progress.part(0, 2L * layers));
        return new Maker(colouring, rests, reach, apart).bands(progress.part(layers, 2L * layers));
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
        private final ColourPlan plan;
        private final LayerGrid grid;
        private final Rests rests;
        private final Height reach;
        private final Set<Integer> halts;
        private final Set<Integer> apart;
        private final int[] present;
        private final List<Band> bands = new ArrayList<>();
        private final List<Stage> stages = new ArrayList<>();

        Maker(Colouring colouring, Rests rests, Height reach, Set<Integer> apart) {
            this.apart = apart;
            this.plan = colouring.plan();
            this.grid = colouring.model().grid();
            this.rests = rests;
            this.reach = reach;
            this.halts = plan.halts().on(grid).stream()
                    .map(h -> grid.snap(h.wished()).layer())
                    .collect(Collectors.toSet());
            this.present = PrintOrder.present(colouring);
        }

        Bands bands(Progress progress) {
            int first = 1;
            int[] before = new int[plan.palette().size()];
            for (int layer = 1; layer < grid.count(); layer++) {
                progress.at(layer, grid.count());
                int[] under = rests.under(layer + 1, first, before);
                int[] more = plus(before, under);
                End end = end(first, layer + 1, before, under);
                if (end != null) {
                    close(first, layer, end, before);
                    first = layer + 1;
                    before = new int[before.length];
                } else {
                    before = more;
                }
            }
            close(first, grid.count(), new End.Top(), before);
            return new Bands(bands, stages);
        }

        /** Why the band from {@code first} cannot take in {@code layer}; null if it can. */
        private End end(int first, int layer, int[] before, int[] under) {
            if (halts.contains(layer)) {
                return new End.Halt();
            }
            if (apart.contains(layer)) {
                return new End.File();
            }
            int high = grid.top(layer).micrometres() - grid.bottom(first).micrometres();
            if (high > reach.micrometres()) {
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
                                    plan.palette().get(upper), plan.palette().get(lower));
                        }
                    }
                }
            }
            throw new IllegalStateException("no circle");
        }

        private void close(int first, int last, End end, int[] before) {
            bands.add(new Band(first, last, end));
            int colours =
                    IntStream.rangeClosed(first, last).map(l -> present[l - 1]).reduce(0, (a, b) -> a | b);
            stages.add(Stage.of(colours, before));
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
