package dev.tranche.core.macro;

import dev.tranche.core.speech.Refusal;

/**
 * What of the purge of a swap or a first load is pushed through beside the print, and by whom.
 *
 * @param length mm of filament
 */
public record Purging(double length, By by) {
    static final Purging NONE = new Purging(0, By.NOBODY);

    /** A hand, or a firmware's routine, pushes at about this, mm/s; from memory. */
    public static final double SPEED = 4;

    public Purging {
        if (!(length >= 0)) {
            throw Refusal.of("A purge of %s mm is none; give 0 or more.", length);
        }
    }

    /** Who pushes. */
    public enum By {
        /** A step, or lines of the owner's own that name the length. */
        MACRO,
        /** The firmware's filament change, or the feeder. */
        ROUTINE,
        PERSON,
        /** Nobody stands by, and no step does it. */
        NOBODY
    }

    /** How it goes in {@code macro} at {@code moment}. */
    static Purging of(Macro macro, Moment moment) {
        boolean loads = macro.event() == Event.SWAP || macro.event() == Event.FIRST_LOAD;
        if (!loads || moment.purge() <= 0) {
            return NONE;
        }
        return new Purging(moment.purge(), by(macro, moment));
    }

    private static By by(Macro macro, Moment moment) {
        if (moment.byRoutine()) {
            return By.ROUTINE;
        } else if (macro.does(moment, s -> s instanceof Step.Purge || asksForLength(s))) {
            return By.MACRO;
        }
        return macro.does(moment, s -> s.asksForPerson() || s instanceof Step.Dwell) ? By.PERSON : By.NOBODY;
    }

    private static boolean asksForLength(Step step) {
        return step.hasOwnLines() && StepOrder.names(step).contains(MacroName.PURGE);
    }

    /** Seconds a hand or a routine takes for it. */
    double seconds() {
        return length / SPEED;
    }
}
