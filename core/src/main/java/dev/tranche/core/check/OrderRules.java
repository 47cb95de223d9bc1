package dev.tranche.core.check;

import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Things;
import dev.tranche.core.sequence.AsSliced;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.Surroundings;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Rules on the order in which colours are printed. */
final class OrderRules {
    private static final int MANY = 10;

    private OrderRules() {}

    private static boolean planned(PlanFacts facts) {
        return facts.match().filter(m -> m.file().changesTools()).isEmpty();
    }

    private static int swaps(PlanFacts facts) {
        return facts.ledger().swaps().size();
    }

    /** Colours side by side on many layers: a swap on each. */
    static List<Finding> sideBySide(PlanFacts facts) {
        long mixed = facts.order().mixedLayers();
        int layers = facts.grid().count();
        if (mixed < MANY || rule(facts) == Rule.BANDS || rule(facts) == Rule.ONE_AFTER_ANOTHER) {
            return List.of();
        }
        double reach = facts.printer().hotend().reach();
        Finding finding = Finding.of(
                Severity.WARN,
                "side-by-side",
                Words.format(
                        "Colours lie side by side on %d of %d layers, which takes %s; thicker layers, or each colour printed several layers high before the next, need fewer.",
                        mixed, layers, facts.ledger().changes(swaps(facts))));
        return List.of(
                reach < 2 * facts.grid().layerHeight().millimetres()
                        ? finding
                        : finding.mendedBy(new Fix(
                                "Print in bands up to " + number(reach) + " mm high",
                                p -> p.with(p.ordering().by(Rule.BANDS)))));
    }

    /** Orders that no slicing program prints are made from a file that changes tools on each layer. */
    static List<Finding> ordersNeedTools(PlanFacts facts) {
        if (rule(facts) == Rule.ONE_AFTER_ANOTHER) {
            return slicedApart(facts);
        }
        return rule(facts) == Rule.NUMBERED || facts.order().mixedLayers() == 0 || !planned(facts)
                ? List.of()
                : List.of(Finding.of(
                                Severity.NOTE,
                                "order-needs-tools",
                                Words.format(
                                        "The plan prints %s: slice the coloured model with a tool for each spool and give that file at the hand-off; it is put into this order there.",
                                        rule(facts).manner()))
                        .mendedBy(new Fix(
                                "Print by number", p -> p.with(p.ordering().by(Rule.NUMBERED)))));
    }

    /** Copies can only be told apart by the slicing program. */
    private static List<Finding> slicedApart(PlanFacts facts) {
        boolean done = facts.rearranging().made().isPresent()
                || facts.file()
                        .filter(f -> f.order() == SlicedFile.Order.SEVERAL_TIMES)
                        .isPresent();
        Fix together = new Fix("Print all together", p -> p.with(p.ordering().by(Rule.NUMBERED)));
        if (facts.orders().things().size() < 2) {
            return List.of(Finding.of(
                            Severity.NOTE,
                            "only-one-thing",
                            Words.format(
                                    "The plan prints one after another, and there are not two to %d things that stand by themselves; it is printed by number.",
                                    Things.MOST))
                    .mendedBy(together));
        }
        return done || !planned(facts)
                ? List.of()
                : List.of(Finding.of(
                                Severity.NOTE,
                                "order-needs-slicing",
                                facts.orders().sharesSpools()
                                        ? "The plan prints one after another: let your slicing program print each copy or part whole before the next, and give that file at the hand-off."
                                        : "The plan prints one after another: slice the parts with a tool for each spool, or whole one after another, and give that file at the hand-off.")
                        .mendedBy(together));
    }

    /** A file that cannot be put into the plan's order is printed in its own. */
    static List<Finding> notRearranged(PlanFacts facts) {
        return facts.rearranging().refusal().stream()
                .map(why -> Finding.of(
                                Severity.STOP,
                                "not-rearranged",
                                Words.format(
                                        "The plan prints %s, and the file stays in its own order. %s",
                                        rule(facts).manner(), why))
                        .mendedBy(new Fix(
                                "Print it as it is sliced",
                                p -> p.with(p.ordering().by(Rule.NUMBERED)))))
                .toList();
    }

    /** Another numbering brings the numbered order nearer to the best there is. */
    static List<Finding> betterNumbering(PlanFacts facts) {
        if (rule(facts) != Rule.NUMBERED
                || facts.order().mixedLayers() == 0
                || !planned(facts)
                || !facts.plan().mixed().isEmpty()) {
            return List.of();
        }
        Orders orders = facts.orders();
        Ordering other =
                facts.plan().ordering().numbered(orders.quickNumbering().spools());
        int fewer = orders.numbered(other).swaps().size();
        return fewer >= swaps(facts)
                ? List.of()
                : List.of(Finding.of(
                                Severity.NOTE,
                                "better-numbering",
                                Words.format(
                                        "Numbered %s, the spools need %s instead of %d.",
                                        other.numbering().stream()
                                                .filter(facts.plan().spools()::contains)
                                                .map(facts::label)
                                                .collect(Collectors.joining(", ")),
                                        facts.ledger().changes(fewer),
                                        swaps(facts)))
                        .mendedBy(new Fix("Number them like this", p -> p.with(other))));
    }

    /** A file with tools of its own prints what it prints, whatever the plan says. */
    static List<Finding> toolsOfTheFile(PlanFacts facts) {
        return facts.tools().stream().map(tools -> judged(facts, tools)).toList();
    }

    private static Finding judged(PlanFacts facts, ToolTable tools) {
        Optional<ToolTable.Tool> without =
                tools.tools().stream().filter(t -> t.turns().isEmpty()).findFirst();
        if (without.isPresent()) {
            return asSliced(
                    facts,
                    tools,
                    Finding.of(
                            Severity.STOP,
                            "tool-without-spool",
                            Words.format(
                                    "The G-code prints with %s, and the plan with %s; say at the hand-off which spool T%d stands for, or plan the spool that is missing.",
                                    Words.count(tools.tools().size(), "tool"),
                                    Words.count(facts.plan().spools().size(), "spool"),
                                    without.get().number())));
        }
        if (!tools.others().isEmpty()) {
            return asSliced(
                    facts, tools, differing(facts, tools).at(tools.others().get(0)));
        }
        return Finding.of(
                Severity.NOTE,
                "tools-are-swaps",
                Words.format(
                        facts.rearranging().made().isPresent()
                                ? "The G-code changes tools, and is printed "
                                        + rule(facts).manner() + ": %s."
                                : "The G-code changes tools, and those changes are the plan's swaps: %s.",
                        tools.tools().stream()
                                .map(t -> "T" + t.number() + " is "
                                        + t.turns().stream()
                                                .map(turn -> facts.label(turn.spool()))
                                                .collect(Collectors.joining(", then ")))
                                .collect(Collectors.joining(", "))));
    }

    private static Finding differing(PlanFacts facts, ToolTable tools) {
        int layer = tools.others().get(0);
        int more = tools.others().size() - 1;
        Surroundings surroundings = facts.surroundings();
        if (tools.others().stream().allMatch(l -> differsBesideTheModel(facts, surroundings, tools, l))) {
            Set<SpoolId> beside = tools.others().stream()
                    .flatMap(l -> printed(facts, tools, l).stream()
                            .filter(s -> !spoolsOf(facts, l).contains(s)))
                    .collect(Collectors.toSet());
            return Finding.of(
                            Severity.WARN,
                            "file-colours-differ",
                            Words.format(
                                    "On layer %d%s the G-code prints %s beside the model, as a skirt, supports or a tower of its own, and each time is a swap that colours nothing; slice it without, unless you want them.",
                                    layer,
                                    more == 0 ? "" : " and " + Words.count(more, "other layer"),
                                    labels(facts, beside)))
                    .acceptedBy("Print that as well");
        }
        boolean colourless = tools.tools().stream()
                .flatMap(t -> t.turns().stream())
                .anyMatch(t -> !facts.plan().spools().contains(t.spool()));
        return Finding.of(
                        tools.agrees() && !colourless ? Severity.WARN : Severity.STOP,
                        "file-colours-differ",
                        Words.format(
                                "On layer %d the G-code prints %s and the plan has %s%s; slice it again, or say at the hand-off which spool each tool stands for.",
                                layer,
                                labels(facts, printed(facts, tools, layer)),
                                labels(facts, spoolsOf(facts, layer)),
                                more == 0 ? "" : ", and so on " + Words.count(more, "other layer")))
                .acceptedBy("Print it in the file's colours");
    }

    /** Whether the file prints what the plan has on a layer, and with other tools nothing that lies in the model. */
    private static boolean differsBesideTheModel(
            PlanFacts facts, Surroundings surroundings, ToolTable tools, int layer) {
        Set<SpoolId> planned = spoolsOf(facts, layer);
        Set<Integer> beside = surroundings.toolsBeside(layer);
        return printed(facts, tools, layer).containsAll(planned)
                && facts.match().orElseThrow().layer(layer).stints().stream()
                        .map(Stint::tool)
                        .filter(t ->
                                tools.spool(t, layer).filter(planned::contains).isEmpty())
                        .allMatch(beside::contains);
    }

    /** Who has coloured the print in a slicing program need not do it again. */
    private static Finding asSliced(PlanFacts facts, ToolTable tools, Finding finding) {
        Surroundings surroundings = facts.surroundings();
        return AsSliced.byHeight(surroundings, facts.plan(), tools, facts.spare())
                .or(() -> AsSliced.byPart(surroundings, facts.colouring(), facts.partNames(), tools, facts.spare()))
                .or(() -> AsSliced.beside(surroundings, facts.plan(), tools, facts.spare()))
                .map(sliced -> finding.mendedBy(new Fix(
                        sliced.added().entrySet().stream()
                                .map(a -> Words.format(
                                        "T%d as %s",
                                        a.getKey(),
                                        facts.shelf().get(a.getValue()).name()))
                                .collect(Collectors.collectingAndThen(
                                        Collectors.joining(", "),
                                        added -> "Plan it as the file prints" + (added.isEmpty() ? "" : ", " + added))),
                        plan -> sliced.plan())))
                .orElse(finding);
    }

    private static Set<SpoolId> spoolsOf(PlanFacts facts, int layer) {
        return Set.copyOf(facts.colouring().layer(layer).spools());
    }

    private static Set<SpoolId> printed(PlanFacts facts, ToolTable tools, int layer) {
        return facts.match().orElseThrow().layer(layer).stints().stream()
                .flatMap(s -> tools.spool(s.tool(), layer).stream())
                .collect(Collectors.toSet());
    }

    private static String labels(PlanFacts facts, Iterable<SpoolId> spools) {
        List<String> labels = new java.util.ArrayList<>();
        spools.forEach(s -> labels.add(facts.label(s)));
        return labels.isEmpty() ? "nothing" : labels.stream().sorted().collect(Collectors.joining(" and "));
    }

    private static Rule rule(PlanFacts facts) {
        return facts.plan().ordering().rule();
    }

    private static String number(double mm) {
        return mm == Math.rint(mm) ? String.valueOf((long) mm) : String.valueOf(mm);
    }
}
