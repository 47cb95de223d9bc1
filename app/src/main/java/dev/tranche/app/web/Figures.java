package dev.tranche.app.web;

import dev.tranche.app.settings.Settings;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Unit;
import dev.tranche.core.speech.Shares;
import dev.tranche.core.speech.Words;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Writes numbers out with their units, at a precision a caliper or a kitchen scale could check. */
@Component("figures")
public class Figures {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM", Locale.ENGLISH);
    private static final DateTimeFormatter WEEKDAY = DateTimeFormatter.ofPattern("EEE", Locale.ENGLISH);
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMMM", Locale.ENGLISH);

    /** More digits than anybody types. */
    private static final MathContext EXACT = new MathContext(12);

    private final Settings settings;

    Figures(Settings settings) {
        this.settings = settings;
    }

    /** As short as it can be written, without what sums of binary fractions leave behind: {@code 220}, {@code 0.4}. */
    public String plain(double value) {
        return BigDecimal.valueOf(value).round(EXACT).stripTrailingZeros().toPlainString();
    }

    /** A share in per cent, as exactly as somebody would type it. */
    public String percent(double share) {
        return new BigDecimal(share * 100)
                .setScale(4, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }

    public String whole(double value) {
        return Words.format("%.0f", value);
    }

    /** {@code 12.4 g}, and from a kilogram on {@code 1.25 kg}. */
    public String grams(double grams) {
        return grams < 999.95 ? Words.format("%.1f g", grams) : Words.format("%.2f kg", grams / 1000);
    }

    /** {@code 190 mm}, and from ten metres on {@code 64.5 m}. */
    public String length(double millimetres) {
        return millimetres < 9_999.5
                ? Words.format("%.0f mm", millimetres)
                : Words.format("%.1f m", millimetres / 1000);
    }

    /** As {@link #time}, to a tenth under ten seconds: {@code 1.4 s}, {@code 1 min 30 s}. */
    public String exact(double seconds) {
        return seconds > 0 && seconds < 9.95 ? Words.format("%.1f s", seconds) : time(seconds);
    }

    /** {@code 45 s}, {@code 7 min 12 s}, {@code 1 h 07 min}: seconds count up to an hour. */
    public String time(double seconds) {
        return seconds < 3599.5 ? toTheSecond(Math.round(seconds)) : toTheMinute(Math.round(seconds / 60));
    }

    /** Where a figure stands alone and has little room: {@code 45 s}, {@code 7 min}, {@code 1 h 07 min}. */
    public String about(double seconds) {
        long minutes = Math.round(seconds / 60);
        return seconds < 59.5 ? time(seconds) : minutes < 60 ? minutes + " min" : toTheMinute(minutes);
    }

    private static String toTheMinute(long minutes) {
        return Words.format("%d h %02d min", minutes / 60, minutes % 60);
    }

    /** However long it is: {@code 1 h 07 min 05 s}. */
    private static String toTheSecond(long s) {
        if (s < 60) {
            return s + " s";
        }
        if (s >= 3600) {
            return Words.format("%d h %02d min %02d s", s / 3600, s / 60 % 60, s % 60);
        }
        return s % 60 == 0 ? s / 60 + " min" : Words.format("%d min %02d s", s / 60, s % 60);
    }

    /**
     * Times that are shown with their sum, last: rounded so that they add up.
     *
     * @param parts s
     */
    public List<String> times(double... parts) {
        double sum = Arrays.stream(parts).sum();
        List<String> shown = new ArrayList<>();
        if (sum < 3599.5) {
            Arrays.stream(Shares.of(parts, 1)).forEach(s -> shown.add(toTheSecond(s)));
        } else {
            long[] minutes = Shares.of(parts, 60);
            for (int i = 0; i < parts.length; i++) {
                // What is lost among minutes is still said.
                shown.add(
                        minutes[i] == 0
                                ? toTheSecond(Math.round(parts[i]))
                                : minutes[i] < 60 ? minutes[i] + " min" : toTheMinute(minutes[i]));
            }
        }
        shown.add(time(sum));
        return shown;
    }

    /** {@code 27 November}, by the clock beside the machine. */
    public String date(Instant at) {
        return DATE.format(at.atZone(settings.now().zone()));
    }

    /** {@code 27 November, 16:30}, by the clock beside the machine. */
    public String moment(Instant at) {
        return date(at) + ", " + clock(at.atZone(settings.now().zone()));
    }

    /** {@code Friday 27 November, 16:30}. */
    public String day(ZonedDateTime at) {
        return DAY.format(at) + ", " + clock(at);
    }

    /** {@code Fri 16:30}. */
    public String hour(ZonedDateTime at) {
        return WEEKDAY.format(at) + " " + clock(at);
    }

    /** A time of day, as its owner counts hours: {@code 16:30}, or {@code 4:30 pm}. */
    public String clock(TemporalAccessor at) {
        return settings.now().hours().of(at);
    }

    /** The same under a mark of a scale. */
    public String clockMark(TemporalAccessor at) {
        return settings.now().hours().mark(at);
    }

    public String money(BigDecimal amount) {
        return amount.setScale(2, RoundingMode.HALF_UP).toPlainString() + " " + sign();
    }

    public String money(double amount) {
        return money(BigDecimal.valueOf(amount));
    }

    /** The currency as people write it: € for EUR; three letters that stand for none stay as they are. */
    public String sign() {
        try {
            return Currency.getInstance(currency()).getSymbol(Locale.US);
        } catch (IllegalArgumentException noCurrency) {
            return currency();
        }
    }

    public String currency() {
        return settings.now().currency();
    }

    public String bytes(long size) {
        return size < 1_000_000
                ? Words.format("%.0f kB", Math.ceil(size / 1e3))
                : size < 1_000_000_000 ? Words.format("%.1f MB", size / 1e6) : Words.format("%.1f GB", size / 1e9);
    }

    /** A part of an opened figure; times to the second, as what they add up to. */
    public String part(Derivation derivation) {
        return derivation.unit() == Unit.SECONDS ? toTheSecond(Math.round(derivation.value())) : value(derivation);
    }

    public String value(Derivation derivation) {
        double v = derivation.value();
        return switch (derivation.unit()) {
            case COUNT -> Words.format("%.0f", v);
            case MILLIMETRES -> length(v);
            case CUBIC_MILLIMETRES -> Words.format("%.0f mm³", v);
            case GRAMS -> grams(v);
            case SECONDS -> time(v);
            case MONEY -> money(v);
            case RATIO -> v < 0.01 && v > 0 ? Words.format("%.5f", v) : Words.format("%.2f", v);
        };
    }
}
