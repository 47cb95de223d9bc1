package dev.tranche.core.check;

import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;

/** Rules on the print by the clock. */
final class ClockRules {
    private ClockRules() {}

    /** The machine waits while nobody is there, and its heater gives up. */
    static List<Finding> missed(PlanFacts facts) {
        return facts.schedule().filter(s -> s.missed() > 0).stream()
                .map(s -> {
                    Schedule.Stop first = s.stops().stream()
                            .filter(Schedule.Stop::missed)
                            .findFirst()
                            .orElseThrow();
                    return Finding.of(
                                    Severity.WARN,
                                    "missed-stops",
                                    Words.format(
                                            "%s while nobody is there, the first is %s; the nozzle waits %d min and then cools. See the clock for another start.",
                                            Words.count(s.missed(), "stop") + (s.missed() == 1 ? " comes" : " come"),
                                            name(first),
                                            first.window().toMinutes()))
                            .at(first.layer());
                })
                .toList();
    }

    private static String name(Schedule.Stop stop) {
        return Words.format(
                "%s on %s",
                stop.name().toLowerCase(Locale.ROOT),
                stop.at().getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH));
    }
}
