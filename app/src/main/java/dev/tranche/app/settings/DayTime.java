package dev.tranche.app.settings;

import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.util.Locale;

/** How people count the hours of a day. */
public enum DayTime {
    /** {@code 16:30}. */
    HOURS_24("24 hours, 16:30", "HH:mm", "H:mm"),
    /** {@code 4:30 pm}. */
    HOURS_12("12 hours, 4:30 pm", "h:mm a", "h:mm a");

    private final String title;
    private final DateTimeFormatter exact;
    private final DateTimeFormatter mark;

    DayTime(String title, String exact, String mark) {
        this.title = title;
        this.exact = formatter(exact);
        this.mark = formatter(mark);
    }

    private static DateTimeFormatter formatter(String pattern) {
        return DateTimeFormatter.ofPattern(pattern, Locale.ENGLISH);
    }

    public String title() {
        return title;
    }

    public String of(TemporalAccessor at) {
        return exact.format(at).toLowerCase(Locale.ROOT);
    }

    /** As short as it can be, under a mark of a scale. */
    public String mark(TemporalAccessor at) {
        return mark.format(at).toLowerCase(Locale.ROOT);
    }
}
