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
        SseEmitter emitter = new SseEmitter(0L);
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
        watchers.getOrDefault(plan, List.of()).forEach(emitter -> send(emitter, event, data));
    }

    public static void send(SseEmitter emitter, String event, String data) {
        try {
            emitter.send(SseEmitter.event().name(event).data(data));
        } catch (IOException | IllegalStateException gone) {
            emitter.complete();
        }
    }

    public void close() {
        watchers.values().forEach(all -> all.forEach(SseEmitter::complete));
    }
}
