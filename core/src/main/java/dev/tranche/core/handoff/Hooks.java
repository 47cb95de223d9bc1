package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.estimate.Turn;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HookNames;
import dev.tranche.core.macro.HostScripts;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * A plan's stops as texts that a slicing program runs itself: at a change of tools, at the start, and before layers.
 *
 * <p>What is the same between all spools is one text. What is not is one text with conditions, where the program has any, and
 * else a text for each pair, or for each layer.
 *
 * @param atToolChange for a model sliced with a tool for each spool
 * @param atStart for the first load; none if no macro is on for it
 * @param beforeLayers for a model sliced in one colour; halts alone where colours change inside layers
 */
public record Hooks(List<Text> atToolChange, List<Text> atStart, List<Text> beforeLayers) {
    /**
     * A text for a box of the program.
     *
     * @param when it is to be run, for people; empty where the program finds out itself
     */
    public record Text(String when, String lines) {}

    private record Pair(int out, int in, String name) {}

    public static Hooks of(ColourPlan plan, Rig rig, Ledger ledger) {
        HookNames names = rig.macros().hookNames();
        Map<String, List<Pair>> changes = new LinkedHashMap<>();
        List<Pair> known = new ArrayList<>();
        List<SpoolId> tools = plan.numbering();
        for (Swap swap : ledger.swaps()) {
            Pair pair = new Pair(
                    tools.indexOf(swap.out().id()),
                    tools.indexOf(swap.in().id()),
                    Words.format(
                            "from tool %d, %s, to tool %d, %s",
                            tools.indexOf(swap.out().id()),
                            swap.out().name(),
                            tools.indexOf(swap.in().id()),
                            swap.in().name()));
            if (!known.contains(pair)) {
                known.add(pair);
                Moment anywhere = anywhere(rig, Event.SWAP, swap.moment());
                changes.computeIfAbsent(
                                HostScripts.text(rig.macros().atToolChange(rig.printer(), anywhere)),
                                k -> new ArrayList<>())
                        .add(pair);
            }
        }
        return new Hooks(changes(changes, names), start(rig, ledger), layers(rig, ledger, names));
    }

    private static List<Text> start(Rig rig, Ledger ledger) {
        StringBuilder all = new StringBuilder();
        ledger.turns().stream().filter(Turn::isStart).forEach(t -> all.append(joined(t.lines())));
        ledger.firstLoad().ifPresent(f -> all.append(text(rig, Event.FIRST_LOAD, f.moment())));
        return all.isEmpty() ? List.of() : List.of(new Text("", all.toString()));
    }

    /** Wherever the program leaves the print; what a file at hand holds there is nothing to it. */
    private static Moment anywhere(Rig rig, Event event, Moment moment) {
        return moment.at(rig.typical(event, moment.extruder()).entry());
    }

    private static String text(Rig rig, Event event, Moment moment) {
        return HostScripts.text(rig.macros().atMoment(event, rig.printer(), anywhere(rig, event, moment)));
    }

    private static String joined(List<String> lines) {
        return lines.stream().map(l -> l + "\n").collect(Collectors.joining());
    }

    private static List<Text> changes(Map<String, List<Pair>> changes, HookNames names) {
        if (changes.size() == 1) {
            return List.of(new Text("", changes.keySet().iterator().next()));
        }
        List<Text> texts = new ArrayList<>();
        StringBuilder all = new StringBuilder();
        changes.forEach((lines, pairs) -> pairs.forEach(p -> {
            all.append(names.between(p.out(), p.in(), lines));
            texts.add(new Text(p.name(), lines));
        }));
        return names.knowsTools() && !texts.isEmpty() ? List.of(new Text("", all.toString())) : texts;
    }

    private static List<Text> layers(Rig rig, Ledger ledger, HookNames names) {
        Map<Integer, StringBuilder> layers = new TreeMap<>();
        for (Pause pause : ledger.pauses()) {
            if (pause.dryRun().isPresent() && !pause.within()) {
                layers.computeIfAbsent(pause.layer(), k -> new StringBuilder())
                        .append(text(rig, Event.HALT, pause.moment()));
            }
        }
        if (ledger.swaps().stream().noneMatch(Swap::within)
                && ledger.turns().stream().noneMatch(Turn::within)) {
            Map<Integer, Turn> turns = new HashMap<>();
            for (Turn turn : ledger.turns()) {
                if (turn.swap() > 0) {
                    turns.put(turn.swap(), turn);
                } else if (!turn.isStart()) {
                    layers.computeIfAbsent(turn.layer(), k -> new StringBuilder())
                            .append(joined(turn.lines()));
                }
            }
            for (Swap swap : ledger.swaps()) {
                Optional<Turn> turn = Optional.ofNullable(turns.get(swap.number()));
                StringBuilder lines = layers.computeIfAbsent(swap.layer(), k -> new StringBuilder());
                turn.map(Turn::before).map(Hooks::joined).ifPresent(lines::append);
                lines.append(text(rig, Event.SWAP, swap.moment()));
                turn.map(Turn::after).map(Hooks::joined).ifPresent(lines::append);
            }
        }
        if (!names.knowsLayers()) {
            return layers.entrySet().stream()
                    .map(e -> new Text(
                            Words.format("before layer %d", e.getKey() - 1 + names.firstLayer()),
                            e.getValue().toString()))
                    .toList();
        }
        StringBuilder all = new StringBuilder();
        layers.forEach((layer, lines) -> all.append(names.before(layer, lines.toString())));
        return layers.isEmpty() ? List.of() : List.of(new Text("", all.toString()));
    }
}
