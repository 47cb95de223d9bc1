package dev.tranche.core.rig;

import dev.tranche.core.speech.Severity;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;

/**
 * What is wrong with a rig.
 *
 * @param macro index of the macro it is about
 * @param step index of the step in it; −1 for the whole macro
 * @param sentence what is so, why it matters, what to do
 */
public record RigFinding(Severity severity, OptionalInt macro, int step, String sentence, Optional<Mend> mend) {

    /** A change of the rig that mends it. */
    public record Mend(String label, UnaryOperator<Rig> change) {}

    static RigFinding of(Severity severity, String sentence) {
        return new RigFinding(severity, OptionalInt.empty(), -1, sentence, Optional.empty());
    }

    RigFinding mendedBy(String label, UnaryOperator<Rig> change) {
        return new RigFinding(severity, macro, step, sentence, Optional.of(new Mend(label, change)));
    }
}
