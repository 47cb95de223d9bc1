package dev.tranche.core.check;

import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Rules on paints that a nozzle blends. */
final class BlendRules {
    private BlendRules() {}

    /** The printer cannot do it. */
    static List<Finding> cannotBlend(PlanFacts facts) {
        return Mixing.lacking(facts.rig(), facts.plan()).stream()
                .map(said -> Finding.of(Severity.STOP, "cannot-blend", said))
                .toList();
    }

    /** A spool has to be put in, and nothing stops for it. */
    static List<Finding> nobodyStops(PlanFacts facts) {
        return facts.ledger().swaps().stream()
                .filter(s -> !s.needsPerson()
                        && s.exchanges().filter(e -> !e.isEmpty()).isPresent())
                .findFirst()
                .map(s -> waiting(
                        facts.rig(),
                        Finding.of(
                                        Severity.STOP,
                                        "nobody-stops",
                                        Words.format(
                                                "%s somebody has to put in %s, and the swap macro stops for nobody; put a wait for the person into it.",
                                                s.within() ? "In layer " + s.layer() : "Before layer " + s.layer(),
                                                s.moment().in()))
                                .at(s.layer())))
                .stream()
                .toList();
    }

    /** Mended by a wait in the macro, if the firmware has one. */
    private static Finding waiting(Rig rig, Finding finding) {
        return waiting(rig).isEmpty()
                ? finding
                : finding.mendedBy(Fix.ofRig(
                        "Wait for the person at each swap of " + rig.printer().name(),
                        r -> waiting(r).orElse(r)));
    }

    private static Optional<Rig> waiting(Rig rig) {
        MacroBook book = rig.macros();
        return book.answer(Event.SWAP).flatMap(swap -> swap.waitingForPerson(rig.printer())
                .map(waits -> rig.with(book.replace(book.macros().indexOf(swap), waits))));
    }

    /** Nobody knows whether the firmware has as many virtual extruders as the plan has blends. */
    static List<Finding> moreExtruders(PlanFacts facts) {
        int there = facts.rig().rack().size();
        Optional<Mixing> mixing = Mixing.of(facts.rig(), facts.plan());
        return mixing.filter(m -> m.needed() > there).stream()
                .map(m -> Finding.of(
                        Severity.WARN,
                        "more-blends",
                        Words.format(
                                "The plan's blends need the extruders T0 to T%d, and the printer's rack ends at T%d; add extruders there if the firmware has as many.",
                                m.needed() - 1, there - 1)))
                .toList();
    }

    /** Fades that end above the print, so that what they turn into is never reached. */
    static List<Finding> fadesBeyondThePrint(PlanFacts facts) {
        Height top = facts.grid().printedHeight();
        return facts.plan().mixed().stream()
                .flatMap(m -> m instanceof Mixture.Fade f ? Stream.of(f) : Stream.empty())
                .filter(f -> f.ends().isAbove(top))
                .map(f -> {
                    Finding finding = Finding.of(
                            Severity.WARN,
                            "fade-beyond-" + facts.plan().letter(f.id()),
                            Words.format(
                                    "%s ends at %s mm and the print at %s mm, so it never turns all the way.",
                                    facts.label(f.id()), f.ends(), top));
                    return top.isAbove(f.begins())
                            ? finding.mendedBy(new Fix(
                                    "End it at " + top + " mm", p -> p.with(f.over(f.begins(), top), facts.grid())))
                            : finding;
                })
                .toList();
    }
}
