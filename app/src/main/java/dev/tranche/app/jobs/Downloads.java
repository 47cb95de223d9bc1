package dev.tranche.app.jobs;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import com.github.benmanes.caffeine.cache.Scheduler;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.web.Attachment;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Files that take longer to make than a click: made whole by a job first, and kept for a while to be fetched. */
@Service
public class Downloads {
    private static final String PLACE = "/downloads/";
    private static final Duration KEPT = Duration.ofMinutes(15);
    private static final int MOST = 8;

    private final Jobs jobs;
    private final TemporaryFiles temporary;
    private final Cache<String, Made> made = Caffeine.newBuilder()
            .expireAfterWrite(KEPT)
            .scheduler(Scheduler.systemScheduler())
            .executor(Runnable::run)
            .removalListener((String id, Made file, RemovalCause cause) -> delete(file.path()))
            .build();

    Downloads(Jobs jobs, TemporaryFiles temporary) {
        this.jobs = jobs;
        this.temporary = temporary;
    }

    private record Made(String name, String type, Path path) {}

    /** How a file is written. */
    @FunctionalInterface
    public interface Content {
        void writeTo(OutputStream out, Progress progress) throws IOException;
    }

    /**
     * @param what it is a file of, by {@code equals}: while it is being made it is not begun again
     * @param name under which it leaves
     */
    public Job make(Object what, String name, String type, Content content) {
        return jobs.start(what, "Making " + name, progress -> {
            Path path = temporary.file("download", 0);
            try (OutputStream out = temporary.filling(path, progress)) {
                content.writeTo(out, progress);
            } catch (IOException | RuntimeException | Error e) {
                delete(path);
                throw e;
            }
            return PLACE + keep(new Made(name, type, path));
        });
    }

    /** The oldest go: a cache with a size would rather turn a new one away that nobody has asked for yet. */
    private synchronized String keep(Made file) {
        String id = UUID.randomUUID().toString();
        made.put(id, file);
        Set<String> byAge = made.policy()
                .expireAfterWrite()
                .orElseThrow()
                .oldest(Integer.MAX_VALUE)
                .keySet();
        made.invalidateAll(
                byAge.stream().limit(Math.max(0, byAge.size() - MOST)).toList());
        return id;
    }

    private static void delete(Path path) {
        try {
            Files.deleteIfExists(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static boolean isPlaceOf(String destination) {
        return destination.startsWith(PLACE);
    }

    void send(String id, HttpServletResponse response) throws IOException {
        Made file = made.getIfPresent(id);
        if (file == null) {
            throw Refusal.of(
                    "That file is gone; it was kept for %d minutes at most. Make it once more at the hand-off.",
                    KEPT.toMinutes());
        }
        Attachment.begin(response, file.name(), file.type());
        response.setContentLengthLong(Files.size(file.path()));
        Files.copy(file.path(), response.getOutputStream());
    }
}
