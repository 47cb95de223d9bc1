package dev.tranche.core.estimate;

import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.ObjDoubleConsumer;

/** Folds what happens in a print into its totals. */
final class Tally {
    private final Map<SpoolId, Sum> sums = new LinkedHashMap<>();
    private final Paints paints;
    private final List<Swap> swaps = new ArrayList<>();
    private final List<Pause> pauses = new ArrayList<>();
    private final List<Turn> turns = new ArrayList<>();
    private final List<Stretch> stretches = new ArrayList<>();
    private final Double[] begins;
    private final Double[] ends;
    private Optional<FirstLoad> load = Optional.empty();
    private double now;
    /** That was printed last. */
    private int layer = 1;

    /** Where the present stretch began, and how far it has come. */
    private Stretch stretch;

    private static final class Sum {
        final Spool spool;
        boolean used;
        double plastic;
        double purge;
        double ontoTower;
        double tower;
        double printSeconds;
        double swapSeconds;
        double towerSeconds;

        Sum(Spool spool) {
            this.spool = spool;
        }
    }

    private Tally(List<SpoolId> palette, Paints paints, int layers) {
        this.paints = paints;
        palette.stream().filter(id -> !id.isMixture()).forEach(id -> Optional.ofNullable(paints.of(id))
                .ifPresent(s -> sums.put(id, new Sum(s))));
        begins = new Double[layers];
        ends = new Double[layers];
    }

    static Tally of(List<Happening> happenings, List<SpoolId> palette, Paints paints, int layers) {
        Tally tally = new Tally(palette, paints, layers);
        happenings.forEach(tally::add);
        tally.stretches.add(tally.stretch);
        return tally;
    }

    private void add(Happening happening) {
        double then = now;
        now += happening.seconds();
        if (happening instanceof Happening.Beginning begun) {
            begin(begun);
        } else if (happening instanceof Happening.Printing printing) {
            print(printing, then);
        } else if (happening instanceof Happening.Towering towering) {
            share(towering.spool(), layer, (sum, share) -> {
                sum.tower += share * towering.beyondPurge().cubicMillimetres();
                sum.towerSeconds += share * towering.seconds();
            });
        } else if (happening instanceof Happening.Swapping swapping) {
            swap(swapping.swap());
        } else if (happening instanceof Happening.Halting halting) {
            pauses.add(halting.pause());
            share(halting.pause().loaded(), layer, (sum, share) -> sum.swapSeconds += share * halting.seconds());
        } else if (happening instanceof Happening.Turning turning) {
            turns.add(turning.turn());
        }
    }

    private void begin(Happening.Beginning begun) {
        load = begun.load();
        double cleared =
                begun.cleared().map(c -> c.purge().volume().cubicMillimetres()).orElse(0.0);
        share(begun.spool(), 1, (sum, share) -> {
            sum.plastic += share * begun.work().plastic().cubicMillimetres();
            sum.printSeconds += share * begun.work().seconds();
            sum.swapSeconds += share * begun.loadSeconds();
            sum.purge += share * cleared;
        });
        stretch = new Stretch(begun.spool().id(), 1, 1, 0, now);
    }

    private void print(Happening.Printing printing, double then) {
        layer = printing.pass().layer();
        begins[layer - 1] = begins[layer - 1] == null ? then : begins[layer - 1];
        ends[layer - 1] = now;
        share(printing.spool(), layer, (sum, share) -> {
            sum.plastic += share * printing.plastic().cubicMillimetres();
            sum.printSeconds += share * printing.seconds();
        });
        SpoolId spool = printing.spool().id();
        if (stretch != null && !stretch.spool().equals(spool)) {
            close(then);
        }
        stretch = stretch == null
                ? new Stretch(spool, layer, layer, then, now)
                : new Stretch(spool, stretch.firstLayer(), layer, stretch.from(), now);
    }

    private void swap(Swap swap) {
        swaps.add(swap);
        share(swap.in(), swap.layer(), (sum, share) -> {
            sum.purge += share * swap.pushed().cubicMillimetres();
            sum.ontoTower += share * swap.ontoTower().cubicMillimetres();
            sum.swapSeconds += share * swap.seconds();
        });
        close(swap.startsAt());
    }

    private void close(double at) {
        stretches.add(new Stretch(stretch.spool(), stretch.firstLayer(), stretch.lastLayer(), stretch.from(), at));
        stretch = null;
    }

    /** Each spool that is in {@code paint} on {@code layer} bears its share. */
    private void share(Spool paint, int layer, ObjDoubleConsumer<Sum> bears) {
        for (Recipe.Portion portion : paints.recipe(paint.id(), layer).portions()) {
            Sum sum = sums.get(portion.spool());
            sum.used = true;
            bears.accept(sum, portion.share());
        }
    }

    List<Turn> turns() {
        return turns;
    }

    Optional<FirstLoad> firstLoad() {
        return load;
    }

    List<Swap> swaps() {
        return swaps;
    }

    List<Pause> pauses() {
        return pauses;
    }

    List<Stretch> stretches() {
        return stretches;
    }

    LayerTimes layers() {
        return new LayerTimes(List.of(begins), List.of(ends));
    }

    /** @param inFile whether the plastic is that of a file whose own tower holds the purge too */
    List<SpoolUse> uses(boolean inFile) {
        return sums.values().stream()
                .filter(s -> s.used)
                .map(s -> {
                    double held = inFile ? Math.min(s.ontoTower, s.plastic) : 0;
                    double purge = inFile ? s.purge - s.ontoTower + held : s.purge;
                    return new SpoolUse(
                            s.spool,
                            new Volume(s.plastic - held),
                            new Volume(purge),
                            new Volume(s.tower),
                            s.printSeconds,
                            s.swapSeconds,
                            s.towerSeconds);
                })
                .toList();
    }
}
