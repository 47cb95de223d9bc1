package dev.tranche.app.plans;

import dev.tranche.core.handoff.Said;
import java.time.Instant;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A plan as it is stored.
 *
 * @param edition goes up with every edit, undo and redo
 * @param undo what undo would take back, {@code redo} what redo would do again
 * @param gcode the sliced file given for it
 * @param written state of the swaps last written into G-code
 * @param variantOf the plan it was tried beside, if it is a variant
 */
public record PlanState(
        String id,
        String name,
        PlanContent content,
        long edition,
        Optional<String> undo,
        Optional<String> redo,
        Optional<Gcode> gcode,
        Optional<String> written,
        Instant changed,
        Optional<String> variantOf) {

    /** The plan as it was at a point of its history, under an edition below 0, so that no page changes it from there. */
    PlanState asAt(long made, PlanContent then) {
        return new PlanState(
                id, name, then, -1 - made, Optional.empty(), Optional.empty(), gcode, written, changed, variantOf);
    }

    /** The plan that it and its variants are compared under. */
    public String root() {
        return variantOf.orElse(id);
    }

    /** Bytes of all model files. */
    public long modelSize() {
        return content.files().stream().mapToLong(ModelFile::size).sum();
    }

    /** The model files' names, for people. */
    public String modelNames() {
        return content.files().stream().map(ModelFile::name).collect(Collectors.joining(", "));
    }

    /** The sliced file, and what its owner said of it. */
    public record Gcode(String hash, String name, Said said) {
        public Gcode(String hash, String name) {
            this(hash, name, Said.NOTHING);
        }

        public Gcode with(Said other) {
            return new Gcode(hash, name, other);
        }
    }
}
