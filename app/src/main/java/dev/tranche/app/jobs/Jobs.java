package dev.tranche.app.jobs;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.core.units.Refusal;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/** Runs long work, two pieces at a time, and remembers for an hour how it ended. */
@Service
public class Jobs {
    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);

    private final ExecutorService workers = Executors.newFixedThreadPool(2);
    private final Cache<String, Job> jobs = Caffeine.newBuilder()
            .expireAfterWrite(Duration.ofHours(1))
            .maximumSize(1_000)
            .build();

    public Job start(String title, Job.Work work) {
        Job job = new Job(UUID.randomUUID().toString(), title);
        jobs.put(job.id(), job);
        workers.submit(() -> run(job, work));
        return job;
    }

    private static void run(Job job, Job.Work work) {
        try {
            job.succeed(work.run(job));
        } catch (Refusal refusal) {
            job.fail(refusal.getMessage());
        } catch (CancellationException e) {
            job.fail("Cancelled; nothing was changed.");
        } catch (OutOfMemoryError e) {
            job.fail("There is not enough memory for this file; close other programs, or start Tranche with more.");
        } catch (Exception e) {
            LOG.error("Job failed: {}", job.title(), e);
            job.fail("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
        }
    }

    public Optional<Job> find(String id) {
        return Optional.ofNullable(jobs.getIfPresent(id));
    }

    @PreDestroy
    void close() {
        workers.shutdownNow();
    }
}
