package dev.tranche.core.estimate;

import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Words;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A time of every day at which nobody is at the machine: asleep, at work.
 *
 * @param from when it begins
 * @param to when it ends; before {@code from} where it goes over midnight
 */
public record QuietTime(LocalTime from, LocalTime to) {
    private static final Pattern STRETCH =
            Pattern.compile("([01]?\\d|2[0-3]):([0-5]\\d)\\s*[-–]\\s*([01]?\\d|2[0-3]):([0-5]\\d)");

    public QuietTime {
        if (from.equals(to)) {
            throw Refusal.of("A quiet time from %s to %s is no time at all; give two different times.", from, to);
        }
    }

    /** Reads what people type: {@code 22:30-6:30, 8:00-17:00}; nothing for none. */
    public static List<QuietTime> parse(String text) {
        List<QuietTime> times = new ArrayList<>();
        for (String part : text.split("[,;]")) {
            if (!part.isBlank()) {
                Matcher m = STRETCH.matcher(part.strip());
                if (!m.matches()) {
                    throw Refusal.of(
                            "“%s” is not a quiet time; type two times of day, such as 22:30-6:30.",
                            Words.quoted(part.strip()));
                }
                times.add(new QuietTime(time(m.group(1), m.group(2)), time(m.group(3), m.group(4))));
            }
        }
        return times;
    }

    private static LocalTime time(String hour, String minute) {
        return LocalTime.of(Integer.parseInt(hour), Integer.parseInt(minute));
    }

    public boolean contains(LocalTime time) {
        return from.isBefore(to)
                ? !time.isBefore(from) && time.isBefore(to)
                : !time.isBefore(from) || time.isBefore(to);
    }

    /** When the quiet that {@code at} lies in is over. */
    ZonedDateTime over(ZonedDateTime at) {
        ZonedDateTime end = at.with(to);
        return end.isAfter(at) ? end : at.plusDays(1).with(to);
    }

    /** Whether nobody can come from {@code at} on for as long as {@code window}. */
    static boolean covers(List<QuietTime> times, ZonedDateTime at, Duration window) {
        ZonedDateTime free = at;
        ZonedDateTime end = at.plus(window);
        // Quiet times may follow one another.
        for (int i = 0; i <= times.size(); i++) {
            ZonedDateTime now = free;
            QuietTime quiet = times.stream()
                    .filter(q -> q.contains(now.toLocalTime()))
                    .findFirst()
                    .orElse(null);
            if (quiet == null) {
                return free.isAfter(end);
            }
            free = quiet.over(free);
        }
        return true;
    }

    @Override
    public String toString() {
        return from + "-" + to;
    }
}
