package dev.tranche.core.plan;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;

/**
 * A planned stop without a change of spool: to lay a nut in, to look.
 *
 * @param wished height at which the print is to stop; the layer that begins there is printed afterwards
 * @param note what it is for, at most 60 letters
 */
public record Halt(Height wished, String note) {
    public Halt {
        note = Words.oneLine(note);
        if (note.length() > 60) {
            throw Refusal.of("A halt's note of %d letters is too long; 60 are allowed.", note.length());
        }
        if (note.isEmpty()) {
            throw new Refusal("A halt needs a note that says what to do, such as “lay the nut in”.");
        }
        if (wished.equals(Height.ZERO)) {
            throw new Refusal("A halt at 0 mm is before the print; give the height at which to stop.");
        }
    }
}
