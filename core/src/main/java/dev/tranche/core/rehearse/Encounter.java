package dev.tranche.core.rehearse;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.Optional;

/**
 * A stop that the machine has come to.
 *
 * @param what of the plan it is, a mix where a blend turns; empty where the plan knows nothing of it
 * @param number of its kind, from 1
 * @param layer that is printed next, from 1
 * @param line of the stream at which it stands
 * @param seconds from the start
 * @param wanted the spool to put in, if one is changed there
 * @param acts what the person has to do
 */
public record Encounter(
        Optional<BlockStamp.What> what,
        int number,
        int layer,
        long line,
        double seconds,
        Optional<SpoolId> wanted,
        List<String> acts) {
    public Encounter {
        acts = List.copyOf(acts);
    }

    /** In words: “swap 2”, “halt 1”, “blend”. */
    public String title() {
        return what.map(w -> switch (w) {
                    case LOAD -> "first load";
                    case HALT -> "halt " + number;
                    case MIX -> "blend";
                    default -> "swap " + number;
                })
                .orElse("a stop that the plan does not know");
    }
}
