package dev.tranche.app.settings;

import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Reads days and times as fields send them and people type them, by the clock beside the machine. */
@Component
public class Moments {
    private final Settings settings;

    Moments(Settings settings) {
        this.settings = settings;
    }

    /**
     * Empty for no set time.
     *
     * @throws Refusal if it is none, or clocks skip it
     */
    public Optional<LocalDateTime> read(String text) {
        if (text.isBlank()) {
            return Optional.empty();
        }
        try {
            LocalDateTime local = LocalDateTime.parse(text.strip().replace(' ', 'T'));
            Schedule.startAt(local, settings.now().zone());
            return Optional.of(local);
        } catch (DateTimeParseException e) {
            throw Refusal.of("“%s” is not a day and a time; type them as 2026-11-28 18:30.", Words.quoted(text));
        }
    }
}
