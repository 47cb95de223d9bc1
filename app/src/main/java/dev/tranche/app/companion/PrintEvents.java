package dev.tranche.app.companion;

import dev.tranche.app.web.Watchers;
import java.util.concurrent.TimeUnit;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells every window of a print that something was told in another, and now and then that the server is there. */
@Component
class PrintEvents {
    private static final long BEAT = 15;

    private final Prints prints;
    private final Watchers watchers = new Watchers();

    PrintEvents(Prints prints) {
        this.prints = prints;
    }

    @Scheduled(initialDelay = BEAT, fixedDelay = BEAT, timeUnit = TimeUnit.SECONDS)
    void beat() {
        watchers.plans().forEach(p -> watchers.tell(p, "beat", ""));
    }

    /** It is told at once how much has been told. */
    SseEmitter watch(String plan) {
        SseEmitter emitter = watchers.watch(plan);
        Watchers.send(emitter, "told", mark(plan));
        return emitter;
    }

    @TransactionalEventListener
    void told(Prints.Told told) {
        watchers.tell(told.plan(), "told", mark(told.plan()));
    }

    private String mark(String plan) {
        return prints.under(plan).map(PrintViews::mark).orElse("");
    }

    /** Before the server waits for what is under way to end: these would not, by themselves. */
    @EventListener(ContextClosedEvent.class)
    void close() {
        watchers.close();
    }
}
