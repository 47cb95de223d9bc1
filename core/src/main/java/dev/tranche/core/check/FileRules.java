package dev.tranche.core.check;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Stop;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.List;

/** Rules on the sliced G-code. */
final class FileRules {
    private FileRules() {}

    static List<Finding> otherLayers(PlanFacts facts) {
        if (facts.file().isEmpty() || facts.match().isPresent()) {
            return List.of();
        }
        try {
            GridMatch.of(facts.file().get(), facts.grid());
            return List.of();
        } catch (Refusal refusal) {
            return List.of(Finding.of(Severity.STOP, "other-layers", refusal.getMessage()));
        }
    }

    /** Where firmwares count filament differently, nobody but the owner knows which count to hand back. */
    static List<Finding> howFilamentCounts(PlanFacts facts) {
        boolean asks = facts.file().map(SlicedFile::readingsDiffer).orElse(false)
                && !facts.rig().printer().abilities().dialect().saysHowFilamentCounts();
        return asks
                ? List.of(
                        Finding.of(
                                Severity.STOP,
                                "filament-readings",
                                "The G-code changes between G90 and G91 without saying M82 or M83 again, which firmwares read differently; say in the printer's abilities how yours counts filament."))
                : List.of();
    }

    static List<Finding> stopsAlreadyThere(PlanFacts facts) {
        List<Stop> stops = facts.file().map(SlicedFile::stops).orElse(List.of()).stream()
                .filter(s -> s.run() >= 0)
                .toList();
        if (stops.isEmpty()) {
            return List.of();
        }
        Stop first = stops.get(0);
        return List.of(Finding.of(
                Severity.WARN,
                "stops-in-file",
                Words.format(
                        "The G-code already holds %s, the first (%s) on line %d; with the plan's swaps the print would stop twice.",
                        Words.count(stops.size(), "stop"), Words.quoted(first.text()), first.line())));
    }

    static List<Finding> writtenBeforeLastChange(PlanFacts facts) {
        return facts.written().stream()
                .filter(state -> !state.equals(facts.state()))
                .map(
                        state -> Finding.of(
                                Severity.WARN,
                                "written-before-change",
                                "The plan has changed since its swaps were last written into G-code; write them again before you print."))
                .toList();
    }

    static List<Finding> olderThanPlan(PlanFacts facts) {
        return facts.file().stream()
                .flatMap(f -> f.blocks().stream())
                .filter(b -> !b.stamp().plan().equals(facts.planId())
                        || !b.stamp().state().equals(facts.state()))
                .limit(1)
                .map(
                        b -> Finding.of(
                                Severity.WARN,
                                "older-than-plan",
                                b.stamp().plan().equals(facts.planId())
                                        ? "The G-code you gave holds swaps of an earlier state of this plan; write them again, which replaces them."
                                        : "The G-code you gave holds swaps of another plan; writing this plan's replaces them."))
                .toList();
    }
}
