package dev.tranche.app.plans;

import java.time.Instant;
import java.util.Optional;

/**
 * A plan as it is stored.
 *
 * @param edition goes up with every edit, undo and redo
 * @param undo what undo would take back, {@code redo} what redo would do again
 * @param gcode the sliced file given for it
 * @param written state of the swaps last written into G-code
 */
public record PlanState(
        String id,
        String name,
        Model model,
        PlanContent content,
        long edition,
        Optional<String> undo,
        Optional<String> redo,
        Optional<Gcode> gcode,
        Optional<String> written,
        Instant changed) {

    /** The model file. */
    public record Model(String hash, String name, long size) {}

    /** The sliced file. */
    public record Gcode(String hash, String name) {}
}
