package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.estimate.Turn;
import dev.tranche.core.gcode.SlicedLayer.Door;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;

/** Which virtual extruder prints from where in a file. */
final class Extruders {
    private final Ledger ledger;
    private final TreeMap<Long, Integer> from = new TreeMap<>();
    private int swaps;

    /** Of swaps that are still to be {@link #swap placed}. */
    Extruders(Ledger ledger) {
        this.ledger = ledger;
    }

    /** Of swaps and turns where the file has places for them. */
    Extruders(Ledger ledger, Function<Turn, Door> doors) {
        this(ledger);
        for (Swap swap : ledger.swaps()) {
            swap.door().ifPresentOrElse(d -> swap(d.offset()), () -> swaps++);
        }
        ledger.turns().stream()
                .filter(t -> t.swap() == 0)
                .forEach(t -> turn(doors.apply(t).offset(), t));
    }

    /** The next swap is there. */
    void swap(long offset) {
        swaps++;
        from.put(offset, ledger.loading().stages().get(swaps).extruder());
    }

    void turn(long offset, Turn turn) {
        turn.extruder().ifPresent(number -> from.put(offset, number));
    }

    int at(long offset) {
        Map.Entry<Long, Integer> there = from.floorEntry(offset);
        return there == null ? ledger.loading().stages().get(0).extruder() : there.getValue();
    }
}
