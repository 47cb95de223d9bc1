package dev.tranche.app.storage;

/** What is stored is not what this Tranche would store; the message is a sentence that says why. */
public class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    Unreadable(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}
