package dev.tranche.core.macro;

import java.util.Locale;

/** Numbers as lines of G-code hold them: a point, no needless zeros, no exponent. */
final class Numerals {
    private Numerals() {}

    /** To the micrometre. */
    static String mm(double value) {
        return number(value, 3);
    }

    static String number(double value, int decimals) {
        String text = String.format(Locale.ROOT, "%." + decimals + "f", value);
        String trimmed = text.contains(".") ? text.replaceAll("0+$", "").replaceAll("\\.$", "") : text;
        return "-0".equals(trimmed) ? "0" : trimmed;
    }
}
