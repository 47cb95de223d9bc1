package dev.tranche.app.web;

import dev.tranche.app.settings.Settings;
import dev.tranche.core.estimate.Derivation;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Writes numbers out with their units, at a precision a caliper or a kitchen scale could check. */
@Component("figures")
public class Figures {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM, HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter HOUR = DateTimeFormatter.ofPattern("EEE HH:mm", Locale.ENGLISH);

    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMMM", Locale.ENGLISH);

    private final Settings settings;

    Figures(Settings settings) {
        this.settings = settings;
    }

    /** As short as it can be written: {@code 220}, {@code 0.4}. */
    public String plain(double value) {
        return BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
    }

    public String whole(double value) {
        return String.format(Locale.ROOT, "%.0f", value);
    }

    public String grams(double grams) {
        return String.format(Locale.ROOT, "%.1f g", grams);
    }

    public String length(double millimetres) {
        return String.format(Locale.ROOT, "%.0f mm", millimetres);
    }

    /** As {@link #time}, to the second, and to a tenth under ten: {@code 1.4 s}, {@code 1 min 30 s}. */
    public String exact(double seconds) {
        long s = Math.round(seconds);
        if (seconds > 0 && seconds < 9.95) {
            return String.format(Locale.ROOT, "%.1f s", seconds);
        }
        return s < 60 || s >= 3600 ? time(seconds) : String.format(Locale.ROOT, "%d min %02d s", s / 60, s % 60);
    }

    /** {@code 45 s}, {@code 7 min}, {@code 1 h 07 min}. */
    public String time(double seconds) {
        long s = Math.round(seconds);
        if (s < 60) {
            return s + " s";
        }
        long minutes = Math.round(seconds / 60);
        return minutes < 60
                ? minutes + " min"
                : String.format(Locale.ROOT, "%d h %02d min", minutes / 60, minutes % 60);
    }

    /** {@code 27 November}, by the clock beside the machine. */
    public String date(Instant at) {
        return DATE.format(at.atZone(settings.now().zone()));
    }

    /** {@code Friday 27 November, 16:30}. */
    public String day(ZonedDateTime at) {
        return DAY.format(at);
    }

    /** {@code Fri 16:30}. */
    public String hour(ZonedDateTime at) {
        return HOUR.format(at);
    }

    public String money(BigDecimal amount) {
        return amount.setScale(2, RoundingMode.HALF_UP).toPlainString() + " " + currency();
    }

    public String money(double amount) {
        return money(BigDecimal.valueOf(amount));
    }

    public String currency() {
        return settings.now().currency();
    }

    public String bytes(long size) {
        return size < 1_000_000
                ? String.format(Locale.ROOT, "%.0f kB", Math.ceil(size / 1e3))
                : String.format(Locale.ROOT, "%.1f MB", size / 1e6);
    }

    public String value(Derivation derivation) {
        double v = derivation.value();
        return switch (derivation.unit()) {
            case COUNT -> String.format(Locale.ROOT, "%.0f", v);
            case MILLIMETRES -> length(v);
            case CUBIC_MILLIMETRES -> String.format(Locale.ROOT, "%.0f mm³", v);
            case GRAMS -> grams(v);
            case SECONDS -> time(v);
            case MONEY -> money(v);
            case RATIO -> v < 0.01 && v > 0
                    ? String.format(Locale.ROOT, "%.5f", v)
                    : String.format(Locale.ROOT, "%.2f", v);
        };
    }
}
