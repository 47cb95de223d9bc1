package dev.tranche.core.macro;

import dev.tranche.core.speech.Refusal;
import java.util.Collections;
import java.util.Set;
import java.util.TreeSet;

/**
 * A step in its place in a macro.
 *
 * @param on false where it is kept but not done
 * @param only virtual extruders, from 0, for which it is done; all if empty
 */
public record MacroStep(Step step, boolean on, Set<Integer> only) {
    public MacroStep {
        only = Collections.unmodifiableSet(new TreeSet<>(only));
        if (only.stream().anyMatch(t -> t < 0 || t > 15)) {
            throw new Refusal("A step is limited to extruders from T0 to T15; type their numbers, as 0, 2.");
        }
    }

    public static MacroStep always(Step step) {
        return new MacroStep(step, true, Set.of());
    }

    public boolean happensFor(int extruder) {
        return on && (only.isEmpty() || only.contains(extruder));
    }

    public MacroStep turned(boolean onOrOff) {
        return new MacroStep(step, onOrOff, only);
    }

    public MacroStep with(Step other) {
        return new MacroStep(other, on, only);
    }
}
