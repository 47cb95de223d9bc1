package dev.tranche.app.web;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.Collectors;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Pages that are told what happens to a plan, as server-sent events (WHATWG HTML, 9.2), until they go away. */
public final class Watchers {
    private final Map<String, List<SseEmitter>> watchers = new ConcurrentHashMap<>();

    public SseEmitter watch(String plan) {
        return watch(plan, new SseEmitter(0L));
    }

    SseEmitter watch(String plan, SseEmitter emitter) {
        List<SseEmitter> all = watchers.computeIfAbsent(plan, p -> new CopyOnWriteArrayList<>());
        all.add(emitter);
        Runnable gone = () -> all.remove(emitter);
        emitter.onCompletion(gone);
        emitter.onTimeout(gone);
        emitter.onError(e -> gone.run());
        return emitter;
    }

    /** Plans that somebody looks at. */
    public Set<String> plans() {
        return watchers.entrySet().stream()
                .filter(e -> !e.getValue().isEmpty())
                .map(Map.Entry::getKey)
                .collect(Collectors.toUnmodifiableSet());
    }

    public void tell(String plan, String event, String data) {
        List<SseEmitter> all = watchers.getOrDefault(plan, List.of());
        all.forEach(emitter -> {
            if (!send(emitter, event, data)) {
                all.remove(emitter);
            }
        });
    }

    /** Whether it could be sent: whoever went away is not waited for. */
    public static boolean send(SseEmitter emitter, String event, String data) {
        try {
            emitter.send(SseEmitter.event().name(event).data(data));
            return true;
        } catch (IOException | IllegalStateException gone) {
            end(emitter);
            return false;
        }
    }

    public void close() {
        watchers.values().forEach(all -> all.forEach(Watchers::end));
    }

    private static void end(SseEmitter emitter) {
        try {
            emitter.complete();
        } catch (IllegalStateException already) {
            // The container ended it itself when its page went away.
        }
    }
}
