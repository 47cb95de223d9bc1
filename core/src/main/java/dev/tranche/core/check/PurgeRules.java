package dev.tranche.core.check;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.machine.Point;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;

/** Rules on where purge goes. */
final class PurgeRules {
    /** So much less than a pair needs does not show. */
    private static final double NEARLY = 0.95;

    /** A tower is met at so many of all swaps: those on its last layers may go without. */
    private static final double MOSTLY = 0.8;

    private PurgeRules() {}

    /** Colours by height put one colour on a layer, and purge can fall beside the print. */
    static List<Finding> towerNotNeeded(PlanFacts facts) {
        Ledger ledger = facts.ledger();
        if (ledger.swaps().isEmpty() || facts.order().mixedLayers() > 0) {
            return List.of();
        }
        if (ledger.tower().isEmpty()) {
            return List.of(Finding.of(
                    Severity.NOTE,
                    "tower-not-needed",
                    Words.format(
                            "No layer has two colours, so leave the slicing program's purge tower off: it would waste about %.1f g.",
                            usual(facts).idle().grams(density(ledger)))));
        }
        return List.of(Finding.of(
                        Severity.WARN,
                        "tower-not-needed",
                        Words.format(
                                "No layer has two colours, so no tower is needed; purging beside the print saves %.1f g and %.0f min.",
                                ledger.towerGrams().value(), ledger.towerSeconds() / 60))
                .mendedBy(Fix.ofPurge("Purge beside the print", p -> p.into(new PurgePlace.Bin()))));
    }

    /** A file whose changes of tools begin beside the model holds a tower already, which takes what the swap macro pushes again. */
    static List<Finding> towerInTheFile(PlanFacts facts) {
        List<Swap> swaps = facts.ledger().swaps();
        boolean alone = facts.ledger().place() instanceof PurgePlace.Bin bin
                && bin.last().isEmpty();
        double pushed = swaps.stream()
                .filter(s -> s.dryRun().purging().by() != Purging.By.NOBODY)
                .mapToDouble(s -> s.moment().purge())
                .sum();
        List<Coordinate> beside = swaps.stream()
                .flatMap(s -> s.next().door().stream())
                .flatMap(d -> d.way().stream().skip(d.way().size() - 1L))
                .filter(c -> !facts.isOver(new Point(c.x, c.y)))
                .toList();
        if (!alone || pushed == 0 || beside.size() < 2 || beside.size() < MOSTLY * swaps.size()) {
            return List.of();
        }
        return List.of(Finding.of(
                        Severity.WARN,
                        "tower-in-file",
                        Words.format(
                                "At %d of %s the G-code first prints beside the model, near X %.0f Y %.0f, as onto a tower of its own, and some %.0f mm are pushed out besides; let the tower take the purge, or slice without one.",
                                beside.size(),
                                Words.count(swaps.size(), "swap"),
                                beside.get(0).x,
                                beside.get(0).y,
                                pushed / swaps.size()))
                .mendedBy(Fix.ofPurge(
                        "Purge onto the tower", p -> p.into(new PurgePlace.OnTower(PurgePlace.OnTower.USUAL)))));
    }

    private static Tower usual(PlanFacts facts) {
        Map<Integer, Volume> purges = facts.ledger().swaps().stream()
                .collect(Collectors.toMap(Swap::layer, s -> s.purge().volume(), Volume::plus));
        return Tower.of(
                PurgePlace.OnTower.USUAL, facts.grid(), purges, facts.printer().lineWidth());
    }

    private static double density(Ledger ledger) {
        return ledger.swaps().get(0).in().density();
    }

    /** Nothing pushes the purge out, and no tower takes it. */
    static List<Finding> towerNeeded(PlanFacts facts) {
        boolean nobody = facts.ledger().swaps().stream()
                .map(s -> s.dryRun().purging())
                .anyMatch(p -> p.length() > 0 && p.by() == Purging.By.NOBODY);
        if (!nobody || !(facts.ledger().place() instanceof PurgePlace.Bin)) {
            return List.of();
        }
        return List.of(Finding.of(
                        Severity.WARN,
                        "tower-needed",
                        "Nothing in the swap macro pushes the purge out and nobody stands by, so the mixed remains end up in the part; print a tower, or add a purge to the macro.")
                .mendedBy(Fix.ofPurge("Print a tower", p -> p.into(new PurgePlace.OnTower(PurgePlace.OnTower.USUAL)))));
    }

    /** The machine's routine pushes the same for every pair, and for some that is not enough. */
    static List<Finding> routineTooShort(PlanFacts facts) {
        if (!(facts.ledger().place() instanceof PurgePlace.Routine routine)) {
            return List.of();
        }
        Filament filament = facts.printer().filament();
        List<Swap> tooShort = facts.ledger().swaps().stream()
                .filter(s -> filament.length(s.purge().volume()) * NEARLY > routine.length())
                .toList();
        if (tooShort.isEmpty()) {
            return List.of();
        }
        Swap worst = tooShort.stream()
                .max(java.util.Comparator.comparingDouble(
                        s -> s.purge().volume().cubicMillimetres()))
                .orElseThrow();
        double needed = Math.ceil(filament.length(worst.purge().volume()));
        return List.of(Finding.of(
                        Severity.WARN,
                        "routine-too-short",
                        Words.format(
                                "The machine's routine pushes %.0f mm, too little for %s: %s to %s needs %.0f mm.",
                                routine.length(),
                                Words.count(tooShort.size(), "swap"),
                                worst.out().name(),
                                worst.in().name(),
                                needed))
                .at(worst.layer())
                .mendedBy(Fix.ofPurge(
                        Words.format("Let it push %.0f mm", needed), p -> p.into(new PurgePlace.Routine(needed)))));
    }
}
