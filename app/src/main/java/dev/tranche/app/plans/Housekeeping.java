package dev.tranche.app.plans;

import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.Room;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.TimeUnit;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Clears away what nobody comes back to: plans deleted long ago, and files that no plan holds any more. */
@Component
class Housekeeping {
    private static final Duration DELETED_PLANS = Duration.ofDays(30);
    /** Long enough for a file that was given to become a plan's. */
    private static final Duration LOOSE_FILES = Duration.ofDays(1);

    private final Plans plans;
    private final FileStore files;
    private final Clock clock;
    private final Room room;

    Housekeeping(Plans plans, FileStore files, Clock clock, Room room) {
        this.room = room;
        this.plans = plans;
        this.files = files;
        this.clock = clock;
    }

    /** Plans of earlier versions are found like others. */
    @EventListener(ApplicationReadyEvent.class)
    void noteAll() {
        if (room.sentence().isEmpty()) {
            plans.noteAll();
        }
    }

    @Scheduled(initialDelay = 5, fixedDelay = 60, timeUnit = TimeUnit.MINUTES)
    void clearAway() throws IOException {
        if (room.sentence().isPresent()) {
            return;
        }
        Instant now = clock.instant();
        plans.forgetDeleted(now.minus(DELETED_PLANS));
        files.sweep(now.minus(LOOSE_FILES), plans::hold);
    }
}
