package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.estimate.Turn;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.ToolLine;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * Writes a plan's swaps and halts, and its first load where there is a macro for it, into a sliced file.
 *
 * @param planId that stamps every block
 * @param rig that will run the file
 */
public record SwapWriter(String planId, Rig rig) {

    /** The lines of one swap at {@code door} of a file with such stops. */
    public List<RenderedLine> lines(Swap swap, Door door, SlicedFile file, StopTable stops) {
        return lines(
                Event.SWAP,
                swap.moment().at(Unloads.of(file, stops, rig.printer()).at(door)));
    }

    List<RenderedLine> lines(Event event, Moment moment) {
        return rig.macros()
                .answer(event)
                .map(macro -> DryRun.lines(macro, rig.printer(), moment))
                .orElse(List.of());
    }

    /**
     * The patch that makes {@code match}'s file stop where the plan does, and nowhere else but where its owner leaves it.
     *
     * @param stops that the file holds, with what becomes of them
     * @throws Refusal if a layer that begins with a stop begins without a travel, or a swap lies inside a layer
     */
    public Patch patch(GridMatch match, Ledger ledger, StopTable stops) {
        return patch(match, ledger, stops, Set.of());
    }

    /** @param seams places in the file at which it is cut, so that nothing has to stop there */
    Patch patch(GridMatch match, Ledger ledger, StopTable stops, Set<Long> seams) {
        Unloads unloads = Unloads.of(match.file(), stops, rig.printer());
        Map<Long, TakeOut> toTake = toTake(match, stops, unloads);
        List<Patch.Insertion> insertions = new ArrayList<>();
        Extruders extruders = new Extruders(ledger);
        String state = state(ledger);
        Map<Integer, Turn> turns = new TreeMap<>();
        ledger.turns().stream().filter(t -> t.swap() > 0).forEach(t -> turns.put(t.swap(), t));
        // What a nozzle has to be told where nothing of Tranche's stops.
        List<Map.Entry<Turn, Door>> told = new ArrayList<>();
        for (Due due : Due.of(ledger)) {
            Optional<Door> adopted = stops.adopted(due);
            Door door = adopted.orElseGet(() -> door(due, match, stops));
            Optional<Turn> turn = due.what() == BlockStamp.What.SWAP
                    ? Optional.ofNullable(turns.get(due.number()))
                    : Optional.empty();
            if (due.what() == BlockStamp.What.SWAP) {
                extruders.swap(door.offset());
            }
            if (adopted.isPresent() && turn.isPresent()) {
                told.add(Map.entry(turn.get(), door));
            }
            if (adopted.isPresent() || seams.contains(door.offset())) {
                continue;
            }
            Optional<TakeOut> took = Optional.ofNullable(toTake.remove(door.offset()));
            List<String> lines = new ArrayList<>(turn.map(Turn::before).orElse(List.of()));
            lines.addAll(RenderedLine.texts(lines(due.event(), due.moment().at(unloads.at(door)))));
            turn.map(Turn::after).ifPresent(lines::addAll);
            took.map(TakeOut::without).ifPresent(lines::addAll);
            took.flatMap(t -> slot(t, extruders)).ifPresent(lines::add);
            insertions.add(new Patch.Insertion(
                    door.offset(),
                    door.line(),
                    new BlockStamp(planId, state, due.what(), due.number()),
                    lines,
                    took.map(TakeOut::span)));
        }
        Map<BlockStamp.What, Integer> numbers = new EnumMap<>(BlockStamp.What.class);
        ledger.turns().stream()
                .filter(t -> t.swap() == 0)
                .map(t -> Map.entry(t, door(t, match)))
                .forEach(told::add);
        for (Map.Entry<Turn, Door> turn : told) {
            Door door = turn.getValue();
            extruders.turn(door.offset(), turn.getKey());
            Optional<TakeOut> took = Optional.ofNullable(toTake.remove(door.offset()));
            insertions.add(new Patch.Insertion(
                    door.offset(),
                    door.line(),
                    new BlockStamp(
                            planId, state, BlockStamp.What.MIX, numbers.merge(BlockStamp.What.MIX, 1, Integer::sum)),
                    turn.getKey().lines(),
                    took.map(TakeOut::span)));
        }
        for (TakeOut taken : toTake.values()) {
            insertions.add(new Patch.Insertion(
                    taken.span().from(),
                    taken.line(),
                    new BlockStamp(planId, state, taken.what(), numbers.merge(taken.what(), 1, Integer::sum)),
                    inStead(taken, extruders),
                    Optional.of(taken.span())));
        }
        return Patch.writing(match.file(), insertions);
    }

    /** Where the blend turns in a file. */
    Door door(Turn turn, GridMatch match) {
        return turn.isStart()
                ? match.file().start()
                : turn.door()
                        .or(() -> turn.within()
                                ? Optional.empty()
                                : match.layer(turn.layer()).door())
                        .orElseThrow(() -> Refusal.of(
                                "The G-code has no travel where the blend has to turn on layer %d; slice it again, with a tool for each paint.",
                                turn.layer()));
    }

    private static Door door(Due due, GridMatch match, StopTable stops) {
        return due.door(match)
                .or(() -> stops.place(due))
                .orElseThrow(() -> due.within()
                        ? Refusal.of(
                                "The plan changes colour inside layer %d, and a file sliced in one colour has no place for that; "
                                        + "slice the coloured 3MF, with a tool for each spool.",
                                due.moment().layer())
                        : Refusal.of(
                                "Layer %d of the G-code begins without a travel, so there is no place to stop before it; "
                                        + "slice it again or move that colour or halt by a layer.",
                                due.moment().layer()));
    }

    /** A line of the file that goes; the tool it chooses, if it chooses one. */
    private record TakeOut(
            SlicedFile.Span span,
            long line,
            BlockStamp.What what,
            boolean chooses,
            String heat,
            Optional<ControllerState> owes,
            List<String> without) {}

    private static Map<Long, TakeOut> toTake(GridMatch match, StopTable stops, Unloads unloads) {
        Map<Long, TakeOut> lines = new TreeMap<>();
        unloads.lines()
                .forEach(f -> lines.put(
                        f.span().from(),
                        new TakeOut(
                                f.span(), f.line(), BlockStamp.What.FEED, false, "", Optional.empty(), f.without())));
        if (match.file().changesTools() || match.file().namesTools()) {
            match.file().toolLines().stream()
                    .filter(l -> l.ended() && isTakenOut(l))
                    .forEach(l -> lines.put(
                            l.from(),
                            new TakeOut(
                                    l.span(),
                                    l.line(),
                                    BlockStamp.What.TOOL,
                                    !l.heats(),
                                    l.meansTheNozzle() ? l.heat() : "",
                                    l.owes().filter(there -> unloads.at(l.from())
                                            .isEmpty()),
                                    List.of())));
        }
        stops.replaced().stream()
                .map(StopTable.Row::stop)
                .forEach(s -> lines.put(
                        s.place().offset(),
                        new TakeOut(s.span(), s.line(), BlockStamp.What.STOP, false, "", Optional.empty(), List.of())));
        return lines;
    }

    /**
     * Lines that say nothing to one nozzle, or the wrong thing: what chooses a tool by the file's numbers, what heats another
     * than the one that prints, and what heats that one by a number the machine does not know.
     */
    private static boolean isTakenOut(ToolLine line) {
        return !line.heats() || line.tool() != line.printing() || line.meansTheNozzle();
    }

    /** A single nozzle is not left drawn back by what is said to one tool, and taken for ready by the next. */
    private List<String> inStead(TakeOut line, Extruders extruders) {
        List<String> lines = new ArrayList<>(line.without());
        line.owes()
                .map(there -> RenderedLine.texts(DryRun.goingOn(rig.printer(), there)))
                .ifPresent(lines::addAll);
        if (!line.heat().isEmpty()) {
            lines.add(line.heat());
        }
        slot(line, extruders).ifPresent(lines::add);
        return lines;
    }

    /** What stands for a line that chooses a tool where the firmware has tools: the slot in which the spool really is. */
    private Optional<String> slot(TakeOut line, Extruders extruders) {
        return line.chooses() && rig.printer().abilities().understands(Command.T)
                ? Optional.of("T" + extruders.at(line.span().from()))
                : Optional.empty();
    }

    /**
     * A digest of all that decides what is written: the very lines, at a place that is always the same, and the
     * layers before which they stand.
     */
    public String state(Ledger ledger) {
        StringBuilder all = new StringBuilder();
        Map<Map.Entry<Event, Moment>, List<String>> known = new HashMap<>();
        for (Due stop : Due.of(ledger)) {
            all.append('|').append(stop.what()).append(stop.moment().layer());
            all.append('/').append(stop.number()).append('\n');
            // Lines between the same spools differ in nothing but the number and the layer.
            Moment anywhere = stop.moment()
                    .anyHeight()
                    .at(rig.typical(stop.event(), 0).entry().at(0));
            all.append(String.join(
                    "\n",
                    known.computeIfAbsent(
                            Map.entry(stop.event(), anywhere),
                            m -> RenderedLine.texts(lines(stop.event(), m.getValue())))));
        }
        for (Turn turn : ledger.turns()) {
            all.append('|').append(turn.layer()).append('/').append(turn.swap()).append('\n');
            all.append(String.join("\n", turn.lines()));
        }
        try {
            byte[] hash =
                    MessageDigest.getInstance("SHA-256").digest(all.toString().getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 8);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
