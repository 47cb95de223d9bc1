package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.units.Volume;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Adds up what a print takes of each spool while it is walked through. */
final class Tally {
    private final Map<SpoolId, Sum> sums = new LinkedHashMap<>();

    private static final class Sum {
        final Spool spool;
        boolean used;
        double plastic;
        double purge;
        double tower;
        double printSeconds;
        double swapSeconds;
        double towerSeconds;

        Sum(Spool spool) {
            this.spool = spool;
        }
    }

    Tally(List<SpoolId> palette, Map<SpoolId, Spool> shelf) {
        palette.forEach(id -> Optional.ofNullable(shelf.get(id)).ifPresent(s -> sums.put(id, new Sum(s))));
    }

    void before(Spool first, BasePrint.LayerWork work, double loadSeconds) {
        Sum sum = sum(first);
        sum.plastic += work.plastic().cubicMillimetres();
        sum.printSeconds += work.seconds();
        sum.swapSeconds += loadSeconds;
    }

    void printed(Spool loaded, Volume plastic, double seconds) {
        Sum sum = sum(loaded);
        sum.plastic += plastic.cubicMillimetres();
        sum.printSeconds += seconds;
    }

    void tower(Spool loaded, Volume idle, double seconds) {
        Sum sum = sum(loaded);
        sum.tower += idle.cubicMillimetres();
        sum.towerSeconds += seconds;
    }

    void swapped(Swap swap) {
        Sum sum = sum(swap.in());
        sum.purge += swap.pushed().cubicMillimetres();
        sum.swapSeconds += swap.seconds();
    }

    void paused(Pause pause) {
        sum(pause.loaded()).swapSeconds += pause.seconds();
    }

    private Sum sum(Spool spool) {
        Sum sum = sums.get(spool.id());
        sum.used = true;
        return sum;
    }

    /** @param inFile whether the plastic is that of a file whose own tower holds the purge too */
    List<SpoolUse> uses(boolean inFile) {
        return sums.values().stream()
                .filter(s -> s.used)
                .map(s -> {
                    double purge = inFile ? Math.min(s.purge, s.plastic) : s.purge;
                    return new SpoolUse(
                            s.spool,
                            new Volume(inFile ? s.plastic - purge : s.plastic),
                            new Volume(purge),
                            new Volume(s.tower),
                            s.printSeconds,
                            s.swapSeconds,
                            s.towerSeconds);
                })
                .toList();
    }
}
