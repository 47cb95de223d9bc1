package dev.tranche.core.check;

import dev.tranche.core.layer.Flat;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourStart;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Rules on where colours start. */
final class BorderRules {
    /** So many layers off a flat are most likely a slip. */
    private static final int NEAR = 2;

    private BorderRules() {}

    static List<Finding> sameSpoolOnBothSides(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        for (int i = 1; i < facts.tranches().size(); i++) {
            Tranche below = facts.tranches().get(i - 1);
            Tranche above = facts.tranches().get(i);
            if (below.spool().equals(above.spool())) {
                findings.add(Finding.of(
                                Severity.NOTE,
                                "same-spool-" + above.index(),
                                Words.format(
                                        "%s is on both sides of the border at %s mm, so nothing is swapped there.",
                                        facts.label(above.spool()),
                                        above.start().actual()))
                        .at(above.firstLayer())
                        .mendedBy(new Fix("Merge the two", plan -> plan.merge(above.index()))));
            }
        }
        return findings;
    }

    static List<Finding> offTheGrid(PlanFacts facts) {
        int quarter = facts.grid().layerHeight().micrometres() / 4;
        return facts.tranches().stream()
                .filter(t -> Math.abs(t.start().error()) > quarter)
                .map(t -> Finding.of(
                                Severity.WARN,
                                "off-grid-" + t.index(),
                                Words.format(
                                        "%s was to start at %s mm, but layers end at %s mm: %.2f mm %s.",
                                        facts.label(t.spool()),
                                        t.start().wished(),
                                        t.start().actual(),
                                        Math.abs(t.start().errorMillimetres()),
                                        t.start().error() > 0 ? "higher" : "lower"))
                        .at(t.firstLayer())
                        .mendedBy(new Fix(
                                "Start it at " + t.start().actual() + " mm",
                                plan -> plan.move(t.index(), t.start().actual(), facts.grid()))))
                .toList();
    }

    static List<Finding> colourWithoutLayer(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        List<ColourStart> starts = facts.plan().starts().list();
        for (int i = 0; i < starts.size(); i++) {
            int index = i;
            if (facts.tranches().stream().noneMatch(t -> t.index() == index)) {
                Height wished = starts.get(i).wished();
                boolean above = !facts.grid().goesAbove(wished);
                String why = above ? endBelow(facts.grid(), wished) : "the next colour starts on the same layer";
                Finding finding = Finding.of(
                                Severity.WARN,
                                "no-layer-" + i,
                                Words.format(
                                        "%s, to start at %s mm, gets no layer: %s.",
                                        facts.label(starts.get(i).spool()), wished, why))
                        .mendedBy(new Fix("Remove that start", plan -> plan.merge(index)));
                findings.add(
                        above ? finding : finding.at(facts.grid().snap(wished).layer()));
            }
        }
        return findings;
    }

    /** Why nothing of a print is above {@code height}. */
    private static String endBelow(LayerGrid grid, Height height) {
        return grid.modelHeight().isAbove(height)
                ? "the print ends at " + grid.printedHeight() + " mm, of a model of " + grid.modelHeight() + " mm"
                : "the model ends at " + grid.modelHeight() + " mm";
    }

    /** Borders a layer or two off a floor or a raised top, where one colour runs over into what stands there. */
    static List<Finding> besideAFlat(PlanFacts facts) {
        List<Flat> flats = facts.colouring().outlooks().flats().stream()
                .filter(Flat::isWithin)
                .toList();
        Set<Integer> borders = facts.tranches().stream()
                .map(t -> t.firstLayer() - 1)
                .filter(b -> b > 0)
                .collect(Collectors.toSet());
        List<Finding> findings = new ArrayList<>();
        for (Tranche tranche : facts.tranches()) {
            int border = tranche.firstLayer() - 1;
            // A colour that starts beneath a floor and goes back at it is meant so.
            flats.stream()
                    .filter(f -> border > 0 && !borders.contains(f.layer()))
                    .filter(f -> Math.abs(border - f.layer()) <= NEAR)
                    .filter(f -> flats.stream().noneMatch(o -> o.layer() == border))
                    .findFirst()
                    .ifPresent(flat -> findings.add(beside(facts, tranche, border - flat.layer(), flat)));
        }
        return findings;
    }

    private static Finding beside(PlanFacts facts, Tranche tranche, int off, Flat flat) {
        Height there = facts.grid().top(flat.layer());
        Finding finding = Finding.of(
                        Severity.WARN,
                        "beside-flat-" + tranche.index(),
                        Words.format(
                                "%s starts at %s mm, %s %s the %s at %s mm, so %s.",
                                facts.label(tranche.spool()),
                                tranche.start().actual(),
                                Words.count(Math.abs(off), "layer"),
                                off > 0 ? "above" : "below",
                                flat.form().word(),
                                there,
                                off > 0
                                        ? "the colour below it runs up what stands there"
                                        : "it colours that, too, and thinly"))
                .at(tranche.firstLayer());
        List<ColourStart> starts = facts.plan().starts().list();
        int i = tranche.index();
        boolean fits = there.isAbove(starts.get(i - 1).wished())
                && (i + 1 == starts.size() || starts.get(i + 1).wished().isAbove(there));
        return fits
                ? finding.mendedBy(new Fix("Start it at " + there + " mm", plan -> plan.move(i, there, facts.grid())))
                : finding;
    }
}
