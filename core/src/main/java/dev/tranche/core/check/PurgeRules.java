package dev.tranche.core.check;

import dev.tranche.core.estimate.Swap;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.units.Severity;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/** Rules on where purge goes. */
final class PurgeRules {
    /** A tower as wide as most are made, mm. */
    private static final double USUAL_WIDTH = 30;

    private PurgeRules() {}

    /** Colours by height put one colour on a layer, and both ways of swapping purge beside the print. */
    static List<Finding> towerNotNeeded(PlanFacts facts) {
        List<Swap> swaps = facts.ledger().swaps();
        if (swaps.isEmpty() || facts.order().mixedLayers() > 0) {
            return List.of();
        }
        Map<Integer, Volume> purges = swaps.stream()
                .collect(Collectors.toMap(Swap::layer, s -> s.purge().volume()));
        Tower tower =
                Tower.of(USUAL_WIDTH, facts.grid(), purges, facts.printer().lineWidth());
        double grams = tower.idle().grams(swaps.get(0).in().density());
        return List.of(Finding.of(
                Severity.NOTE,
                "tower-not-needed",
                String.format(
                        Locale.ROOT,
                        "No layer has two colours, so leave the slicing program's purge tower off: it would waste about %.1f g.",
                        grams)));
    }
}
