package dev.tranche.core.check;

import java.util.Comparator;
import java.util.List;

/** Every rule there is. */
public final class Checks {
    private static final List<Rule> RULES = List.of(
            about(Concern.COLOURS, BorderRules::sameSpoolOnBothSides),
            about(Concern.COLOURS, BorderRules::offTheGrid),
            about(Concern.COLOURS, BorderRules::colourWithoutLayer),
            about(Concern.COLOURS, BorderRules::besideAFlat),
            about(Concern.COLOURS, ModelRules::openMesh),
            about(Concern.COLOURS, ModelRules::nothingPrints),
            about(Concern.COLOURS, ModelRules::tooLarge),
            about(Concern.PLATE, PlateRules::copies),
            about(Concern.PLATE, PlateRules::tower),
            about(Concern.PLATE, PlateRules::returnPaths),
            about(Concern.PLATE, PlateRules::headClears),
            about(Concern.PURGE, PlateRules::towerAmongThings),
            about(Concern.COLOURS, ModelRules::floating),
            about(Concern.COLOURS, RegionRules::buried),
            about(Concern.COLOURS, RegionRules::nowhere),
            about(Concern.COLOURS, RegionRules::unseen),
            about(Concern.COLOURS, RegionRules::beyondTheModel),
            about(Concern.COLOURS, LookRules::shinesThrough),
            about(Concern.COLOURS, LayerRules::tooThin),
            about(Concern.COLOURS, BlendRules::cannotBlend),
            about(Concern.MACROS, BlendRules::nobodyStops),
            about(Concern.FIRMWARE, BlendRules::moreExtruders),
            about(Concern.COLOURS, BlendRules::fadesBeyondThePrint),
            about(Concern.ORDER, OrderRules::sideBySide),
            about(Concern.ORDER, OrderRules::betterNumbering),
            about(Concern.ORDER, OrderRules::ordersNeedTools),
            about(Concern.ORDER, OrderRules::notRearranged),
            about(Concern.FILE, OrderRules::toolsOfTheFile),
            about(Concern.COLOURS, LayerRules::gapsOnTheFirstLayer),
            about(Concern.COLOURS, quietly(SpoolRules::firstSpool)),
            about(Concern.COLOURS, SpoolRules::notEnough),
            about(Concern.COLOURS, SpoolRules::unusualTemperature),
            about(Concern.COLOURS, quietly(SpoolRules::firstLayerTemperature)),
            about(Concern.COLOURS, BondRules::afterAWait),
            about(Concern.COLOURS, BondRules::acrossMaterials),
            about(Concern.PURGE, quietly(PurgeRules::towerNotNeeded)),
            about(Concern.PURGE, PurgeRules::towerNeeded),
            about(Concern.PURGE, PurgeRules::towerInTheFile),
            about(Concern.PURGE, PurgeRules::routineTooShort),
            about(Concern.PLATE, PrinterRules::parkSpot),
            about(Concern.MACROS, PrinterRules::rig),
            about(Concern.MACROS, PrinterRules::macroFaults),
            about(Concern.COLOURS, PrinterRules::halts),
            about(Concern.CLOCK, ClockRules::missed),
            about(Concern.FILE, FileRules::otherLayers),
            about(Concern.FILE, FileRules::raft),
            about(Concern.FILE, FileRules::raftOtherwise),
            about(Concern.FILE, FileRules::anotherModel),
            about(Concern.PLATE, FileRules::beyondTravel),
            about(Concern.FIRMWARE, FirmwareRules::howFilamentCounts),
            about(Concern.FILE, FirmwareRules::drawsByFirmware),
            about(Concern.FILE, FileRules::heatsDiffer),
            about(Concern.FILE, FileRules::originMoved),
            about(Concern.FILE, FileRules::notFollowed),
            about(Concern.FILE, FileRules::stopsAlreadyThere),
            about(Concern.FILE, FileRules::writtenBeforeLastChange),
            about(Concern.REHEARSAL, FileRules::rehearsed),
            about(Concern.FILE, FileRules::olderThanPlan));

    private Checks() {}

    /** A rule whose findings are about that; what may be accepted is accepted with the file. */
    private static Rule about(Concern concern, Rule rule) {
        return facts -> rule.examine(facts).stream()
                .map(f -> f.acceptance().isPresent() ? f : f.on(concern))
                .toList();
    }

    /** A rule that says much the same of every plan. */
    private static Rule quietly(Rule rule) {
        return facts -> rule.examine(facts).stream().map(Finding::quietly).toList();
    }

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
