package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Folds what happens in a print into its totals. */
final class Tally {
    private final Map<SpoolId, Sum> sums = new LinkedHashMap<>();
    private final List<Swap> swaps = new ArrayList<>();
    private final List<Pause> pauses = new ArrayList<>();
    private final List<Stretch> stretches = new ArrayList<>();
    private final Double[] begins;
    private final Double[] ends;
    private Optional<FirstLoad> load = Optional.empty();
    private double now;
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

    private Tally(List<SpoolId> palette, Map<SpoolId, Spool> shelf, int layers) {
        palette.forEach(id -> Optional.ofNullable(shelf.get(id)).ifPresent(s -> sums.put(id, new Sum(s))));
        begins = new Double[layers];
        ends = new Double[layers];
    }

    static Tally of(List<Happening> happenings, List<SpoolId> palette, Map<SpoolId, Spool> shelf, int layers) {
        Tally tally = new Tally(palette, shelf, layers);
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
            Sum sum = sum(towering.spool());
            sum.tower += towering.beyondPurge().cubicMillimetres();
            sum.towerSeconds += towering.seconds();
        } else if (happening instanceof Happening.Swapping swapping) {
            swap(swapping.swap());
        } else if (happening instanceof Happening.Halting halting) {
            pauses.add(halting.pause());
            sum(halting.pause().loaded()).swapSeconds += halting.seconds();
        }
    }

    private void begin(Happening.Beginning begun) {
        load = begun.load();
        Sum sum = sum(begun.spool());
        sum.plastic += begun.work().plastic().cubicMillimetres();
        sum.printSeconds += begun.work().seconds();
        sum.swapSeconds += begun.loadSeconds();
        sum.purge +=
                begun.cleared().map(c -> c.purge().volume().cubicMillimetres()).orElse(0.0);
        stretch = new Stretch(begun.spool().id(), 1, 1, 0, now);
    }

    private void print(Happening.Printing printing, double then) {
        int layer = printing.pass().layer();
        begins[layer - 1] = begins[layer - 1] == null ? then : begins[layer - 1];
        ends[layer - 1] = now;
        Sum sum = sum(printing.spool());
        sum.plastic += printing.plastic().cubicMillimetres();
        sum.printSeconds += printing.seconds();
        SpoolId spool = printing.spool().id();
        stretch = stretch == null
                ? new Stretch(spool, layer, layer, then, now)
                : new Stretch(spool, stretch.firstLayer(), layer, stretch.from(), now);
    }

    private void swap(Swap swap) {
        swaps.add(swap);
        Sum sum = sum(swap.in());
        sum.purge += swap.pushed().cubicMillimetres();
        sum.ontoTower += swap.ontoTower().cubicMillimetres();
        sum.swapSeconds += swap.seconds();
        stretches.add(new Stretch(
                stretch.spool(), stretch.firstLayer(), stretch.lastLayer(), stretch.from(), swap.startsAt()));
        stretch = null;
    }

    private Sum sum(Spool spool) {
        Sum sum = sums.get(spool.id());
        sum.used = true;
        return sum;
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
