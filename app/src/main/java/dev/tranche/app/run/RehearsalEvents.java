package dev.tranche.app.run;

import dev.tranche.app.storage.Json;
import dev.tranche.app.web.Watchers;
import dev.tranche.core.rehearse.Report;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells pages how far rehearsals are, as server-sent events, a few times a second. */
@Component
class RehearsalEvents {
    private static final Logger LOG = LoggerFactory.getLogger(RehearsalEvents.class);
    /** Milliseconds. */
    private static final long EVERY = 250;

    private final Rehearsals rehearsals;
    private final Json json;
    private final Watchers watchers = new Watchers();
    private final Map<String, String> told = new ConcurrentHashMap<>();

    RehearsalEvents(Rehearsals rehearsals, Json json) {
        this.rehearsals = rehearsals;
        this.json = json;
    }

    /**
     * How far a rehearsal is.
     *
     * @param state none, running, held, waiting or over
     * @param layer that was printed last; 0 before the first
     * @param line at hand; empty where there is none
     * @param whole whether it is over and came to the end of the file
     */
    record Now(
            String state,
            double x,
            double y,
            double z,
            double temperature,
            long lines,
            double seconds,
            int layer,
            String line,
            String stop,
            boolean whole) {}

    SseEmitter watch(String plan) {
        SseEmitter emitter = watchers.watch(plan);
        told.remove(plan);
        return emitter;
    }

    @Scheduled(fixedDelay = EVERY)
    void tick() {
        watchers.plans().forEach(plan -> {
            try {
                tell(plan);
            } catch (RuntimeException e) {
                // What goes wrong for one page must not silence the clock for all.
                LOG.warn("A rehearsal could not be told of", e);
            }
        });
    }

    private void tell(String plan) {
        String now = json.write(now(plan));
        if (!now.equals(told.put(plan, now))) {
            watchers.tell(plan, "now", now);
        }
    }

    private Now now(String plan) {
        Optional<Run> run = rehearsals.of(plan);
        if (run.isEmpty()) {
            return new Now(RehearsalViews.NONE, 0, 0, 0, 0, 0, 0, 0, "", "", false);
        }
        Run r = run.get();
        String stop = r.waitsAt().map(e -> e.title()).orElse("");
        String state = r.state();
        String[] where = r.where().map(w -> w.split(" ", 8)).orElse(new String[0]);
        if (where.length < 7) {
            return new Now(state, 0, 0, 0, 0, 0, 0, 0, "", stop, false);
        }
        boolean whole = r.report().filter(Report::whole).isPresent();
        return new Now(
                state,
                Double.parseDouble(where[1]),
                Double.parseDouble(where[2]),
                Double.parseDouble(where[3]),
                Double.parseDouble(where[4]),
                Long.parseLong(where[5]),
                Double.parseDouble(where[6]),
                r.reached(),
                where.length > 7 && !whole ? where[7] : "",
                stop,
                whole);
    }

    /** Before the server waits for what is under way to end: these would not, by themselves. */
    @EventListener(ContextClosedEvent.class)
    void close() {
        watchers.close();
    }
}
