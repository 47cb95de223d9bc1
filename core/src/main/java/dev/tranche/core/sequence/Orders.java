package dev.tranche.core.sequence;

import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Supplier;

/** The orders in which one plan can be printed; each is worked out when it is asked for, and bands only once. */
public final class Orders {
    private final Colouring colouring;
    private final BiFunction<SpoolId, SpoolId, Toll> toll;
    private final double lineWidth;
    private final Height reach;
    private final Set<Integer> apart;
    /** Worked out when first asked for. */
    private final Supplier<List<Thing>> known;

    private List<Thing> things;
    private final Object banding = new Object();
    private volatile Bands bands;
    private Optional<Bands> earlier = Optional.empty();

    /**
     * @param colouring of the plan
     * @param toll what a swap costs besides itself
     * @param lineWidth of the plastic, mm
     * @param reach of the nozzle beside standing plastic
     * @param things that could be printed one after another
     */
    public Orders(
            Colouring colouring,
            BiFunction<SpoolId, SpoolId, Toll> toll,
            double lineWidth,
            Height reach,
            Supplier<List<Thing>> things) {
        this(colouring, toll, lineWidth, reach, things, Set.of());
    }

    private Orders(
            Colouring colouring,
            BiFunction<SpoolId, SpoolId, Toll> toll,
            double lineWidth,
            Height reach,
            Supplier<List<Thing>> things,
            Set<Integer> apart) {
        this.apart = Set.copyOf(apart);
        this.known = things;
        this.colouring = colouring;
        this.toll = toll;
        this.lineWidth = lineWidth;
        this.reach = reach;
    }

    /** The same where some layers, from 1, cannot be begun before those beneath them are done. */
    public Orders apart(Set<Integer> layers) {
        return layers.equals(apart) ? this : new Orders(colouring, toll, lineWidth, reach, this::things, layers);
    }

    public Colouring colouring() {
        return colouring;
    }

    public Height reach() {
        return reach;
    }

    /** The plan's own. */
    public PrintOrder chosen() {
        return chosen(Progress.UNHEARD);
    }

    /** As {@link #chosen()}; {@code progress} hears how far it is where that is {@link #bands(Progress) long work}. */
    public PrintOrder chosen(Progress progress) {
        return switch (plan().ordering().rule()) {
            case NUMBERED -> numbered();
            case BEST -> best();
            case BANDS -> {
                bands(progress);
                yield banded();
            }
            case ONE_AFTER_ANOTHER -> oneAfterAnother().orElseGet(this::numbered);
        };
    }

    /** What could be printed one after another: copies, and parts that stand by themselves. */
    public synchronized List<Thing> things() {
        if (things == null) {
            things = List.copyOf(known.get());
        }
        return things;
    }

    /** The things in the order in which they are printed one after another. */
    public List<Thing> sequence() {
        return oneAfterAnother().stream()
                .flatMap(o -> o.passes().stream())
                .flatMapToInt(p -> p.thing().stream())
                .distinct()
                .mapToObj(things()::get)
                .toList();
    }

    /** Whether two things are printed with the same spool on some layer. */
    public boolean sharesSpools() {
        int[] seen = new int[colouring.layers().size()];
        for (Thing thing : things()) {
            for (int i = 0; i < seen.length; i++) {
                int here = thing.layers().get(i).spools().stream()
                        .mapToInt(s -> 1 << plan().palette().indexOf(s))
                        .sum();
                if ((seen[i] & here) != 0) {
                    return true;
                }
                seen[i] |= here;
            }
        }
        return false;
    }

    /** Each thing whole before the next; nothing where there is only one. */
    public Optional<PrintOrder> oneAfterAnother() {
        if (things().size() < 2) {
            return Optional.empty();
        }
        int[] numbers =
                plan().numbering().stream().mapToInt(plan().palette()::indexOf).toArray();
        return Optional.of(new OneAfterAnother(plan().palette(), new NumberedOrder(numbers), things()).order());
    }

    public PrintOrder numbered() {
        return numbered(plan().ordering());
    }

    /** The order that the numbers of {@code other} make. */
    public PrintOrder numbered(Ordering other) {
        return PrintOrder.numbered(colouring, other.all(plan().palette()));
    }

    public PrintOrder best() {
        BestOrder best = BestOrder.of(PrintOrder.stages(colouring), costs());
        return PrintOrder.layered(colouring, best.orders(), best.proven());
    }

    /**
     * The cheapest order of any sets of colours, one a layer, whatever they come from.
     *
     * @param layers at most 26 colours in all; a layer may be empty
     * @return the colours of each layer in their order; the best there is up to {@value Tours#EXACT} on a layer
     */
    public static List<List<SpoolId>> best(
            List<Set<SpoolId>> layers, Aim aim, BiFunction<SpoolId, SpoolId, Toll> toll) {
        List<SpoolId> palette = layers.stream()
                .flatMap(Set::stream)
                .distinct()
                .sorted(Comparator.comparing(SpoolId::value))
                .toList();
        Map<SpoolId, Integer> places = new HashMap<>();
        palette.forEach(s -> places.put(s, places.size()));
        List<Stage> stages = layers.stream()
                .map(l -> Stage.of(l.stream().mapToInt(s -> 1 << places.get(s)).sum()))
                .toList();
        return BestOrder.of(stages, SwapCosts.of(palette, aim, toll)).orders().stream()
                .map(order -> Arrays.stream(order).mapToObj(palette::get).toList())
                .toList();
    }

    public Bands bands() {
        return bands(Progress.UNHEARD);
    }

    /** As {@link #bands()}, which takes seconds where thousands of patches of colour lie upon one another. */
    public Bands bands(Progress progress) {
        synchronized (banding) {
            if (bands == null) {
                bands = Bands.of(ground(), earlier, progress);
                earlier = Optional.empty();
            }
            return bands;
        }
    }

    /** Tells of the plan as it was before: what an edit leaves as it was is not worked out again. */
    public void knowing(Orders before) {
        earlier = Optional.ofNullable(before.bands).or(() -> before.earlier);
        bands = earlier.filter(b -> b.areOf(ground())).orElse(null);
    }

    private Ground ground() {
        return Ground.of(colouring, lineWidth, reach, apart);
    }

    /** Whether {@link #bands()} answers at once. */
    public boolean knowsBands() {
        return bands != null;
    }

    public PrintOrder banded() {
        BestOrder best = BestOrder.of(bands().stages(), costs());
        return PrintOrder.banded(colouring, bands().list(), best.orders(), best.proven());
    }

    /**
     * The numbers that make the numbered order cost least.
     *
     * @param spools by number; those the plan does not print with last
     * @param proven whether no others are better: not all were tried of many colours
     */
    public record Numbering(List<SpoolId> spools, boolean proven) {}

    /** The best there is of up to {@value Numberings#EXACT} colours, a good one of more. */
    public Numbering bestNumbering() {
        return numbering(Numberings.EXACT);
    }

    /** As {@link #bestNumbering}, but the best of up to {@value Numberings#QUICK} colours only, found at once. */
    public Numbering quickNumbering() {
        return numbering(Numberings.QUICK);
    }

    private Numbering numbering(int most) {
        List<SpoolId> palette = plan().palette();
        int[] now = plan().numbering().stream().mapToInt(palette::indexOf).toArray();
        List<Stage> stages = PrintOrder.stages(colouring);
        Numberings numberings = new Numberings(stages, now, costs(), most);
        int[] best = numberings.best(BestOrder.of(stages, costs()).cost());
        List<SpoolId> spools = Arrays.stream(best).mapToObj(palette::get).toList();
        return new Numbering(plan().with(plan().ordering().numbered(spools)).numbering(), numberings.proven());
    }

    /** Of spools that the plan has a letter for, and prints with no more, nothing is asked. */
    private SwapCosts costs() {
        Set<SpoolId> printed = plan().spools();
        return SwapCosts.of(
                plan().palette(),
                aim(),
                (out, in) -> printed.contains(out) && printed.contains(in) ? toll.apply(out, in) : Toll.NONE);
    }

    private Aim aim() {
        return plan().ordering().aim();
    }

    private ColourPlan plan() {
        return colouring.plan();
    }
}
