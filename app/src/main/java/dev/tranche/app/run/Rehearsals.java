package dev.tranche.app.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import dev.tranche.app.handoff.GcodeFiles;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.speech.Refusal;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Rehearsals that are under way, and how the last of each plan ended, for a day. */
@Service
public class Rehearsals {
    /** Each has a program of its own. */
    private static final int MOST = 3;

    private final GcodeFiles files;
    private final Rehearsed rehearsed;
    private final ThreadPoolExecutor workers =
            new ThreadPoolExecutor(0, MOST, 1, TimeUnit.MINUTES, new SynchronousQueue<>(), work -> {
                Thread thread = new Thread(work, "rehearsal");
                thread.setDaemon(true);
                return thread;
            });
    private final Cache<String, Run> runs = Caffeine.newBuilder()
            .expireAfterAccess(Duration.ofDays(1))
            .maximumSize(20)
            .removalListener((String id, Run run, RemovalCause why) -> run.cancel())
            .build();

    Rehearsals(GcodeFiles files, Rehearsed rehearsed) {
        this.rehearsed = rehearsed;
        this.files = files;
    }

    /** Begins one, in place of what there was of that plan. */
    Run start(Workpiece work, Setup setup) {
        Run run = new Run(work, setup);
        GcodeFiles.Download file = handedOff(work);
        of(work.plan().id()).ifPresent(Run::cancel);
        String machine = rehearsed.machine(work.plan());
        begin(() -> run.go(file, report -> rehearsed.keep(work.plan(), machine, report)));
        runs.put(work.plan().id(), run);
        return run;
    }

    /** Waits for one, for programs; there are no more of them at a time than of the others. */
    public Report now(Workpiece work, Setup setup) {
        Run run = new Run(work, setup);
        GcodeFiles.Download file = handedOff(work);
        try {
            begin(() -> run.go(file, report -> {})).get();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            run.cancel();
            Thread.currentThread().interrupt();
            throw new Refusal("The rehearsal was stopped.");
        }
        return run.report().orElseThrow(() -> new Refusal(run.failure().orElse("The rehearsal did not end.")));
    }

    private Future<?> begin(Runnable rehearsal) {
        try {
            return workers.submit(rehearsal);
        } catch (RejectedExecutionException e) {
            String others = runs.asMap().values().stream()
                    .filter(r -> !r.isOver())
                    .map(r -> "“" + r.subject().name() + "”")
                    .collect(Collectors.joining(", "));
            throw Refusal.of(
                    "%d rehearsals are under way already%s; stop one of them, or wait until it is over.",
                    MOST, others.isEmpty() ? "" : ", of " + others);
        }
    }

    /** The very file that is handed off. */
    private GcodeFiles.Download handedOff(Workpiece work) {
        if (work.file().isEmpty()) {
            throw new Refusal("There is no G-code yet to rehearse; give the file your slicing program wrote.");
        }
        return files.withSwaps(work);
    }

    Optional<Run> of(String plan) {
        return Optional.ofNullable(runs.getIfPresent(plan));
    }

    @PreDestroy
    void close() {
        runs.asMap().values().forEach(Run::cancel);
        workers.shutdownNow();
    }
}
