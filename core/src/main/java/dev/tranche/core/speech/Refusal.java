package dev.tranche.core.speech;

/**
 * Input that cannot be used. The message is one sentence for the user: what was wrong, where, and what to do.
 * Nothing has been changed when it is thrown.
 */
public final class Refusal extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public Refusal(String sentence) {
        super(sentence, null, false, true);
    }

    /** A refusal whose sentence is built from a format of {@link String#format}, in the root locale. */
    public static Refusal of(String format, Object... arguments) {
        return new Refusal(Words.format(format, arguments));
    }
}
