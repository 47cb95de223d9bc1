package dev.tranche.core.handoff;

import dev.tranche.core.estimate.FirstLoad;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
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
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Writes a plan's swaps and halts, and its first load where there is a macro for it, into a sliced file.
 *
 * @param planId that stamps every block
 * @param rig that will run the file
 */
public record SwapWriter(String planId, Rig rig) {

    /** Something to be written: a block's kind, its macro's event and the moment it runs at. */
    private record Stop(BlockStamp.What what, Event event, Moment moment, Optional<Door> door) {}

    /** The lines of one swap at {@code door}. */
    public List<RenderedLine> lines(Swap swap, Door door) {
        return lines(Event.SWAP, swap.moment().at(door.state()));
    }

    private List<RenderedLine> lines(Event event, Moment moment) {
        return rig.macros()
                .answer(event)
                .map(macro -> DryRun.lines(macro, rig.printer(), moment))
                .orElse(List.of());
    }

    private static List<Stop> stops(Ledger ledger) {
        List<Stop> stops = new ArrayList<>();
        ledger.firstLoad()
                .map(FirstLoad::moment)
                .ifPresent(m -> stops.add(new Stop(BlockStamp.What.LOAD, Event.FIRST_LOAD, m, Optional.empty())));
        for (Pause pause : ledger.pauses()) {
            if (pause.dryRun().isPresent()) {
                stops.add(new Stop(BlockStamp.What.HALT, Event.HALT, pause.moment(), Optional.empty()));
            }
        }
        ledger.swaps().forEach(s -> stops.add(new Stop(BlockStamp.What.SWAP, Event.SWAP, s.moment(), s.door())));
        return stops;
    }

    /**
     * The patch that makes {@code match}'s file stop where the plan does, and nowhere else.
     *
     * @throws Refusal if a layer that begins with a stop begins without a travel, or a swap lies inside a layer
     */
    public Patch patch(GridMatch match, Ledger ledger) {
        ledger.swaps().stream()
                .filter(s -> s.within() && s.door().isEmpty())
                .findFirst()
                .ifPresent(s -> {
                    throw Refusal.of(
                            "The plan changes colour inside layer %d, and a file sliced in one colour has no place for that; "
                                    + "slice the coloured 3MF, with a tool for each spool.",
                            s.layer());
                });
        Map<Long, ToolLine> toTake = new TreeMap<>();
        match.file().toolLines().stream()
                .filter(l -> match.file().changesTools() && l.ended() && isTakenOut(l))
                .forEach(l -> toTake.put(l.from(), l));
        List<Patch.Insertion> insertions = new ArrayList<>();
        List<Long> swapped = new ArrayList<>();
        String state = state(ledger);
        for (Stop stop : stops(ledger)) {
            int layer = stop.moment().layer();
            Door door = stop.door()
                    .or(() -> match.layer(layer).door())
                    .orElseThrow(() -> Refusal.of(
                            "Layer %d of the G-code begins without a travel, so there is no place to stop before it; "
                                    + "slice it again or move that colour or halt by a layer.",
                            layer));
            if (stop.what() == BlockStamp.What.SWAP) {
                swapped.add(door.offset());
            }
            Optional<ToolLine> took = Optional.ofNullable(toTake.remove(door.offset()));
            List<String> lines = new ArrayList<>(
                    RenderedLine.texts(lines(stop.event(), stop.moment().at(door.state()))));
            took.flatMap(l -> slot(l, swapped, ledger)).ifPresent(lines::add);
            insertions.add(new Patch.Insertion(
                    door.offset(),
                    new BlockStamp(planId, state, stop.what(), stop.moment().number()),
                    lines,
                    took));
        }
        int number = 0;
        for (ToolLine line : toTake.values()) {
            insertions.add(new Patch.Insertion(
                    line.from(),
                    new BlockStamp(planId, state, BlockStamp.What.TOOL, ++number),
                    slot(line, swapped, ledger).stream().toList(),
                    Optional.of(line)));
        }
        return Patch.writing(match.file(), insertions);
    }

    /**
     * Lines that say nothing to one nozzle, or the wrong thing: what chooses a tool by the file's numbers, and what heats
     * another than the one that prints.
     */
    private static boolean isTakenOut(ToolLine line) {
        return !line.heats() || line.tool() != line.printing();
    }

    /** What stands for a line that chooses a tool where the firmware has tools: the slot in which the spool really is. */
    private Optional<String> slot(ToolLine line, List<Long> swapped, Ledger ledger) {
        if (line.heats() || !rig.printer().abilities().understands(Command.T)) {
            return Optional.empty();
        }
        int swaps =
                (int) swapped.stream().filter(offset -> offset <= line.from()).count();
        return Optional.of("T" + ledger.loading().stages().get(swaps).extruder());
    }

    /**
     * A digest of all that decides what is written: the very lines, at a place that is always the same, and the
     * layers before which they stand.
     */
    public String state(Ledger ledger) {
        StringBuilder all = new StringBuilder();
        Map<Map.Entry<Event, Moment>, List<String>> known = new HashMap<>();
        for (Stop stop : stops(ledger)) {
            all.append('|').append(stop.what()).append(stop.moment().layer());
            all.append('/').append(stop.moment().number()).append('\n');
            // Lines between the same spools differ in nothing but the number and the layer.
            Moment anywhere = stop.moment().at(rig.typical(stop.event(), 0).entry());
            all.append(String.join(
                    "\n",
                    known.computeIfAbsent(
                            Map.entry(stop.event(), anywhere.anyHeight()),
                            m -> RenderedLine.texts(lines(stop.event(), m.getValue())))));
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
