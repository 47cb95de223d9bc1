package dev.tranche.core.handoff;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Fed;
import dev.tranche.core.gcode.SlicedFile.Unloading;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.machine.Printer;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What a file does in and out of the nozzle where Tranche swaps: at a change of tools that the machine does not have, and at a
 * stop that a swap takes the place of. Done beside the swap it would draw a filament out of the gears that was just put in, or
 * push as much again.
 */
public final class Unloads {
    /** By the offset of the first line. */
    private final TreeMap<Long, Unloading> all = new TreeMap<>();

    private Unloads(List<Unloading> all) {
        all.forEach(u -> this.all.put(u.from(), u));
    }

    /** Those of a file; none where the machine has tools itself. */
    public static Unloads of(SlicedFile file, StopTable stops, Printer printer) {
        List<Unloading> all = new ArrayList<>(file.leftToSwaps(printer));
        stops.replaced()
                .forEach(r -> file.unloadingAt(r.stop().place().offset()).ifPresent(all::add));
        return new Unloads(all);
    }

    /** Lines that are not done. */
    List<Fed> lines() {
        return all.values().stream().flatMap(u -> u.lines().stream()).toList();
    }

    /** What is under way at a place of the file. */
    Optional<Unloading> at(long offset) {
        return Optional.ofNullable(all.floorEntry(offset))
                .map(Map.Entry::getValue)
                .filter(u -> u.holds(offset));
    }

    /** How the machine stands at a door, with none of it done. */
    ControllerState at(Door door) {
        return at(door.offset()).map(u -> u.without(door.state())).orElse(door.state());
    }
}
