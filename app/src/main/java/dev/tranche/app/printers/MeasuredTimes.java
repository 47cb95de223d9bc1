package dev.tranche.app.printers;

import dev.tranche.core.companion.Lesson;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import java.util.Optional;

/** Knows what was measured of people beside a printer. */
public interface MeasuredTimes {
    /** How long they took at one stop of {@code macro}, s, if ever that was measured. */
    Optional<Lesson> of(long printer, Event event, Macro macro);
}
