package dev.tranche.core.check;

import dev.tranche.core.estimate.Swap;
import dev.tranche.core.machine.Command;
import dev.tranche.core.plan.Material;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Rules on whether one layer holds on the one below: common practice, with no source. */
final class BondRules {
    /** A layer that has cooled for longer holds the next one worse, s. */
    private static final double LONG = 60;

    private static final int LEAST_MORE = 5;
    private static final int MOST_MORE = 10;

    private static final List<Set<Material>> APART = List.of(
            EnumSet.of(Material.PLA, Material.PETG),
            EnumSet.of(Material.PLA, Material.ABS_ASA),
            EnumSet.of(Material.PETG, Material.TPU));

    private BondRules() {}

    /** A stop before a layer, with how long it lasts and what the nozzle prints that layer at. */
    private record Stop(int layer, double seconds, int temperature) {}

    static List<Finding> afterAWait(PlanFacts facts) {
        List<Stop> stops = new ArrayList<>(Stream.concat(
                        facts.ledger().swaps().stream()
                                .map(s -> new Stop(
                                        s.layer(), s.seconds(), s.moment().temperatureIn())),
                        facts.ledger().pauses().stream()
                                .map(p -> new Stop(
                                        p.layer(), p.seconds(), p.moment().temperatureIn())))
                .filter(s -> s.layer() > 1 && s.seconds() > LONG)
                .toList());
        Optional<Stop> longest = stops.stream().max(Comparator.comparingDouble(Stop::seconds));
        return longest
                .map(stop -> {
                    String others =
                            stops.size() == 1 ? "" : Words.format(", and %d more wait over a minute", stops.size() - 1);
                    String help = stop.temperature() > 0
                                    && facts.printer().abilities().understands(Command.M104)
                            ? Words.format(
                                    "; print it at %d to %d °C",
                                    stop.temperature() + LEAST_MORE, stop.temperature() + MOST_MORE)
                            : "; print it slowly";
                    return Finding.of(
                                    Severity.NOTE,
                                    "bond-after-wait",
                                    Words.format(
                                            "Layer %d is printed on one that has cooled for %d min %02d s and holds worse%s%s.",
                                            stop.layer(),
                                            (int) stop.seconds() / 60,
                                            (int) stop.seconds() % 60,
                                            help,
                                            others))
                            .at(stop.layer());
                })
                .stream()
                .toList();
    }

    static List<Finding> acrossMaterials(PlanFacts facts) {
        return facts.ledger().swaps().stream()
                .filter(s -> APART.contains(pair(s)))
                .findFirst()
                .map(s -> Finding.of(
                                Severity.WARN,
                                "bond-across",
                                Words.format(
                                        "%s (%s) hardly holds on %s (%s): the print may split %s; take spools of one material, or shapes that lock into each other.",
                                        facts.label(s.in().id()),
                                        s.in().material().title(),
                                        facts.label(s.out().id()),
                                        s.out().material().title(),
                                        s.within() ? "within layer " + s.layer() : "under layer " + s.layer()))
                        .at(s.layer()))
                .stream()
                .toList();
    }

    private static Set<Material> pair(Swap swap) {
        return EnumSet.of(swap.out().material(), swap.in().material());
    }
}
