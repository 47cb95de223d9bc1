package dev.tranche.core.estimate;

import dev.tranche.core.speech.Refusal;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * A print by the clock. Durations are added on the time line, so that a night in which clocks change is as long as it
 * is.
 *
 * @param start of the print
 * @param stops swaps and halts in order
 * @param end of the print, if nobody is late
 */
public record Schedule(ZonedDateTime start, List<Stop> stops, ZonedDateTime end) {
    private static final Duration STEP = Duration.ofMinutes(5);
    /** With more stops it takes too long to look so closely. */
    private static final int MANY = 100;

    private static final Duration LONG_STEP = Duration.ofMinutes(30);
    private static final Duration FARTHEST = Duration.ofDays(7);

    public Schedule {
        stops = List.copyOf(stops);
    }

    /**
     * A swap or a halt.
     *
     * @param swap whether it is one, with {@code number} among its like, from 1
     * @param name what it is called
     * @param at when the machine stops, if nobody was late before
     * @param window how long the nozzle stays hot and waits
     * @param needsPerson whether somebody has to come
     * @param missed whether nobody can come in time
     */
    public record Stop(
            boolean swap,
            int number,
            String name,
            int layer,
            ZonedDateTime at,
            Duration window,
            boolean needsPerson,
            boolean missed) {
        public ZonedDateTime until() {
            return at.plus(window);
        }
    }

    /**
     * A time of day as a moment.
     *
     * @throws Refusal if clocks skip it
     */
    public static ZonedDateTime startAt(LocalDateTime local, ZoneId zone) {
        if (zone.getRules().getValidOffsets(local).isEmpty()) {
            throw Refusal.of(
                    "Clocks go forward on %s, and %s does not come; give a time from %s on.",
                    local.toLocalDate(),
                    local.toLocalTime(),
                    zone.getRules().getTransition(local).getDateTimeAfter().toLocalTime());
        }
        return local.atZone(zone);
    }

    /**
     * @param window how long the nozzle waits: the printer's heater limit
     * @param quiet when nobody comes
     */
    public static Schedule of(Ledger ledger, ZonedDateTime start, Duration window, List<QuietTime> quiet) {
        List<Stop> stops = new ArrayList<>();
        ledger.swaps()
                .forEach(s -> stops.add(stop(
                        true,
                        s.number(),
                        s.name(),
                        s.layer(),
                        after(start, s.startsAt()),
                        window,
                        s.needsPerson(),
                        quiet)));
        ledger.pauses().stream()
                .filter(p -> p.dryRun().isPresent())
                .forEach(p -> stops.add(
                        stop(false, p.number(), p.name(), p.layer(), after(start, p.startsAt()), window, true, quiet)));
        stops.sort(Comparator.comparing(s -> s.at().toInstant()));
        return new Schedule(start, stops, after(start, ledger.totalSeconds()));
    }

    private static Stop stop(
            boolean swap,
            int number,
            String name,
            int layer,
            ZonedDateTime at,
            Duration window,
            boolean needsPerson,
            List<QuietTime> quiet) {
        boolean missed = needsPerson && QuietTime.covers(quiet, at, window);
        return new Stop(swap, number, name, layer, at, window, needsPerson, missed);
    }

    private static ZonedDateTime after(ZonedDateTime start, double seconds) {
        return start.plus(Duration.ofSeconds(Math.round(seconds)));
    }

    /** When {@code seconds} of the print are over, if nobody is late. */
    public ZonedDateTime at(double seconds) {
        return after(start, seconds);
    }

    public long missed() {
        return stops.stream().filter(Stop::missed).count();
    }

    /**
     * The first start from {@code earliest} on, in steps of five minutes (thirty, where there are over a hundred stops), within a week, that misses nothing, or else
     * the one that misses least; somebody is there at the start itself.
     */
    public static Schedule suggested(Ledger ledger, ZonedDateTime earliest, Duration window, List<QuietTime> quiet) {
        Schedule now = of(ledger, earliest, window, quiet);
        boolean attended = !QuietTime.covers(quiet, earliest, Duration.ZERO);
        if (attended && now.missed() == 0) {
            return now;
        }
        List<Duration> visits = now.stops().stream()
                .filter(Stop::needsPerson)
                .map(s -> Duration.between(earliest, s.at()))
                .toList();
        Duration step = visits.size() > MANY ? LONG_STEP : STEP;
        ZonedDateTime best = earliest;
        long least = attended ? now.missed() : Long.MAX_VALUE;
        for (Duration d = step; least > 0 && d.compareTo(FARTHEST) <= 0; d = d.plus(step)) {
            ZonedDateTime start = earliest.plus(d);
            if (!QuietTime.covers(quiet, start, Duration.ZERO)) {
                long missed = missed(start, visits, window, quiet, least);
                if (missed < least) {
                    least = missed;
                    best = start;
                }
            }
        }
        return of(ledger, best, window, quiet);
    }

    /** How many visits are missed; no more are counted than {@code most}. */
    private static long missed(
            ZonedDateTime start, List<Duration> visits, Duration window, List<QuietTime> quiet, long most) {
        return visits.stream()
                .filter(v -> QuietTime.covers(quiet, start.plus(v), window))
                .limit(most)
                .count();
    }
}
