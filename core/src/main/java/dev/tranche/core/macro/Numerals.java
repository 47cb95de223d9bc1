package dev.tranche.core.macro;

import java.math.BigDecimal;
import java.math.RoundingMode;

/** Numbers as lines of G-code hold them: a point, no needless zeros, no exponent. */
final class Numerals {
    private Numerals() {}

    /** To the micrometre. */
    static String mm(double value) {
        return number(value, 3);
    }

    static String number(double value, int decimals) {
        return BigDecimal.valueOf(value)
                .setScale(decimals, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }
}
