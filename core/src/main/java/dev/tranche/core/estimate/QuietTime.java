package dev.tranche.core.estimate;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A time at which nobody is at the machine: asleep, at work.
 *
 * @param days on which it begins
 * @param from when it begins
 * @param to when it ends; before {@code from} where it goes over midnight
 */
public record QuietTime(Set<DayOfWeek> days, LocalTime from, LocalTime to) {
    private static final Set<DayOfWeek> EVERY_DAY = EnumSet.allOf(DayOfWeek.class);

    private static final String DAY = "(?:mo|tu|we|th|fr|sa|su)[a-z]*";
    private static final Pattern DAYS = Pattern.compile("(" + DAY + ")(?:\\s*[-–]\\s*(" + DAY + "))?");
    private static final Pattern STRETCH = Pattern.compile(
            "((?:" + DAYS + "\\s+)*)" + "([01]?\\d|2[0-3]):([0-5]\\d)\\s*[-–]\\s*([01]?\\d|2[0-3]):([0-5]\\d)");

    public QuietTime {
        days = Collections.unmodifiableSet(EnumSet.copyOf(days));
        if (from.equals(to)) {
            throw Refusal.of("A quiet time from %s to %s is no time at all; give two different times.", from, to);
        }
    }

    /** Reads what people type: {@code 22:30-6:30, Mo-Fr 8:00-16:30}; nothing for none. */
    public static List<QuietTime> parse(String text) {
        List<QuietTime> times = new ArrayList<>();
        for (String part : text.split("[,;]")) {
            if (!part.isBlank()) {
                Matcher m = STRETCH.matcher(part.strip().toLowerCase(Locale.ROOT));
                if (!m.matches()) {
                    throw Refusal.of(
                            "“%s” is not a quiet time; type two times of day, such as 22:30-6:30, or days and times, such as Mo-Fr 8:00-16:30.",
                            Words.quoted(part.strip()));
                }
                times.add(new QuietTime(days(m.group(1)), time(m.group(4), m.group(5)), time(m.group(6), m.group(7))));
            }
        }
        return times;
    }

    private static Set<DayOfWeek> days(String words) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        Matcher m = DAYS.matcher(words);
        while (m.find()) {
            DayOfWeek day = day(m.group(1));
            DayOfWeek last = m.group(2) == null ? day : day(m.group(2));
            days.add(day);
            while (day != last) {
                day = day.plus(1);
                days.add(day);
            }
        }
        return days.isEmpty() ? EVERY_DAY : days;
    }

    private static DayOfWeek day(String word) {
        return EVERY_DAY.stream()
                .filter(d -> name(d).equalsIgnoreCase(word.substring(0, 2)))
                .findFirst()
                .orElseThrow();
    }

    private static String name(DayOfWeek day) {
        return day.getDisplayName(TextStyle.SHORT, Locale.ROOT).substring(0, 2);
    }

    private static LocalTime time(String hour, String minute) {
        return LocalTime.of(Integer.parseInt(hour), Integer.parseInt(minute));
    }

    public boolean contains(LocalDateTime at) {
        LocalTime time = at.toLocalTime();
        boolean begun = !time.isBefore(from) && days.contains(at.getDayOfWeek());
        return from.isBefore(to)
                ? begun && time.isBefore(to)
                : begun || time.isBefore(to) && days.contains(at.getDayOfWeek().minus(1));
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
        while (!free.isAfter(end)) {
            LocalDateTime now = free.toLocalDateTime();
            QuietTime quiet =
                    times.stream().filter(q -> q.contains(now)).findFirst().orElse(null);
            if (quiet == null) {
                return false;
            }
            free = quiet.over(free);
        }
        return true;
    }

    @Override
    public String toString() {
        String time = from + "-" + to;
        return days.equals(EVERY_DAY) ? time : inWords() + " " + time;
    }

    /** Three days or more in a row are told by the first and the last. */
    private String inWords() {
        List<DayOfWeek> first =
                days.stream().filter(d -> !days.contains(d.minus(1))).toList();
        return first.size() == 1 && days.size() > 2
                ? name(first.get(0)) + "-" + name(first.get(0).plus(days.size() - 1))
                : days.stream().map(QuietTime::name).collect(Collectors.joining(" "));
    }
}
