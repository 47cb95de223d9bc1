package dev.tranche.core.macro;

/**
 * One word of a line of G-code.
 *
 * @param text such as {@code X5}
 * @param setting which setting the number comes from, in a few words; empty where there is none
 * @param ignored whether this firmware takes no notice of it
 */
public record Word(String text, String setting, boolean ignored) {
    static Word of(String text) {
        return new Word(text, "", false);
    }

    static Word of(String text, String setting) {
        return new Word(text, setting, false);
    }
}
