package dev.tranche.core.estimate;

import dev.tranche.core.gcode.SlicedLayer.Door;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;

/**
 * Where a nozzle that blends is told what to blend from here on.
 *
 * @param layer whose plastic comes next, from 1
 * @param within whether it comes inside the layer
 * @param door where the sliced file has a place for it
 * @param swap number of the swap it belongs to; 0 where nothing stops for it
 * @param before lines that come first, before the swap's own if it has one
 * @param after lines that come after those
 */
public record Turn(int layer, boolean within, Optional<Door> door, int swap, List<String> before, List<String> after) {
    public Turn {
        before = List.copyOf(before);
        after = List.copyOf(after);
    }

    /** Whether it is what is said once, before anything is printed. */
    public boolean isStart() {
        return layer == 1 && swap == 0 && !within;
    }

    public List<String> lines() {
        return Stream.concat(before.stream(), after.stream()).toList();
    }

    /** The virtual extruder it chooses, if it chooses one. */
    public OptionalInt extruder() {
        return lines().stream()
                .filter(l -> l.matches("T\\d+"))
                .mapToInt(l -> Integer.parseInt(l.substring(1)))
                .reduce((a, b) -> b);
    }
}
