package dev.tranche.app.web;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;

/** Reads numbers as people type them, with a point or a comma. */
public final class Numbers {
    private Numbers() {}

    public static double decimal(String field, String text) {
        String t = text == null ? "" : text.strip();
        if (!t.matches("[+-]?(\\d{1,12}([.,]\\d{0,12})?|[.,]\\d{1,12})")) {
            throw Refusal.of("“%s” is not a number for the %s; type one such as 12.5.", Words.quoted(text), field);
        }
        return Double.parseDouble(t.replace(',', '.'));
    }

    public static int whole(String field, String text) {
        double value = decimal(field, text);
        if (value != Math.rint(value) || Math.abs(value) > 1e9) {
            throw Refusal.of("The %s needs a whole number, not “%s”.", field, Words.quoted(text));
        }
        return (int) value;
    }
}
