package dev.tranche.app.work;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.core.look.Looks;
import dev.tranche.core.look.Patch;
import dev.tranche.core.look.View;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;

/** Has the finished piece of an opened plan looked at; what takes longer than a click is waited for. */
@Service
public class Looking {
    private static final long CLICK = 1_500;
    private static final long PATIENCE = 120_000;

    private final Jobs jobs;

    Looking(Jobs jobs) {
        this.jobs = jobs;
    }

    private record What(Looks looks, View view) {}

    /** What is seen; empty if that takes longer than a click, and {@link #prepare} is due. */
    public Optional<List<Patch>> at(Workpiece work, View view) {
        return ended(prepare(work, view), CLICK)
                ? Optional.of(work.looks().from(view, Progress.UNHEARD))
                : Optional.empty();
    }

    /** As {@link #at}, for what has no page to wait on. */
    public List<Patch> now(Workpiece work, View view) {
        if (!ended(prepare(work, view), PATIENCE)) {
            throw Refusal.of(
                    "%s is still being looked at; open Piece, and wait there.",
                    work.plan().name());
        }
        return work.looks().from(view, Progress.UNHEARD);
    }

    public Job prepare(Workpiece work, View view) {
        return jobs.start(
                new What(work.looks(), view), "Looking at " + work.plan().name(), progress -> {
                    work.looks().from(view, progress);
                    return Job.Work.HERE;
                });
    }

    /**
     * Looks at a piece of one colour while nobody waits: what lies behind each spot is the model's alone, so that the first other
     * colour is soon looked at.
     */
    public void ahead(Workpiece work) {
        if (work.colours().palette().size() == 1 && work.looks().isQuick()) {
            try {
                prepare(work, View.ABOVE);
                prepare(work, View.BELOW);
            } catch (Refusal busy) {
                // Whoever gives it another colour looks then.
            }
        }
    }

    private static boolean ended(Job job, long milliseconds) {
        if (!job.endsWithin(milliseconds)) {
            return false;
        }
        job.failure().ifPresent(sentence -> {
            throw new Refusal(sentence);
        });
        return true;
    }
}
