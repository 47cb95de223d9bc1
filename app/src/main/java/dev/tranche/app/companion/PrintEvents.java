package dev.tranche.app.companion;

import dev.tranche.app.web.Watchers;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells every window of a print that something was told in another, and now and then that the server is there. */
@Component
class PrintEvents {
    private static final long BEAT = 15;

    private final Prints prints;
    private final Watchers watchers = new Watchers();
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "print events");
        thread.setDaemon(true);
        return thread;
    });

    PrintEvents(Prints prints) {
        this.prints = prints;
        clock.scheduleWithFixedDelay(
                () -> watchers.plans().forEach(p -> watchers.tell(p, "beat", "")), BEAT, BEAT, TimeUnit.SECONDS);
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
        clock.shutdownNow();
        watchers.close();
    }
}
