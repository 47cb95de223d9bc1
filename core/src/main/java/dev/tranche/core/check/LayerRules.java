package dev.tranche.core.check;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;

/** Rules on the colours of single layers. */
final class LayerRules {
    private static final double SPECK = 0.05;
    private static final double NEAR = 0.02;

    /** Less than this is how lines are rounded, mm. */
    private static final double LEAST_SHRINK = 0.05;

    private LayerRules() {}

    /** Colours, or pieces of them, into which no line of plastic fits. */
    static List<Finding> tooThin(PlanFacts facts) {
        List<Finding> findings = new ArrayList<>();
        for (SpoolId spool : facts.plan().palette()) {
            int first = 0;
            int last = 0;
            int pieces = 0;
            for (int layer = 1; layer <= facts.grid().count(); layer++) {
                int lost = facts.colouring()
                        .layer(layer)
                        .tint(spool)
                        .map(Tint::lost)
                        .orElse(0);
                if (lost > 0) {
                    first = first == 0 ? layer : first;
                    last = layer;
                    pieces = Math.max(pieces, lost);
                }
            }
            if (first > 0) {
                findings.add(Finding.of(
                                Severity.WARN,
                                "thin-" + facts.plan().letter(spool),
                                Words.format(
                                        "%s of %s on %s %s thinner than a line of %.2f mm and will not print.",
                                        Words.count(pieces, "piece"),
                                        facts.label(spool),
                                        Words.layers(first, last),
                                        pieces == 1 ? "is" : "are",
                                        facts.printer().lineWidth()))
                        .at(first));
            }
        }
        return findings;
    }

    /** Where the first layer is drawn in, each colour by itself, the colours come apart. */
    static List<Finding> gapsOnTheFirstLayer(PlanFacts facts) {
        double planned = facts.plan().layers().shrink();
        double measured = facts.fit()
                .map(f -> f.shrink().orElse(0))
                .filter(s -> s >= LEAST_SHRINK)
                .orElse(0.0);
        double shrink = Math.max(planned, measured);
        double along = shrink == 0 ? 0 : shared(facts.colouring());
        if (along < 1) {
            return List.of();
        }
        Finding finding = Finding.of(
                        Severity.WARN,
                        "first-layer-gaps",
                        Words.format(
                                "The first layer is drawn in by %.2f mm%s, which leaves a gap of %.2f mm along %.0f mm between its colours; turn that off in the slicing program.",
                                shrink, measured > planned ? " in the G-code" : "", 2 * shrink, along))
                .at(1);
        return List.of(
                measured > planned
                        ? finding
                        : finding.mendedBy(new Fix(
                                "Plan without drawing it in",
                                p -> p.withLayers(p.layers().shrunkBy(0)))));
    }

    /** Length of what the colours of the first layer share, mm: the band one reaches into another, by its width. */
    private static double shared(Colouring colouring) {
        LayerColours first = colouring.layer(1);
        double along = 0;
        for (int i = 0; i < first.tints().size(); i++) {
            for (int j = 0; j < i; j++) {
                Tint a = first.tints().get(i);
                Tint b = first.tints().get(j);
                if (a.squareMillimetres() > SPECK && b.squareMillimetres() > SPECK) {
                    along += Areas.intersection(Areas.of(a.area().buffer(NEAR)), b.area())
                                    .getArea()
                            / NEAR;
                }
            }
        }
        return along;
    }
}
