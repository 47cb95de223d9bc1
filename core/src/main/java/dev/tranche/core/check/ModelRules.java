package dev.tranche.core.check;

import dev.tranche.core.units.Severity;
import dev.tranche.core.units.Words;
import java.util.List;
import java.util.Locale;
import org.locationtech.jts.geom.Envelope;

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
                        "The model has holes: the outline had to be closed by straight lines on %s, first on layer %d."
                                .formatted(Words.count(open, "layer"), first))
                .at(first));
    }

    static List<Finding> tooLarge(PlanFacts facts) {
        Envelope bed = facts.printer().bed().bounds();
        Envelope part = facts.footprint();
        if (part.getWidth() > bed.getWidth() || part.getHeight() > bed.getHeight()) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-wide",
                    String.format(
                            Locale.ROOT,
                            "The model is %.1f × %.1f mm and the bed %.0f × %.0f mm; choose another printer or scale the model.",
                            part.getWidth(),
                            part.getHeight(),
                            bed.getWidth(),
                            bed.getHeight())));
        }
        if (facts.grid().printedHeight().isAbove(facts.printer().maxHeight())) {
            return List.of(Finding.of(
                    Severity.STOP,
                    "too-high",
                    "The print is %s mm high and the printer reaches %s mm; choose another printer or scale the model."
                            .formatted(
                                    facts.grid().printedHeight(),
                                    facts.printer().maxHeight())));
        }
        return List.of();
    }
}
