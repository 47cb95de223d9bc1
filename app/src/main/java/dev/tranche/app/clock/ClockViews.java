package dev.tranche.app.clock;

import dev.tranche.app.pictures.ClockDrawing;
import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Swap;
import java.time.Clock;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of the clock. */
@Component
class ClockViews {
    private static final int MOST_ROWS = 300;

    private final Settings settings;
    private final Clock clock;
    private final Figures figures;

    ClockViews(Settings settings, Clock clock, Figures figures) {
        this.settings = settings;
        this.clock = clock;
        this.figures = figures;
    }

    /** A stop as a row; a halt has a note instead of spools. */
    record Row(
            Schedule.Stop stop,
            String at,
            String until,
            SpoolMark out,
            SpoolMark in,
            String purge,
            String place,
            String note) {}

    String show(Workpiece work, Model model) {
        Schedule schedule = schedule(work);
        Settings.Current now = settings.now();
        Schedule other = Schedule.suggested(
                work.ledger(), schedule.start(), work.machine().printer().heaterLimit(), now.quiet());
        model.addAttribute("schedule", schedule);
        model.addAttribute("set", work.schedule().isPresent());
        model.addAttribute("settings", now);
        model.addAttribute("startField", field(schedule.start()));
        model.addAttribute("starts", figures.day(schedule.start()));
        model.addAttribute("ends", figures.day(schedule.end()));
        model.addAttribute("suggested", other.start().equals(schedule.start()) ? null : other);
        model.addAttribute("suggestedField", field(other.start()));
        model.addAttribute("suggestedAt", figures.day(other.start()));
        model.addAttribute("drawing", ClockDrawing.of(work, schedule, now.quiet(), figures, 1180));
        model.addAttribute("marks", SpoolMark.palette(work));
        model.addAttribute(
                "rows",
                schedule.stops().stream()
                        .limit(MOST_ROWS)
                        .map(s -> row(work, s))
                        .toList());
        model.addAttribute("more", Math.max(0, schedule.stops().size() - MOST_ROWS));
        return "clock/clock";
    }

    /** The plan's schedule, or, where it has no start, what it would be from now on. */
    Schedule schedule(Workpiece work) {
        return work.schedule()
                .orElseGet(() -> Schedule.of(
                        work.ledger(),
                        soon(),
                        work.machine().printer().heaterLimit(),
                        settings.now().quiet()));
    }

    /** The next five minutes. */
    private ZonedDateTime soon() {
        ZonedDateTime now = clock.instant().atZone(settings.now().zone()).truncatedTo(ChronoUnit.MINUTES);
        return now.plusMinutes(5 - now.getMinute() % 5);
    }

    private static String field(ZonedDateTime at) {
        return at.toLocalDateTime().truncatedTo(ChronoUnit.MINUTES).toString();
    }

    private Row row(Workpiece work, Schedule.Stop stop) {
        String at = figures.hour(stop.at());
        String until = figures.clock(stop.until());
        if (!stop.swap()) {
            String note = work.ledger().pauses().get(stop.number() - 1).note();
            return new Row(stop, at, until, null, null, "", "before layer " + stop.layer(), note);
        }
        Swap swap = work.ledger().swaps().get(stop.number() - 1);
        return new Row(
                stop,
                at,
                until,
                SpoolMark.of(work, swap.taken()),
                SpoolMark.of(work, swap.put()),
                figures.length(work.ledger().filament().length(swap.pushed())),
                swap.place(),
                "");
    }

    static List<Schedule.Stop> visits(Schedule schedule) {
        return schedule.stops().stream().filter(Schedule.Stop::needsPerson).toList();
    }
}
