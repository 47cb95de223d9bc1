package dev.tranche.core.check;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Point;
import dev.tranche.core.macro.MacroRenderer;
import dev.tranche.core.macro.Step;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Rules on what the printer does at a swap. They are silent where nothing is swapped. */
final class PrinterRules {
    private PrinterRules() {}

    static List<Finding> parkSpot(PlanFacts facts) {
        boolean parks = facts.macro().steps().stream()
                .anyMatch(s -> s instanceof Step.Park || s instanceof Step.FirmwareRoutine);
        if (!swaps(facts) || !parks) {
            return List.of();
        }
        if (facts.printer().parkSpot().isEmpty()) {
            return List.of(Finding.of(
                    Severity.WARN,
                    "no-park-spot",
                    "%s has no park spot, so the nozzle waits over the part and melts a blob into it; give it one."
                            .formatted(facts.printer().name())));
        }
        Point spot = facts.printer().parkSpot().get();
        if (!facts.printer().bed().contains(spot)) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "park-off-bed",
                    "The park spot X %s Y %s is off the bed; move it onto the bed."
                            .formatted(number(spot.x()), number(spot.y()))));
        }
        if (facts.footprint().contains(spot.x(), spot.y())) {
            return List.of(Finding.of(
                    Severity.WARN,
                    "park-over-part",
                    "The park spot X %s Y %s lies over the part; move it, or the part, so that drool falls beside it."
                            .formatted(number(spot.x()), number(spot.y()))));
        }
        return List.of();
    }

    static List<Finding> missingAbility(PlanFacts facts) {
        if (!swaps(facts)) {
            return List.of();
        }
        Set<Command> missing = new LinkedHashSet<>();
        facts.macro().steps().forEach(s -> MacroRenderer.missing(s, facts.printer())
                .ifPresent(missing::add));
        return missing.stream()
                .map(c -> Finding.of(
                        c == Command.M600 || c == Command.M0 ? Severity.STOP : Severity.WARN,
                        "missing-" + c.name(),
                        "%s does not understand %s (%s), which the swap macro uses; that step is left out."
                                .formatted(facts.printer().name(), c.name(), c.meaning())))
                .toList();
    }

    static List<Finding> noStop(PlanFacts facts) {
        boolean stops = facts.macro().steps().stream()
                .anyMatch(s -> s instanceof Step.WaitForPerson
                        || s instanceof Step.FirmwareRoutine
                        || s instanceof Step.Dwell);
        return stops || !swaps(facts)
                ? List.of()
                : List.of(
                        Finding.of(
                                Severity.STOP,
                                "no-stop",
                                "The swap macro never stops the machine, so no spool can be changed; add a wait or the firmware's routine."));
    }

    static List<Finding> macroFaults(PlanFacts facts) {
        Set<String> sentences = new LinkedHashSet<>();
        facts.ledger().swaps().forEach(s -> s.dryRun().faults().forEach(f -> sentences.add(f.sentence())));
        List<Finding> findings = new ArrayList<>();
        for (String sentence : sentences) {
            findings.add(Finding.of(
                    Severity.STOP, "macro-fault-" + findings.size(), "Dry run of the swap macro: " + sentence));
        }
        return findings;
    }

    static List<Finding> heaterLimit(PlanFacts facts) {
        long limit = facts.printer().heaterLimit().toSeconds();
        return facts.ledger().swaps().stream()
                .filter(s -> s.personSeconds() > limit)
                .limit(1)
                .map(s -> Finding.of(
                        Severity.WARN,
                        "heater-limit",
                        "The nozzle cools after %d s at a standstill and a swap takes about %.0f s; raise the limit in the firmware."
                                .formatted(limit, s.personSeconds())))
                .toList();
    }

    private static boolean swaps(PlanFacts facts) {
        return !facts.ledger().swaps().isEmpty();
    }

    private static String number(double mm) {
        return mm == Math.rint(mm) ? String.valueOf((long) mm) : String.valueOf(mm);
    }
}
