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
import java.util.Date;
import org.springframework.stereotype.Component;

/** A schedule as a calendar file (RFC 5545): an event for each stop somebody has to come to, as long as its window. */
@Component
class Calendars {
    private static final int AHEAD = 5;

    private final Figures figures;

    Calendars(Figures figures) {
        this.figures = figures;
    }

    String of(Workpiece work, Schedule schedule) {
        ICalendar calendar = new ICalendar();
        calendar.setProductId("-//Tranche//plan//EN");
        for (Schedule.Stop stop : ClockViews.visits(schedule)) {
            calendar.addEvent(event(work, stop));
        }
        return Biweekly.write(calendar).go();
    }

    private VEvent event(Workpiece work, Schedule.Stop stop) {
        VEvent event = new VEvent();
        event.setUid(Words.format("%s-%s-%d@tranche", work.plan().id(), stop.swap() ? "swap" : "halt", stop.number()));
        event.setDateStart(Date.from(stop.at().toInstant()));
        event.setDateEnd(Date.from(stop.until().toInstant()));
        if (stop.swap()) {
            Swap swap = work.ledger().swaps().get(stop.number() - 1);
            event.setSummary(Words.format(
                    "Swap %d: %s out, %s in",
                    stop.number(), swap.out().name(), swap.in().name()));
            event.setDescription(Words.format(
                    "%s, %s. Purge %s. The nozzle waits until the end of this event.",
                    work.plan().name(),
                    swap.place(),
                    figures.length(work.ledger().filament().length(swap.pushed()))));
        } else {
            event.setSummary(
                    "Halt: " + work.ledger().pauses().get(stop.number() - 1).note());
            event.setDescription(
                    Words.format("%s, before layer %d.", work.plan().name(), stop.layer()));
        }
        event.addAlarm(VAlarm.display(
                new Trigger(Duration.builder().prior(true).minutes(AHEAD).build(), Related.START),
                event.getSummary().getValue()));
        return event;
    }
}
