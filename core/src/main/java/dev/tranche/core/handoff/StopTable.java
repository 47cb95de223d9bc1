package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile.Stop;
import dev.tranche.core.gcode.SlicedLayer.Door;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The stops that a sliced file holds already, beside those of the plan. Two meet where no plastic lies between them.
 *
 * @param rows in the order of the file
 */
public record StopTable(List<Row> rows) {
    public StopTable {
        rows = List.copyOf(rows);
    }

    /** What becomes of a stop of the file. */
    public enum Choice {
        /** It is the plan's own, and nothing is added there. */
        ADOPT,
        /** It is taken out; where the plan stops, its macro stands there instead. */
        REPLACE,
        /** The machine stops there, and where the plan stops as well. */
        LEAVE
    }

    /** A stop of the plan, by its kind and its number there. */
    public record Meeting(BlockStamp.What what, int number) {}

    /**
     * A stop of the file.
     *
     * @param index of it among all that the file holds, from 0
     * @param layer of the plan before which it stands, from 1, or in which; 0 in what is printed below the first
     * @param within whether it stands in that layer
     * @param meets the stop of the plan at the same place, if there is one
     * @param choice of the owner, if he has made one that is to be had here
     */
    public record Row(
            int index, Stop stop, int layer, boolean within, Optional<Meeting> meets, Optional<Choice> choice) {
        /** Whether a choice is to be had here. */
        public boolean takes(Choice wanted) {
            return switch (wanted) {
                case ADOPT -> meets.isPresent();
                case REPLACE -> stop.ended();
                case LEAVE -> true;
            };
        }

        public boolean is(Choice wanted) {
            return choice.filter(c -> c == wanted).isPresent();
        }
    }

    /** @param chosen by the owner, by index; a stop that was taken out before stays out unless he says otherwise */
    public static StopTable of(GridMatch match, Ledger ledger, Map<Integer, Choice> chosen) {
        List<Due> dues = Due.of(ledger);
        List<Stop> stops = match.file().stops();
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < stops.size(); i++) {
            Stop stop = stops.get(i);
            boolean load = stop.before() < 0 && ledger.firstLoad().isPresent();
            if (!load && !stop.interrupts(match.file())) {
                continue;
            }
            Optional<Due> due = meeting(stop, dues, match);
            Row open = new Row(
                    i,
                    stop,
                    match.layerOf(stop.after()),
                    stop.before() == stop.after(),
                    due.map(d -> new Meeting(d.what(), d.number())),
                    Optional.empty());
            Optional<Choice> choice = Optional.ofNullable(chosen.get(i))
                    .or(() -> stop.taken() ? Optional.of(Choice.REPLACE) : Optional.empty())
                    .filter(open::takes);
            rows.add(new Row(i, stop, open.layer(), open.within(), open.meets(), choice));
        }
        return new StopTable(rows);
    }

    private static Optional<Due> meeting(Stop stop, List<Due> dues, GridMatch match) {
        Optional<Due> there = dues.stream()
                .filter(d -> d.door(match)
                        .map(door -> stop.gap().holds(door.offset()))
                        .orElse(false))
                // Where the plan halts and swaps at once, the swap is the one that waits.
                .reduce((before, after) -> after);
        return there.isPresent() || stop.before() != stop.after() ? there : nth(stop, dues, match);
    }

    /**
     * A file sliced with a stop for each change of colour has no tools, and its stops inside a layer are the plan's swaps
     * there, if they are as many.
     */
    private static Optional<Due> nth(Stop stop, List<Due> dues, GridMatch match) {
        int layer = match.layerOf(stop.after());
        List<Due> swaps = dues.stream()
                .filter(d ->
                        d.within() && d.moment().layer() == layer && d.door().isEmpty())
                .toList();
        List<Stop> stops = match.file().stops().stream()
                .filter(s -> s.before() == s.after() && s.after() == stop.after())
                .toList();
        return swaps.size() == stops.size() ? Optional.of(swaps.get(stops.indexOf(stop))) : Optional.empty();
    }

    /** Stops of which the owner has to say what they are. */
    public List<Row> undecided() {
        return rows.stream().filter(r -> r.choice().isEmpty()).toList();
    }

    /** Stops that stay in the file beside the plan's. */
    public List<Row> left() {
        return rows.stream().filter(r -> r.is(Choice.LEAVE)).toList();
    }

    /** Stops that are taken out. */
    List<Row> replaced() {
        return rows.stream().filter(r -> r.is(Choice.REPLACE)).toList();
    }

    /** Whether a stop of the file is that swap. */
    public boolean adopts(Swap swap) {
        Optional<Meeting> wanted = Optional.of(new Meeting(BlockStamp.What.SWAP, swap.number()));
        return rows.stream().anyMatch(r -> r.is(Choice.ADOPT) && r.meets().equals(wanted));
    }

    /** The stop of the file that is a stop of the plan. */
    Optional<Door> adopted(Due due) {
        return at(due).filter(r -> r.is(Choice.ADOPT))
                .map(r -> r.stop().place())
                .findFirst();
    }

    /** Where a stop of the plan can stand that the file has no other place for. */
    Optional<Door> place(Due due) {
        return at(due).map(r -> r.stop().place()).findFirst();
    }

    /** The first layer with a swap inside that has no place in the file. */
    public static OptionalInt homeless(Ledger ledger, StopTable stops) {
        return Due.of(ledger).stream()
                .filter(d -> d.within() && d.door().isEmpty() && stops.place(d).isEmpty())
                .mapToInt(d -> d.moment().layer())
                .findFirst();
    }

    private java.util.stream.Stream<Row> at(Due due) {
        return rows.stream().filter(r -> r.meets().equals(Optional.of(new Meeting(due.what(), due.number()))));
    }
}
