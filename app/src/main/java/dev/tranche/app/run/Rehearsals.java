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
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
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
    Run start(Workpiece work, Setup setup) throws IOException {
        Run run = new Run(work, setup);
        of(work.plan().id()).ifPresent(Run::cancel);
        Path file = written(work);
        String machine = rehearsed.machine(work.plan());
        try {
            workers.execute(() -> {
                run.go(file);
                run.verdict().ifPresent(report -> rehearsed.keep(work.plan(), machine, report));
            });
        } catch (RejectedExecutionException e) {
            Files.delete(file);
            String others = runs.asMap().values().stream()
                    .filter(r -> !r.isOver())
                    .map(r -> "“" + r.subject().name() + "”")
                    .collect(Collectors.joining(", "));
            throw Refusal.of(
                    "%d rehearsals are under way already, of %s; stop one of them, or wait until it is over.",
                    MOST, others);
        }
        runs.put(work.plan().id(), run);
        return run;
    }

    /** Does one here and now, for programs. */
    public Report now(Workpiece work, Setup setup) throws IOException {
        Run run = new Run(work, setup);
        run.go(written(work));
        return run.report().orElseThrow(() -> new Refusal(run.failure().orElse("The rehearsal did not end.")));
    }

    /** The very file that is handed off. */
    private Path written(Workpiece work) throws IOException {
        if (work.file().isEmpty()) {
            throw new Refusal("There is no G-code yet to rehearse; give the file your slicing program wrote.");
        }
        Path file = Files.createTempFile("rehearsal", ".gcode");
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16)) {
            files.withSwaps(work).writeTo(out);
        } catch (RuntimeException | IOException e) {
            Files.delete(file);
            throw e;
        }
        return file;
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
