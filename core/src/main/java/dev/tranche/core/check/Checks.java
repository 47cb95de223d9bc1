package dev.tranche.core.check;

import java.util.Comparator;
import java.util.List;

/** Every rule there is. */
public final class Checks {
    private static final List<Rule> RULES = List.of(
            BorderRules::sameSpoolOnBothSides,
            BorderRules::offTheGrid,
            BorderRules::colourWithoutLayer,
            ModelRules::openMesh,
            ModelRules::tooLarge,
            PlateRules::copies,
            PlateRules::tower,
            PlateRules::returnPaths,
            ModelRules::floating,
            RegionRules::buried,
            RegionRules::nowhere,
            RegionRules::unseen,
            RegionRules::beyondTheModel,
            RegionRules::shinesThrough,
            LayerRules::tooThin,
            OrderRules::sideBySide,
            OrderRules::betterNumbering,
            OrderRules::ordersNeedTools,
            OrderRules::notRearranged,
            OrderRules::toolsOfTheFile,
            LayerRules::gapsOnTheFirstLayer,
            SpoolRules::firstSpool,
            SpoolRules::notEnough,
            PurgeRules::towerNotNeeded,
            PurgeRules::towerNeeded,
            PurgeRules::routineTooShort,
            PrinterRules::parkSpot,
            PrinterRules::rig,
            PrinterRules::macroFaults,
            PrinterRules::halts,
            ClockRules::missed,
            FileRules::otherLayers,
            FileRules::raft,
            FileRules::anotherModel,
            FileRules::howFilamentCounts,
            FileRules::originMoved,
            FileRules::stopsAlreadyThere,
            FileRules::writtenBeforeLastChange,
            FileRules::olderThanPlan);

    private Checks() {}

    /** All findings, worst first, then from the bed up, those of the whole plan last. */
    public static List<Finding> run(PlanFacts facts) {
        return RULES.stream()
                .flatMap(rule -> rule.examine(facts).stream())
                .map(f -> f.acceptance().isPresent() && facts.said().accepted().contains(f.word()) ? f.accept() : f)
                .sorted(Comparator.comparing(Finding::severity)
                        .thenComparingInt(f -> f.layer().orElse(Integer.MAX_VALUE)))
                .toList();
    }
}
