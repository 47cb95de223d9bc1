package dev.tranche.app.storage;

import dev.tranche.core.speech.Words;

/** What is stored is not what this Tranche would store; the message is a sentence that says why. */
public class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public Unreadable(String sentence, Throwable cause) {
        super(sentence, cause);
    }

    /** @param why as a library or a value says it */
    public static Unreadable since(String why, Throwable cause) {
        return new Unreadable("It is not stored as this Tranche stores it: " + Words.oneLine(why + "."), cause);
    }
}
