package dev.tranche.app.clock;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VAlarm;
import biweekly.component.VEvent;
import biweekly.parameter.Related;
import biweekly.property.Trigger;
import biweekly.util.Duration;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.speech.Words;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import org.springframework.stereotype.Component;

/** Stops as a calendar file (RFC 5545): an event for each that somebody has to come to, as long as its window. */
@Component
public class Calendars {
    private static final int AHEAD = 5;

    private final Figures figures;

    Calendars(Figures figures) {
        this.figures = figures;
    }

    /** A stop; under the same {@code uid} it takes the place of what the calendar has of it. */
    public record Event(String uid, Instant from, Instant to, String summary, String description) {}

    /** @param kind {@code swap} or {@code halt} */
    public static String uid(String plan, String kind, int number) {
        return Words.format("%s-%s-%d@tranche", plan, kind, number);
    }

    String of(Workpiece work, Schedule schedule) {
        return write(ClockViews.visits(schedule).stream()
                .map(stop -> event(work, stop))
                .toList());
    }

    public String write(List<Event> events) {
        ICalendar calendar = new ICalendar();
        calendar.setProductId("-//Tranche//plan//EN");
        events.forEach(e -> calendar.addEvent(written(e)));
        return Biweekly.write(calendar).go();
    }

    private static VEvent written(Event e) {
        VEvent event = new VEvent();
        event.setUid(e.uid());
        event.setDateStart(Date.from(e.from()));
        event.setDateEnd(Date.from(e.to()));
        event.setSummary(e.summary());
        event.setDescription(e.description());
        event.addAlarm(VAlarm.display(
                new Trigger(Duration.builder().prior(true).minutes(AHEAD).build(), Related.START), e.summary()));
        return event;
    }

    private Event event(Workpiece work, Schedule.Stop stop) {
        String uid = uid(work.plan().id(), stop.swap() ? "swap" : "halt", stop.number());
        Instant from = stop.at().toInstant();
        Instant to = stop.until().toInstant();
        if (stop.swap()) {
            Swap swap = work.ledger().swaps().get(stop.number() - 1);
            return new Event(
                    uid,
                    from,
                    to,
                    Words.format(
                            "%s: %s out, %s in",
                            stop.name(), swap.out().name(), swap.in().name()),
                    Words.format(
                            "%s, %s. Purge %s. The nozzle waits until the end of this event.",
                            work.plan().name(),
                            swap.place(),
                            figures.length(work.ledger().filament().length(swap.pushed()))));
        }
        return new Event(
                uid,
                from,
                to,
                "Halt: " + work.ledger().pauses().get(stop.number() - 1).note(),
                Words.format("%s, before layer %d.", work.plan().name(), stop.layer()));
    }
}
