package dev.tranche.core.check;

import dev.tranche.core.estimate.Pause;
import dev.tranche.core.machine.Point;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Fault;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Halts;
import dev.tranche.core.rig.RigChecks;
import dev.tranche.core.rig.RigFinding;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** Rules on what the printer does at a swap. They are silent where nothing is swapped. */
final class PrinterRules {
    /** Places and heights; the numbers of commands and steps are whole. */
    private static final Pattern MEASURE = Pattern.compile("-?\\d+\\.\\d+");

    private PrinterRules() {}

    static List<Finding> parkSpot(PlanFacts facts) {
        boolean parks = facts.rig().macros().answer(Event.SWAP).stream()
                .flatMap(m -> m.steps().stream())
                .anyMatch(s -> s.on() && (s.step() instanceof Step.Park || s.step() instanceof Step.FirmwareRoutine));
        if (!swaps(facts) || !parks) {
            return List.of();
        }
        if (facts.printer().parkSpot().isEmpty()) {
            return List.of(Finding.of(
                    Severity.WARN,
                    "no-park-spot",
                    Words.format(
                            "%s has no park spot, so the nozzle waits over the part and melts a blob into it; give it one.",
                            facts.printer().name())));
        }
        Point spot = facts.printer().parkSpot().get();
        boolean overTower = facts.isOverTower(spot);
        if (facts.isOver(spot) || overTower) {
            boolean purges = facts.ledger().swaps().stream()
                    .anyMatch(s -> s.moment().purge() > 0
                            && s.dryRun().pushed() > s.dryRun().pulled());
            return List.of(Finding.of(
                    purges ? Severity.STOP : Severity.WARN,
                    "park-over-part",
                    Words.format(
                            "The park spot X %s Y %s lies over the %s%s; move it, or the %s.",
                            number(spot.x()),
                            number(spot.y()),
                            overTower ? "tower" : "part",
                            purges ? ", and what is purged there falls onto it" : ", and drool falls onto it",
                            overTower ? "tower" : "part")));
        }
        return List.of();
    }

    /**
     * What the dry runs of this plan's own stops say. What is so at many of them, in other places or at other heights, is told
     * once, at the first layer it is true of.
     */
    static List<Finding> macroFaults(PlanFacts facts) {
        Map<String, Map<String, Finding>> alike = new LinkedHashMap<>();
        facts.ledger().firstLoad().ifPresent(f -> add(alike, Event.FIRST_LOAD, f.dryRun(), 1));
        facts.ledger().swaps().forEach(s -> add(alike, Event.SWAP, s.dryRun(), s.layer()));
        facts.ledger().pauses().forEach(p -> p.dryRun().ifPresent(run -> add(alike, Event.HALT, run, p.layer())));
        return alike.values().stream()
                .map(found -> together(List.copyOf(found.values())))
                .toList();
    }

    private static void add(Map<String, Map<String, Finding>> alike, Event event, DryRun run, int layer) {
        for (Fault fault : run.faults()) {
            if (fault.severity() != Severity.NOTE) {
                String key = "macro-fault-" + alike.size();
                alike.computeIfAbsent(MEASURE.matcher(fault.sentence()).replaceAll("0"), k -> new LinkedHashMap<>())
                        .putIfAbsent(
                                fault.sentence(),
                                Finding.of(
                                                fault.severity(),
                                                key,
                                                event.title() + " macro"
                                                        + (fault.step() < 0 ? "" : ", step " + (fault.step() + 1))
                                                        + ": " + fault.sentence())
                                        .at(layer));
            }
        }
    }

    private static Finding together(List<Finding> alike) {
        Finding first = alike.get(0);
        return alike.size() == 1
                ? first
                : first.saying(Words.format(
                        "%s So it is %s more, in other places or at other heights.",
                        first.sentence(), Words.count(alike.size() - 1, "time")));
    }

    /** What does not fit together on the printer, whatever the plan. */
    static List<Finding> rig(PlanFacts facts) {
        if (!swaps(facts)) {
            return List.of();
        }
        List<Finding> findings = new ArrayList<>();
        for (RigFinding f : RigChecks.between(facts.rig())) {
            findings.add(Finding.of(f.severity(), "rig-" + findings.size(), f.sentence()));
        }
        return findings;
    }

    /** A halt that stops nothing, or that a swap makes for it. */
    static List<Finding> halts(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        List<Halt> halts = facts.plan().halts().list();
        for (int i = 0; i < halts.size(); i++) {
            if (!Halts.stops(halts.get(i), facts.grid())) {
                int index = i;
                findings.add(Finding.of(
                                Severity.WARN,
                                "halt-nowhere-" + i,
                                Words.format(
                                        "The halt “%s” at %s mm is not between two layers, so it never comes; remove it or give another height.",
                                        halts.get(i).note(), halts.get(i).wished()))
                        .mendedBy(new Fix("Remove the halt", p -> p.withoutHalt(index))));
            }
        }
        for (Pause pause : facts.ledger().pauses()) {
            if (pause.dryRun().isEmpty()) {
                findings.add(Finding.of(
                                Severity.NOTE,
                                "halt-at-swap-" + pause.number(),
                                Words.format(
                                        "The halt “%s” falls on a swap, which waits for you anyway; the machine stops once for both.",
                                        pause.note()))
                        .at(pause.layer()));
            }
        }
        return findings;
    }

    private static boolean swaps(PlanFacts facts) {
        return !facts.ledger().swaps().isEmpty();
    }

    private static String number(double mm) {
        return mm == Math.rint(mm) ? String.valueOf((long) mm) : String.valueOf(mm);
    }
}
