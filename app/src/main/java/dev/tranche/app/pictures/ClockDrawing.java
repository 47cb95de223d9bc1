package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.QuietTime;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.speech.Words;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/**
 * The hours of a print with its stops, and the times at which nobody is there.
 *
 * @param quiet stretches at which nobody is there
 * @param stops each as wide as its window
 * @param hours under the line
 * @param begins px where the print begins, {@code ends} where it is done
 */
public record ClockDrawing(
        int width,
        int height,
        double top,
        double bottom,
        double begins,
        double ends,
        List<Quiet> quiet,
        List<Stop> stops,
        List<Hour> hours) {
    private static final double LEFT = 12;
    private static final double RIGHT = 12;
    private static final double TOP = 18;
    private static final int HEIGHT = 96;
    private static final double BOTTOM = HEIGHT - 26;
    private static final double CLOSEST = 3;
    /** The drawing begins and ends on a multiple of it, minutes. */
    private static final int SLOT = 5;
    /** Windows that overlap lie in as many rows. */
    private static final int ROWS = 4;

    private static final double ROW = 9;

    /** A stretch of time with nobody there. */
    public record Quiet(double x, double width) {}

    /** A stop with its window, which lies at {@code y}. */
    public record Stop(double x, double width, double y, boolean missed, boolean attended, String title) {}

    /** A mark on the line. */
    public record Hour(double x, String text) {}

    public static ClockDrawing of(
            Workpiece work, Schedule schedule, List<QuietTime> quiet, Figures figures, int width) {
        ZonedDateTime from = slot(schedule.start());
        ZonedDateTime last = schedule.stops().stream()
                .filter(Schedule.Stop::needsPerson)
                .map(Schedule.Stop::until)
                .filter(until -> until.isAfter(schedule.end()))
                .max(Comparator.comparing(ZonedDateTime::toInstant))
                .orElse(schedule.end());
        ZonedDateTime to = slot(last).plusMinutes(SLOT);
        double span = Duration.between(from, to).toSeconds();
        Scale scale = new Scale(from, (width - LEFT - RIGHT) / span);
        return new ClockDrawing(
                width,
                HEIGHT,
                TOP,
                BOTTOM,
                scale.x(schedule.start()),
                scale.x(schedule.end()),
                quiet(scale, from, to, quiet),
                stops(scale, schedule, figures),
                hours(scale, from, to, figures));
    }

    private static ZonedDateTime slot(ZonedDateTime at) {
        ZonedDateTime minute = at.truncatedTo(ChronoUnit.MINUTES);
        return minute.minusMinutes(minute.getMinute() % SLOT);
    }

    private record Scale(ZonedDateTime from, double perSecond) {
        double x(ZonedDateTime at) {
            return LEFT + Duration.between(from, at).toSeconds() * perSecond;
        }
    }

    private static List<Quiet> quiet(Scale scale, ZonedDateTime from, ZonedDateTime to, List<QuietTime> times) {
        List<Quiet> stretches = new ArrayList<>();
        for (QuietTime time : times) {
            ZonedDateTime day = from.truncatedTo(ChronoUnit.DAYS).minusDays(1);
            for (; day.isBefore(to); day = day.plusDays(1)) {
                ZonedDateTime begin = day.with(time.from());
                ZonedDateTime end = (time.to().isAfter(time.from()) ? day : day.plusDays(1)).with(time.to());
                ZonedDateTime shownFrom = begin.isBefore(from) ? from : begin;
                ZonedDateTime shownTo = end.isAfter(to) ? to : end;
                if (time.days().contains(day.getDayOfWeek()) && shownFrom.isBefore(shownTo)) {
                    double x = scale.x(shownFrom);
                    stretches.add(new Quiet(x, scale.x(shownTo) - x));
                }
            }
        }
        return stretches;
    }

    private static List<Stop> stops(Scale scale, Schedule schedule, Figures figures) {
        List<Stop> stops = new ArrayList<>();
        double last = Double.NEGATIVE_INFINITY;
        for (Schedule.Stop stop : schedule.stops()) {
            double x = scale.x(stop.at());
            if (x - last >= CLOSEST || stop.missed()) {
                last = x;
                stops.add(new Stop(
                        x,
                        Math.max(2, scale.x(stop.until()) - x),
                        TOP + 6 + stops.size() % ROWS * ROW,
                        stop.missed(),
                        stop.needsPerson(),
                        Words.format(
                                "%s at %s%s",
                                stop.name(), figures.clock(stop.at()), stop.missed() ? ", with nobody there" : "")));
            }
        }
        return stops;
    }

    private static List<Hour> hours(Scale scale, ZonedDateTime from, ZonedDateTime to, Figures figures) {
        long step = Math.max(SLOT, Ticks.seconds(Duration.between(from, to).toSeconds(), 14) / 60);
        List<Hour> marks = new ArrayList<>();
        for (ZonedDateTime at = from; !at.isAfter(to); at = at.plusMinutes(SLOT)) {
            long minute = 1440 * at.toLocalDate().toEpochDay() + at.getHour() * 60 + at.getMinute();
            if (minute % step == 0) {
                String day = at.getHour() == 0 && at.getMinute() == 0
                        ? at.getDayOfWeek().getDisplayName(java.time.format.TextStyle.SHORT, Locale.ENGLISH) + " "
                        : "";
                marks.add(new Hour(scale.x(at), day + figures.clockMark(at)));
            }
        }
        return marks;
    }
}
