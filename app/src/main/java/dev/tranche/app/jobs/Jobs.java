package dev.tranche.app.jobs;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/**
 * Runs long work in a few threads of its own, and remembers for an hour how it ended. What is asked for while it is
 * under way is not begun again; what would wait too long is refused.
 */
@Service
public class Jobs {
    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
    /** More than there are cores, so that two large files do not keep all small ones waiting. */
    private static final int WORKERS = Math.max(4, Runtime.getRuntime().availableProcessors());

    private static final int MOST_WAITING = 60;

    /** What is said where memory ran out. */
    public static final String NO_MEMORY =
            "There is not enough memory for this; give something smaller, or start Tranche with more memory: "
                    + "TRANCHE_JAVA_OPTIONS=-Xmx2g ./tranche start takes 2 GB.";

    private final ThreadPoolExecutor workers = new ThreadPoolExecutor(
            WORKERS, WORKERS, 1, TimeUnit.MINUTES, new ArrayBlockingQueue<>(MOST_WAITING), Jobs::thread);
    /** How work ended. */
    private final Cache<String, Job> ended = Caffeine.newBuilder()
            .expireAfterWrite(Duration.ofHours(1))
            .maximumSize(100_000)
            .build();
    /** By what it is. */
    private final Map<Object, Job> underWay = new HashMap<>();

    Jobs() {
        workers.allowCoreThreadTimeOut(true);
    }

    private static Thread thread(Runnable work) {
        Thread thread = new Thread(work, "work");
        thread.setDaemon(true);
        return thread;
    }

    public Job start(String title, Job.Work work) {
        return start(new Object(), title, work);
    }

    /**
     * @param what the work is, by {@code equals}: while it is under way it is not begun again
     * @throws Refusal if too much is waiting already
     */
    public synchronized Job start(Object what, String title, Job.Work work) {
        Job running = underWay.get(what);
        if (running != null) {
            if (!running.isOver()) {
                return running;
            }
            ended.put(running.id(), running);
        }
        Job job = new Job(UUID.randomUUID().toString(), title);
        try {
            workers.execute(() -> run(what, job, work));
        } catch (RejectedExecutionException e) {
            throw Refusal.of(
                    "Tranche is busy with %d pieces of work; wait until some are done, or cancel them.", MOST_WAITING);
        }
        underWay.put(what, job);
        return job;
    }

    /** Work whose result a request cannot do without. */
    @FunctionalInterface
    public interface Result<T> {
        T get(Progress progress) throws Exception;
    }

    /**
     * Does work here as anywhere else, and waits for what comes of it; it is stopped when that takes too long.
     *
     * @throws Refusal if the work is refused, or takes over {@code seconds}
     */
    public <T> T await(String title, int seconds, Result<T> result) {
        AtomicReference<T> got = new AtomicReference<>();
        Job job = start(title, progress -> {
            got.set(result.get(progress));
            return Job.Work.HERE;
        });
        if (!job.endsWithin(seconds * 1000L)) {
            job.cancel();
            throw Refusal.of("%s took over %d s and was stopped; give something simpler.", title, seconds);
        }
        job.failure().ifPresent(sentence -> {
            throw new Refusal(sentence);
        });
        return got.get();
    }

    private void run(Object what, Job job, Job.Work work) {
        try {
            job.beat();
            job.succeed(work.run(job));
        } catch (Refusal refusal) {
            job.fail(refusal.getMessage());
        } catch (CancellationException e) {
            job.fail("Cancelled; nothing was changed.");
        } catch (OutOfMemoryError e) {
            job.fail(NO_MEMORY);
        } catch (Throwable e) {
            if (!job.isCancelled()) {
                LOG.error("Job failed: {}", job.title(), e);
            }
            job.fail("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
        } finally {
            synchronized (this) {
                ended.put(job.id(), job);
                underWay.remove(what, job);
            }
        }
    }

    public synchronized Optional<Job> find(String id) {
        return underWay.values().stream()
                .filter(j -> j.id().equals(id))
                .findFirst()
                .or(() -> Optional.ofNullable(ended.getIfPresent(id)));
    }

    @PreDestroy
    void close() {
        workers.shutdownNow();
    }
}
