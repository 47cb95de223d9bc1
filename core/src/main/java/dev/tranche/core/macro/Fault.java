package dev.tranche.core.macro;

import dev.tranche.core.speech.Severity;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * What would go wrong in a macro.
 *
 * @param step index of the step at fault; {@link RenderedLine#FRAME} for the whole macro
 * @param sentence what is wrong and what to do
 * @param mend a change of the macro that mends it
 */
public record Fault(Severity severity, int step, String sentence, Optional<Mend> mend) {

    /** @param label what the button says will happen */
    public record Mend(String label, UnaryOperator<Macro> change) {}

    static Fault of(Severity severity, int step, String sentence) {
        return new Fault(severity, step, sentence, Optional.empty());
    }

    Fault mendedBy(String label, UnaryOperator<Macro> change) {
        return new Fault(severity, step, sentence, Optional.of(new Mend(label, change)));
    }
}
