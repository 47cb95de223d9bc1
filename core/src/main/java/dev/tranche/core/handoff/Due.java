package dev.tranche.core.handoff;

import dev.tranche.core.estimate.FirstLoad;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A stop of the plan that belongs into a file.
 *
 * @param what it is
 * @param number of its kind, from 1
 * @param moment its macro runs at
 * @param within whether it comes inside a layer
 * @param door its own place in the file, if the file has one for it
 */
record Due(BlockStamp.What what, int number, Moment moment, boolean within, Optional<Door> door) {

    /** First the load, then halts, then swaps. */
    static List<Due> of(Ledger ledger) {
        List<Due> all = new ArrayList<>();
        ledger.firstLoad()
                .map(FirstLoad::moment)
                .ifPresent(m -> all.add(new Due(BlockStamp.What.LOAD, 1, m, false, Optional.empty())));
        for (Pause pause : ledger.pauses()) {
            if (pause.dryRun().isPresent()) {
                all.add(new Due(BlockStamp.What.HALT, pause.number(), pause.moment(), pause.within(), pause.door()));
            }
        }
        ledger.swaps()
                .forEach(s -> all.add(new Due(BlockStamp.What.SWAP, s.number(), s.moment(), s.within(), s.door())));
        return all;
    }

    /** Where the file has a place for it; nothing inside a layer that has none. */
    Optional<Door> door(GridMatch match) {
        if (what == BlockStamp.What.LOAD) {
            return Optional.of(match.file().start());
        }
        return within ? door : door.or(() -> match.layer(moment.layer()).door());
    }

    Event event() {
        return switch (what) {
            case LOAD -> Event.FIRST_LOAD;
            case HALT -> Event.HALT;
            default -> Event.SWAP;
        };
    }
}
