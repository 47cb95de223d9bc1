package dev.tranche.core.check;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/** Rules on the model. */
final class ModelRules {
    private ModelRules() {}

    static List<Finding> openMesh(PlanFacts facts) {
        long open = facts.sections().stream().filter(s -> s.openEnds() > 0).count();
        if (open == 0) {
            return List.of();
        }
        int first = 1;
        while (facts.sections().get(first - 1).openEnds() == 0) {
            first++;
        }
        return List.of(Finding.of(
                        Severity.WARN,
                        "open-mesh",
                        Words.format(
                                "The model has holes: the outline had to be closed by straight lines on %s, first on layer %d.",
                                Words.count(open, "layer"), first))
                .at(first));
    }

    /** A sheet without thickness, or what is lower than the middle of its first layer. */
    static List<Finding> nothingPrints(PlanFacts facts) {
        if (facts.sections().stream().anyMatch(s -> !s.outline().isEmpty())) {
            return List.of();
        }
        Height high = facts.grid().modelHeight();
        Height first = facts.grid().firstLayer();
        return List.of(Finding.of(
                Severity.STOP,
                "nothing-prints",
                first.micrometres() < 2 * high.micrometres()
                        ? "No layer of the model prints: it is a surface without thickness, or thinner than a layer. Give it some in the program that drew it, or print thinner layers."
                        : Words.format(
                                "No layer of the model prints: it is %s mm high, and its first layer would be %s mm. Give a first layer of less than %s mm, or scale the model.",
                                high, first, high.plus(high))));
    }

    /** Parts whose lowest layer lies on nothing. */
    static List<Finding> floating(PlanFacts facts) {
        CutModel model = facts.colouring().model();
        int above = IntStream.range(0, model.body().solids().size())
                .filter(i -> !model.hidden().contains(i))
                .map(i -> model.body().solids().get(i).bottom())
                .min()
                .orElse(0);
        if (above > 0) {
            return List.of(Finding.of(
                    Severity.NOTE,
                    "lifted",
                    Words.format(
                            "The model begins %s mm above the bed; it needs support under it, or set it down.",
                            Height.ofMicrometres(above))));
        }
        List<Finding> findings = new ArrayList<>();
        for (int i = 0; i < model.solids().size(); i++) {
            int layer = lowest(model.solids().get(i));
            if (layer > 1) {
                MultiPolygon touching = Areas.intersection(
                        model.section(i, layer).outline(),
                        model.section(layer - 1).outline());
                if (touching.isEmpty()) {
                    findings.add(Finding.of(
                                    Severity.WARN,
                                    "floating-" + i,
                                    Words.format(
                                            "The part “%s” begins at %s mm and lies on nothing there; it needs support, or sits too high.",
                                            facts.partNames().get(i),
                                            facts.grid().bottom(layer)))
                            .at(layer));
                }
            }
        }
        return findings;
    }

    private static int lowest(List<Section> sections) {
        int layer = 1;
        while (layer <= sections.size() && sections.get(layer - 1).outline().isEmpty()) {
            layer++;
        }
        return layer > sections.size() ? 0 : layer;
    }

    static List<Finding> tooLarge(PlanFacts facts) {
        Envelope bed = facts.printer().bed().bounds();
        Envelope part = facts.modelFootprint().outline().getEnvelopeInternal();
        if (part.getWidth() > bed.getWidth() || part.getHeight() > bed.getHeight()) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-wide",
                    Words.format(
                            "The model is %.1f × %.1f mm and the bed %.0f × %.0f mm; choose another printer or scale the model.",
                            part.getWidth(), part.getHeight(), bed.getWidth(), bed.getHeight())));
        }
        Height high = facts.grid().printedHeight().plus(facts.plan().layers().raft());
        if (high.isAbove(facts.printer().maxHeight())) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-high",
                    Words.format(
                            "The print is %s mm high and the printer reaches %s mm; choose another printer or scale the model.",
                            high, facts.printer().maxHeight())));
        }
        return List.of();
    }
}
