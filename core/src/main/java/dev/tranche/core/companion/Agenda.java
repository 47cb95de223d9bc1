package dev.tranche.core.companion;

import dev.tranche.core.companion.Visit.Act;
import dev.tranche.core.companion.Visit.Kind;
import dev.tranche.core.companion.Visit.Spans;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.FirstLoad;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Purging;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Rig;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * What a print will stop for, kept as it was when the print began: the plan may change meanwhile, the print does not.
 *
 * @param visits in the order in which they come
 * @param seconds until the print is done
 * @param first spool, and {@code uses} what the print takes of each
 * @param basis of its times, where that is known
 * @param endsWith what is in the nozzle at the end where no visit tells: a nozzle that blends turns by itself
 */
public record Agenda(
        List<Visit> visits,
        double seconds,
        SpoolId first,
        List<Use> uses,
        Optional<Basis> basis,
        Optional<SpoolId> endsWith) {
    public Agenda {
        visits = List.copyOf(visits);
        uses = List.copyOf(uses);
    }

    /** Of a print whose spools change at its visits only, reckoned in whatever way. */
    public Agenda(List<Visit> visits, double seconds, SpoolId first, List<Use> uses) {
        this(visits, seconds, first, uses, Optional.empty(), Optional.empty());
    }

    /** What its times were reckoned from, and the pace of the machine that is in them. */
    public record Basis(BasePrint.Source source, double pace) {}

    /** What it takes of a spool, g; the plan knows it by {@code letter}. */
    public record Use(SpoolId spool, char letter, double part, double purge) {
        public double grams() {
            return part + purge;
        }
    }

    public static Agenda of(Ledger ledger, Rig rig, ColourPlan plan) {
        List<Visit> visits = new ArrayList<>();
        ledger.firstLoad().ifPresent(load -> visits.add(of(load, rig, plan)));
        List<Visit> stops = new ArrayList<>();
        ledger.pauses().forEach(p -> p.dryRun().ifPresent(run -> stops.add(of(p, run, rig))));
        // A blend that turns by itself is no visit.
        ledger.swaps().stream().filter(s -> !s.turns()).forEach(s -> stops.add(of(s, rig, ledger, plan)));
        // A halt comes before the swap of the same layer.
        stops.sort(Comparator.comparingDouble(v -> v.spans().at()));
        visits.addAll(stops);
        return new Agenda(
                visits,
                ledger.totalSeconds(),
                plan.mixtures().mainly(ledger.stretches().get(0).spool()),
                ledger.uses().stream()
                        .map(u -> new Use(
                                u.spool().id(),
                                plan.letter(u.spool().id()),
                                u.plastic().grams(u.spool().density()),
                                u.wasteGrams()))
                        .toList(),
                Optional.of(new Basis(ledger.base().source(), ledger.base().pace())),
                Optional.of(ledger.stretches()
                                .get(ledger.stretches().size() - 1)
                                .spool())
                        .filter(s -> !ledger.turns().isEmpty())
                        .map(plan.mixtures()::endingIn));
    }

    private static Visit of(FirstLoad load, Rig rig, ColourPlan plan) {
        List<Duty> duties = load.duties(rig);
        // What heats and homes before it is not told apart; it is taken to come first.
        return new Visit(
                Kind.LOAD,
                1,
                "before the first layer",
                "",
                Optional.empty(),
                Optional.of(plan.mixtures().mainly(load.spool().id())),
                load.moment().purge(),
                load.dryRun().purging().by() == Purging.By.PERSON,
                name(Event.FIRST_LOAD, rig),
                usual(Event.FIRST_LOAD, rig),
                Spans.of(0, load.dryRun(), duties),
                acts(duties));
    }

    private static Visit of(Pause pause, DryRun run, Rig rig) {
        List<Duty> duties = pause.duties(rig);
        return new Visit(
                Kind.HALT,
                pause.number(),
                "before layer " + pause.layer(),
                pause.note(),
                Optional.empty(),
                Optional.empty(),
                0,
                false,
                name(Event.HALT, rig),
                usual(Event.HALT, rig),
                Spans.of(pause.startsAt(), run, duties),
                acts(duties));
    }

    private static Visit of(Swap swap, Rig rig, Ledger ledger, ColourPlan plan) {
        List<Duty> duties = swap.needsPerson() ? swap.duties(rig) : List.of();
        return new Visit(
                Kind.SWAP,
                swap.moment().number(),
                swap.place(),
                "",
                // Of a blend that the nozzle cannot mix, the spool that is most of it.
                Optional.of(plan.mixtures().endingIn(swap.taken())),
                Optional.of(plan.mixtures().mainly(swap.put())),
                ledger.filament().length(swap.pushed()),
                swap.dryRun().purging().by() == Purging.By.PERSON,
                name(Event.SWAP, rig),
                usual(Event.SWAP, rig),
                Spans.of(swap.startsAt(), swap.dryRun(), duties),
                acts(duties));
    }

    private static String name(Event event, Rig rig) {
        return rig.macros().answer(event).map(Macro::name).orElse("");
    }

    private static double usual(Event event, Rig rig) {
        return rig.macros()
                .answer(event)
                .map(m -> m.person().toMillis() / 1000.0)
                .orElse(0.0);
    }

    private static List<Act> acts(List<Duty> duties) {
        List<Act> acts = new ArrayList<>();
        for (int i = 0; i < duties.size(); i++) {
            for (String text : duties.get(i).acts()) {
                acts.add(new Act(i + 1, text));
            }
        }
        return acts;
    }

    /** How long a print lasts after it last stopped. */
    double last() {
        return visits.isEmpty()
                ? seconds
                : Math.max(0, seconds - visits.get(visits.size() - 1).spans().prints());
    }
}
