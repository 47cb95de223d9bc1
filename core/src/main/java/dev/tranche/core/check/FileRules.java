package dev.tranche.core.check;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Heater;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.handoff.Fit;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Starts;
import dev.tranche.core.sequence.AsSliced;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/** Rules on the sliced G-code. */
final class FileRules {
    private FileRules() {}

    /** So little does not matter, µm. */
    private static final int RAFT_NEAR = 20;
    /** So far apart two temperatures are for one filament, °C; common practice. */
    private static final double HEAT_NEAR = 10;

    static List<Finding> otherLayers(PlanFacts facts) {
        if (facts.file().isEmpty() || facts.match().isPresent()) {
            return List.of();
        }
        try {
            GridMatch.of(facts.file().get(), facts.grid());
            return List.of();
        } catch (Refusal refusal) {
            Finding finding = Finding.of(Severity.STOP, "other-layers", refusal.getMessage());
            return List.of(takingLayers(facts).map(finding::mendedBy).orElse(finding));
        }
    }

    /** The plan in the layers of its file, where those are other ones. */
    private static Optional<Fix> takingLayers(PlanFacts facts) {
        return facts.file()
                .flatMap(f -> GridMatch.otherLayers(f, facts.grid()))
                .map(l -> new Fix(
                        "Take the file's layers",
                        plan -> plan.withLayers(plan.layers().withLayers(l.get(0), l.get(1)))));
    }

    /** A raft that only the file knows of may be layers of the model, and one that only the plan knows of is not there. */
    static List<Finding> raft(PlanFacts facts) {
        Height planned = facts.plan().layers().raft();
        return facts.match().stream()
                .filter(m -> Math.abs(m.raft().micrometres() - planned.micrometres()) > RAFT_NEAR)
                .map(m -> Finding.of(
                                Severity.STOP,
                                "raft-differs",
                                m.raft().equals(Height.ZERO)
                                        ? Words.format(
                                                "The plan has a raft of %s mm and the G-code has none, so its heights are others; say so, or slice it with one.",
                                                planned)
                                        : Words.format(
                                                "The G-code prints %s, %s mm together, under what would be the plan's first layer, and the plan says %s; say whether that is a raft.",
                                                Words.count(m.before(), "layer"),
                                                m.raft(),
                                                planned.equals(Height.ZERO) ? "nothing of a raft" : planned + " mm"))
                        .at(1)
                        .acceptedBy("Print it as it is")
                        .mendedBy(new Fix(
                                m.raft().equals(Height.ZERO)
                                        ? "Plan without a raft"
                                        : "It is a raft of " + m.raft() + " mm",
                                plan -> plan.withLayers(plan.layers().withRaft(m.raft())))))
                .toList();
    }

    /** Nothing is swapped beneath the first layer, whatever the file chooses there. */
    static List<Finding> raftOtherwise(PlanFacts facts) {
        SpoolId first = facts.order().passes().get(0).spool();
        return facts
                .match()
                .filter(m -> !m.raft().equals(Height.ZERO))
                .flatMap(m -> facts.tools().flatMap(tools -> m.beneath().stream()
                        .flatMap(run -> run.stints().stream())
                        .map(Stint::tool)
                        .filter(tool -> !tools.spool(tool, 1).equals(Optional.of(first)))
                        .findFirst()
                        .map(tool -> Finding.of(
                                        Severity.WARN,
                                        "raft-otherwise",
                                        Words.format(
                                                "The raft comes out in %s, with which the print begins, and the G-code prints it with T%d%s; begin with another spool, or slice it with this one.",
                                                facts.label(first),
                                                tool,
                                                tools.spool(tool, 1)
                                                        .map(s -> ", which is " + facts.label(s))
                                                        .orElse("")))
                                .at(1)
                                .acceptedBy("Print it in that"))))
                .stream()
                .toList();
    }

    /** Layers as high as the plan's do not make it the plan's model; above a raft they may begin with another one. */
    static List<Finding> anotherModel(PlanFacts facts) {
        boolean misread = facts.file()
                .filter(f -> !f.makesSenseTo(facts.printer().abilities().dialect()))
                .isPresent();
        return facts.fit().filter(f -> !misread).flatMap(Fit::differs).stream()
                .map(d -> anotherModel(d, takingLayers(facts)))
                .toList();
    }

    private static Finding anotherModel(Fit.Difference d, Optional<Fix> layers) {
        Finding finding = Finding.of(
                        Severity.STOP,
                        "another-model",
                        Words.format(
                                "On layer %d the G-code prints something %s mm wide and %s mm deep, and the model is %s and %s mm there; %sgive the file of this very model, turned as it stands here.",
                                d.layer(),
                                mm(d.printed().getWidth()),
                                mm(d.printed().getHeight()),
                                mm(d.model().getWidth()),
                                mm(d.model().getHeight()),
                                layers.isPresent()
                                        ? "its first layer may be another above its raft, so take its layers, or "
                                        : ""))
                .at(d.layer())
                .acceptedBy("It is this model");
        return layers.map(finding::mendedBy).orElse(finding);
    }

    /** Swaps heat and purge as the spool takes it, and the file prints as it was sliced. */
    static List<Finding> heatsDiffer(PlanFacts facts) {
        Map<SpoolId, Hot> hot = new LinkedHashMap<>();
        Stream.concat(first(facts), heatedAfterSwaps(facts))
                .filter(Hot::differs)
                .forEach(h -> hot.putIfAbsent(h.spool().id(), h));
        return hot.values().stream()
                .limit(1)
                .map(first -> Finding.of(
                                Severity.WARN,
                                "heat-differs",
                                hot.values().stream().map(Hot::sentence).collect(Collectors.joining())
                                        + "Correct the spool on the shelf, or slice for what it takes.")
                        .at(first.layer())
                        .acceptedBy("It is meant so"))
                .toList();
    }

    /** @param printed at, °C, and {@code planned} what it is to be printed at */
    private record Hot(Spool spool, double printed, int planned, int layer) {
        boolean differs() {
            return printed > Heater.ROOM && Math.abs(printed - planned) > HEAT_NEAR;
        }

        String sentence() {
            return Words.format(
                    "The G-code prints %s at %.0f °C, and it is to be printed at %d °C. ",
                    spool.name(), printed, planned);
        }
    }

    /** What is loaded first is heated by the file alone. */
    private static Stream<Hot> first(PlanFacts facts) {
        return facts.file().stream().flatMap(f -> facts.ledger().stretches().stream()
                .limit(1)
                .map(s -> facts.shelf().get(s.spool()))
                .map(s -> new Hot(s, f.start().state().nozzleTemperature(), s.firstLayerTemperature(), 1)));
    }

    /** What is heated by its swap, and then by the file where that speaks to each of its tools. */
    private static Stream<Hot> heatedAfterSwaps(PlanFacts facts) {
        List<Hot> all = facts.ledger().swaps().stream()
                .flatMap(s -> s.door().stream()
                        .map(d -> new Hot(s.in(), d.warming().to(), s.moment().temperatureIn(), s.layer())))
                .toList();
        boolean speaks = all.stream().mapToDouble(Hot::printed).distinct().count() > 1;
        return facts.tools().isPresent() && speaks ? all.stream() : Stream.empty();
    }

    /** What was sliced for a larger printer. */
    static List<Finding> beyondTravel(PlanFacts facts) {
        Travel travel = facts.printer().travel();
        // Where the origin is moved nobody knows what its places are to the machine.
        Envelope printed = facts.match()
                .filter(m -> m.file().originMoved().isEmpty())
                .map(GridMatch::part)
                .orElseGet(Envelope::new);
        return travel.covers(printed)
                ? List.of()
                : List.of(Finding.of(
                        Severity.STOP,
                        "beyond-travel",
                        Words.format(
                                "The G-code prints from X %.1f Y %.1f to X %.1f Y %.1f, and the nozzle of %s goes from X %.1f Y %.1f to X %.1f Y %.1f; choose the printer it was sliced for, slice it for this one, or correct its travel.",
                                printed.getMinX(),
                                printed.getMinY(),
                                printed.getMaxX(),
                                printed.getMaxY(),
                                facts.printer().name(),
                                travel.minX(),
                                travel.minY(),
                                travel.maxX(),
                                travel.maxY())));
    }

    private static String mm(double length) {
        return Words.format("%.1f", length);
    }

    /** A park spot is a place of the machine; where the file moves the origin nobody knows what that is to it. */
    static List<Finding> originMoved(PlanFacts facts) {
        return facts.file().stream()
                .flatMapToLong(f -> f.originMoved().stream())
                .mapToObj(line -> Finding.of(
                                Severity.STOP,
                                "origin-moved",
                                Words.format(
                                        "Line %d of the G-code calls another place X 0 Y 0 (G92), so the park spot and whatever else macros go to would lie elsewhere; slice it without that line.",
                                        line))
                        .acceptedBy("Its places are where macros go"))
                .toList();
    }

    /** Where the nozzle is not known to be, nothing can be put in. */
    static List<Finding> notFollowed(PlanFacts facts) {
        return facts.file().flatMap(SlicedFile::notFollowed).stream()
                .map(n -> Finding.of(Severity.STOP, "not-followed", n.sentence())
                        .acceptedBy("It changes nothing on this printer"))
                .toList();
    }

    /** A print that stops where nobody planned it waits for nobody, or for the wrong spool. */
    static List<Finding> stopsAlreadyThere(PlanFacts facts) {
        return facts.stops().stream()
                .flatMap(stops -> Stream.concat(undecided(facts, stops.undecided()), left(stops.left())))
                .toList();
    }

    private static Stream<Finding> undecided(PlanFacts facts, List<StopTable.Row> rows) {
        return rows.stream()
                .limit(1)
                .map(first -> swappingThere(
                        facts,
                        rows,
                        Finding.of(
                                        Severity.STOP,
                                        "stops-in-file",
                                        Words.format(
                                                "The G-code already holds %s, the first (%s) on line %d; say at the hand-off what each is, or the print stops there and where the plan does.",
                                                Words.count(rows.size(), "stop"),
                                                Words.quoted(first.stop().text()),
                                                first.stop().line()))
                                .at(Math.max(1, first.layer()))
                                .acceptedBy("Leave them all and stop there too")));
    }

    /** Who has set stops in a slicing program had a colour in mind for each; for those elsewhere than between layers, something else. */
    private static Finding swappingThere(PlanFacts facts, List<StopTable.Row> rows, Finding finding) {
        Set<Integer> above = rows.stream()
                .filter(r -> !r.within()
                        && r.layer() > 1
                        && r.layer() <= facts.grid().count())
                .map(StopTable.Row::layer)
                .collect(Collectors.toSet());
        boolean open = rows.stream().allMatch(r -> r.meets().isEmpty())
                && facts.plan().starts().size() == 1
                && AsSliced.isByHeight(facts.plan())
                && above.size() < Starts.MOST
                && facts.tools().isEmpty()
                && !facts.spare().isEmpty();
        return above.isEmpty() || !open
                ? finding
                : finding.mendedBy(new Fix(
                        rows.size() == 1
                                ? "Plan a swap at it"
                                : "Plan a swap at each" + (above.size() < rows.size() ? " between layers" : ""),
                        plan -> AsSliced.turning(facts.grid(), plan, above, facts.spare())));
    }

    private static Stream<Finding> left(List<StopTable.Row> rows) {
        return rows.stream().limit(1).map(first -> Finding.of(
                        Severity.WARN,
                        "stops-left",
                        Words.format(
                                "The G-code keeps %s of its own beside the plan's, the first (%s) on line %d.",
                                Words.count(rows.size(), "stop"),
                                Words.quoted(first.stop().text()),
                                first.stop().line()))
                .at(Math.max(1, first.layer())));
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

    /** What nothing but a rehearsal sees. */
    static List<Finding> rehearsed(PlanFacts facts) {
        return facts.rehearsed().stream()
                .map(seen -> Finding.of(
                        Severity.WARN,
                        "rehearsed",
                        "The rehearsal did not come out as planned: " + seen
                                + " Look at its report, and rehearse again."))
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
