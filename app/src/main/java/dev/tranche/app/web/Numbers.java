package dev.tranche.app.web;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;

/** Reads numbers as people type them, with a point or a comma. */
public final class Numbers {
    private Numbers() {}

    public static double decimal(String field, String text) {
        return number(field, text, "is not a number", "12.5");
    }

    public static int whole(String field, String text) {
        double value = number(field, text, "is no whole number", "3");
        if (value != Math.rint(value) || Math.abs(value) > 1e9) {
            throw Refusal.of("The %s needs a whole number, not “%s”.", field, Words.quoted(text));
        }
        return (int) value;
    }

    private static double number(String field, String text, String wrong, String example) {
        String t = text == null ? "" : text.strip();
        if (t.isEmpty()) {
            throw Refusal.of("The %s is empty; type a number such as %s.", field, example);
        }
        if (!t.matches("[+-]?(\\d{1,12}([.,]\\d{0,12})?|[.,]\\d{1,12})")) {
            throw Refusal.of("“%s” %s for the %s; type one such as %s.", Words.quoted(text), wrong, field, example);
        }
        return Double.parseDouble(t.replace(',', '.'));
    }
}
