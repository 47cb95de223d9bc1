package dev.tranche.core.check;

import dev.tranche.core.estimate.SpoolUse;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Optional;

/** Rules on spools. */
final class SpoolRules {
    private SpoolRules() {}

    static List<Finding> firstSpool(PlanFacts facts) {
        if (!facts.ledger().feeding().isEmpty()) {
            return List.of(Finding.of(
                            Severity.NOTE,
                            "first-spool",
                            Words.format(
                                    "Feed %s before you start; the nozzle blends them from there on.",
                                    Mixing.feeding(facts.ledger().feeding(), facts::label)))
                    .at(1));
        }
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

    /** A number mistyped on the shelf, most often. */
    static List<Finding> unusualTemperature(PlanFacts facts) {
        return facts.ledger().uses().stream()
                .map(SpoolUse::spool)
                .filter(s ->
                        !s.material().isUsual(s.temperature()) || !s.material().isUsual(s.firstLayerTemperature()))
                .map(s -> Finding.of(
                        Severity.WARN,
                        "unusual-temperature-" + facts.plan().letter(s.id()),
                        Words.format(
                                "%s prints at %d °C, where %s usually takes %d to %d °C; look at the spool, and correct it on the shelf.",
                                facts.label(s.id()),
                                s.material().isUsual(s.temperature()) ? s.firstLayerTemperature() : s.temperature(),
                                s.material().title(),
                                s.material().coolest(),
                                s.material().hottest())))
                .toList();
    }

    /** What is put in for the first layer is as hot as that wants, and nothing but the file makes it cooler again. */
    static List<Finding> firstLayerTemperature(PlanFacts facts) {
        Optional<Swap> last = facts.ledger().swaps().stream()
                .filter(s -> s.layer() == 1)
                .reduce((a, b) -> b)
                .filter(s -> s.in().firstLayerTemperature() != s.in().temperature());
        boolean fileCools = facts.match()
                .filter(m -> facts.grid().count() > 1)
                .flatMap(m -> m.layer(2).door())
                .filter(d -> last.isPresent()
                        && Math.abs(d.state().nozzleTemperature()
                                        - last.get().in().temperature())
                                < 1)
                .isPresent();
        boolean swappedAgain = facts.ledger().swaps().stream().anyMatch(s -> s.layer() == 2 && !s.within());
        return last
                .filter(s -> !fileCools && !swappedAgain)
                .map(s -> Finding.of(
                                Severity.NOTE,
                                "first-layer-temperature",
                                Words.format(
                                        "%s goes in on layer 1 at its %d °C for the first layer, and nothing brings it to %d °C from layer 2 on; let the slicing program set that, or give the spool one temperature.",
                                        facts.label(s.in().id()), s.in().firstLayerTemperature(), s.in().temperature()))
                        .at(1))
                .stream()
                .toList();
    }

    private static String sentence(PlanFacts facts, SpoolUse use) {
        return Words.format(
                "%s needs %.1f g and has %.1f g left; weigh it again, or use another spool.",
                facts.label(use.spool().id()), use.grams(), use.spool().gramsLeft());
    }
}
