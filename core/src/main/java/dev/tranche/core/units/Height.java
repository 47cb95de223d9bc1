package dev.tranche.core.units;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;

/**
 * A height above the bed, or a thickness, in whole micrometres, so that 0.1 + 0.2 does not cost a layer.
 *
 * @param micrometres 0 to 10 000 000 (ten metres)
 */
public record Height(int micrometres) implements Comparable<Height> {
    public static final Height ZERO = new Height(0);
    private static final int MOST = 10_000_000;

    public Height {
        if (micrometres < 0) {
            throw Refusal.of("A height of %.3f mm is below the bed; give 0 or more.", micrometres / 1000.0);
        }
        if (micrometres > MOST) {
            throw Refusal.of("A height of %.0f mm is over ten metres; check the unit.", micrometres / 1000.0);
        }
    }

    public static Height ofMicrometres(int micrometres) {
        return new Height(micrometres);
    }

    /** The nearest whole micrometre to {@code millimetres}; refuses NaN, infinities and what is out of range. */
    public static Height ofMillimetres(double millimetres) {
        if (!Double.isFinite(millimetres)) {
            throw new Refusal("A height must be a number of millimetres, such as 3.2.");
        }
        double micrometres = Math.rint(millimetres * 1000);
        if (Math.abs(micrometres) > MOST) {
            throw Refusal.of("A height of %.0f mm is over ten metres; check the unit.", millimetres);
        }
        return new Height((int) micrometres);
    }

    /** Reads what people type: {@code 3.2}, {@code 3,2}, {@code 3.2 mm}. */
    public static Height parse(String text) {
        String trimmed = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        String number = trimmed.endsWith("mm")
                ? trimmed.substring(0, trimmed.length() - 2).strip()
                : trimmed;
        if (!number.matches("[+-]?(\\d{1,9}([.,]\\d{0,12})?|[.,]\\d{1,12})")) {
            throw Refusal.of("“%s” is not a height; type millimetres, such as 3.2.", Words.quoted(text));
        }
        return ofMillimetres(Double.parseDouble(number.replace(',', '.')));
    }

    public double millimetres() {
        return micrometres / 1000.0;
    }

    public Height plus(Height other) {
        return ofMicrometres(micrometres + other.micrometres);
    }

    /** {@code factor} times as high, to the nearest micrometre. */
    public Height times(double factor) {
        return ofMillimetres(millimetres() * factor);
    }

    public boolean isAbove(Height other) {
        return micrometres > other.micrometres;
    }

    @Override
    public int compareTo(Height other) {
        return Integer.compare(micrometres, other.micrometres);
    }

    /** In millimetres with at least two decimals, as a caliper shows it: {@code 2.00}, {@code 0.125}. */
    @Override
    public String toString() {
        BigDecimal mm = BigDecimal.valueOf(micrometres, 3);
        return (micrometres % 10 == 0 ? mm.setScale(2, RoundingMode.UNNECESSARY) : mm).toPlainString();
    }
}
