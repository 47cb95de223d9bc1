package dev.tranche.app.run;

import dev.tranche.app.handoff.GcodeFiles;
import dev.tranche.app.rehearsed.Rehearsed;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.speech.Refusal;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Rehearsals that are under way, and how the last of each plan ended. */
@Service
public class Rehearsals {
    /** Each has a program of its own. */
    private static final int MOST = 3;
    /** For one that is stopped to be gone. */
    private static final Duration ENOUGH = Duration.ofSeconds(10);

    private final GcodeFiles files;
    private final Rehearsed rehearsed;
    private final TemporaryFiles temporary;
    private final Semaphore places = new Semaphore(MOST);
    private final ExecutorService workers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "rehearsal");
        thread.setDaemon(true);
        return thread;
    });
    private final LastRuns runs = new LastRuns();

    Rehearsals(GcodeFiles files, Rehearsed rehearsed, TemporaryFiles temporary) {
        this.temporary = temporary;
        this.rehearsed = rehearsed;
        this.files = files;
    }

    /** Begins one, in place of what there was of that plan. */
    Run start(Workpiece work, Setup setup) {
        Run run = run(work, setup);
        GcodeFiles.Download file = handedOff(work);
        Optional<Run> before = of(work.plan().id()).filter(r -> !r.isOver());
        before.ifPresent(Run::cancel);
        String machine = rehearsed.machine(work.plan());
        begin(
                () -> run.go(file, temporary, report -> rehearsed.keep(work.plan(), machine, report)),
                before.isPresent() ? ENOUGH : Duration.ZERO);
        runs.put(work.plan().id(), run);
        return run;
    }

    /** Waits for one, for programs; there are no more of them at a time than of the others. */
    public Report now(Workpiece work, Setup setup) {
        Run run = run(work, setup);
        GcodeFiles.Download file = handedOff(work);
        try {
            begin(() -> run.go(file, temporary, report -> {}), Duration.ZERO).get();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            run.cancel();
            Thread.currentThread().interrupt();
            throw new Refusal("The rehearsal was stopped.");
        }
        return run.report().orElseThrow(() -> new Refusal(run.failure().orElse("The rehearsal did not end.")));
    }

    private static Run run(Workpiece work, Setup setup) {
        return new Run(work, setup.requireSwaps(work.ledger().spoolSwaps()));
    }

    /**
     * @param patience for a place to become free
     */
    private Future<?> begin(Runnable rehearsal, Duration patience) {
        if (!isPlaceWithin(patience)) {
            String others = runs.all().stream()
                    .filter(r -> !r.isOver())
                    .map(r -> "“" + r.subject().name() + "”")
                    .collect(Collectors.joining(", "));
            throw Refusal.of(
                    "%d rehearsals are under way already%s; stop one of them, or wait until it is over.",
                    MOST, others.isEmpty() ? "" : ", of " + others);
        }
        return workers.submit(() -> {
            try {
                rehearsal.run();
            } finally {
                places.release();
            }
        });
    }

    private boolean isPlaceWithin(Duration patience) {
        try {
            return places.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
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
        return runs.of(plan);
    }

    @PreDestroy
    void close() {
        runs.all().forEach(Run::cancel);
        workers.shutdownNow();
    }
}
