package dev.tranche.core.companion;

import java.time.Instant;

/**
 * One line of what people told of a print.
 *
 * @param visit it is about, by its place in the agenda, from 0; −1 for the print as a whole
 * @param amount what the kind counts
 * @param text what the kind says
 */
public record Entry(Kind kind, Instant at, int visit, double amount, String text) {
    /** What can be told. */
    public enum Kind {
        /** Somebody is there and begins. */
        CAME,
        /** It goes on. */
        DONE,
        /** What comes next comes by so many seconds later; earlier below zero. */
        SHIFTED,
        /** An act of that number, from 0, is done; {@code UNTICKED} it is not. */
        TICKED,
        UNTICKED,
        /** Something was seen, in the text. */
        NOTED,
        /** So many mm of filament were pushed through until it was clean. */
        PUSHED,
        /** The print is done. */
        ENDED,
        /** It came to nothing; the text says why. */
        BROKE_OFF
    }
}
