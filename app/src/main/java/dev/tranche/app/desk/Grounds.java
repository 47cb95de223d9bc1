package dev.tranche.app.desk;

import dev.tranche.app.printers.MeasuredTimes;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.companion.Lesson;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What an estimate of time rests on where people are part of it: what was set up, or what was measured beside the machine. */
@Component
class Grounds {
    private static final Set<String> OF_TIME = Set.of("addedTime", "totalTime");
    /** s; nearer than that, what is reckoned with is what was measured. */
    private static final double SAME = 0.5;

    private final MeasuredTimes times;
    private final Figures figures;

    Grounds(MeasuredTimes times, Figures figures) {
        this.times = times;
        this.figures = figures;
    }

    /** Sentences beneath the figure of that name. */
    List<String> of(Workpiece work, String figure) {
        if (!OF_TIME.contains(figure)) {
            return List.of();
        }
        return attended(work.ledger())
                .flatMap(event -> ground(work, event).stream())
                .toList();
    }

    private static Stream<Event> attended(Ledger ledger) {
        boolean swaps = ledger.swaps().stream().anyMatch(s -> s.dryRun().stops() > 0);
        boolean halts = ledger.pauses().stream()
                .anyMatch(p -> p.dryRun().filter(r -> r.stops() > 0).isPresent());
        return Stream.of(Event.SWAP, Event.HALT).filter(e -> e == Event.SWAP ? swaps : halts);
    }

    private Optional<String> ground(Workpiece work, Event event) {
        return work.machine()
                .rig()
                .macros()
                .answer(event)
                .map(macro -> sentence(macro, times.of(work.machine().id(), event, macro)));
    }

    private String sentence(Macro macro, Optional<Lesson> measured) {
        double person = macro.person().toMillis() / 1000.0;
        String you = Words.format("You, at a stop of “%s”: %s", macro.name(), figures.time(person));
        if (measured.isEmpty()) {
            return you + ", as it is set up; nothing was measured yet.";
        }
        Lesson lesson = measured.get();
        String stops = Words.count(lesson.count(), "stop");
        return Math.abs(lesson.learned() - person) < SAME
                ? you + ", measured at " + stops + "."
                : you + Words.format(", as it is set up; measured at %s: %s.", stops, figures.time(lesson.learned()));
    }
}
