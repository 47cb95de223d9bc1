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
 * @param told what the person is told to do at it, one act a line, with Mustache names; empty for what Tranche proposes
 */
public record MacroStep(Step step, boolean on, Set<Integer> only, String told) {
    private static final int MOST_ACTS = 15;

    public MacroStep {
        told = told.strip();
        Template.of(told);
        if (told.lines().count() > MOST_ACTS) {
            throw Refusal.of(
                    "%d lines of what to do are too many at one stop; %d are allowed.",
                    told.lines().count(), MOST_ACTS);
        }
        only = Collections.unmodifiableSet(new TreeSet<>(only));
        if (only.stream().anyMatch(t -> t < 0 || t > 15)) {
            throw new Refusal("A step is limited to extruders from T0 to T15; type their numbers, as 0, 2.");
        }
    }

    /** With what Tranche proposes that the person does. */
    public MacroStep(Step step, boolean on, Set<Integer> only) {
        this(step, on, only, "");
    }

    public static MacroStep always(Step step) {
        return new MacroStep(step, true, Set.of());
    }

    public boolean happensFor(int extruder) {
        return on && (only.isEmpty() || only.contains(extruder));
    }

    public MacroStep turned(boolean onOrOff) {
        return new MacroStep(step, onOrOff, only, told);
    }

    public MacroStep with(Step other) {
        return new MacroStep(other, on, only, told);
    }
}
