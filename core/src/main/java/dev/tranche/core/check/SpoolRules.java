package dev.tranche.core.check;

import dev.tranche.core.estimate.SpoolUse;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.List;

/** Rules on spools. */
final class SpoolRules {
    private SpoolRules() {}

    static List<Finding> firstSpool(PlanFacts facts) {
        String first = facts.label(facts.ledger().stretches().get(0).spool());
        boolean stops = facts.file().stream().flatMap(f -> f.stops().stream()).anyMatch(s -> s.before() < 0);
        boolean asks = facts.ledger().firstLoad().isPresent();
        if (asks && stops) {
            return List.of(Finding.of(
                            Severity.WARN,
                            "first-spool",
                            Words.format(
                                    "The file stops for the first spool, and the first-load macro asks for %s again; switch one of them off.",
                                    first))
                    .at(1));
        }
        String sentence = asks
                ? Words.format("The first-load macro asks for %s before layer 1.", first)
                : stops
                        ? Words.format("Load %s first; the file stops for it before layer 1.", first)
                        : Words.format("Load %s before you start; nothing stops for the first spool.", first);
        return List.of(Finding.of(Severity.NOTE, "first-spool", sentence).at(1));
    }

    static List<Finding> notEnough(PlanFacts facts) {
        return facts.ledger().uses().stream()
                .filter(u -> !u.isEnough())
                .map(u -> Finding.of(
                                Severity.STOP,
                                "not-enough-" + facts.plan().letter(u.spool().id()),
                                sentence(facts, u))
                        .acceptedBy("There is more of it"))
                .toList();
    }

    private static String sentence(PlanFacts facts, SpoolUse use) {
        return Words.format(
                "%s needs %.1f g and has %.1f g left; weigh it again, or use another spool.",
                facts.label(use.spool().id()), use.grams(), use.spool().gramsLeft());
    }
}
