package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.concurrent.atomic.AtomicLong;

/**
 * What a piece of work may cost where its input decides: the places where lines cross, and how many pairs of lines have
 * to be looked at to find them. Shared by the threads that do the work; stops with it when it is cancelled.
 */
public final class Effort {
    private static final int STEPS_A_BEAT = 1 << 12;
    /** Lines that only come near one another: looking is cheaper than breaking, and ordinary outlines need little. */
    private static final int LOOKS_A_CROSSING = 40;

    private final long most;
    private final String refusal;
    private final Progress progress;
    private final AtomicLong crossings = new AtomicLong();
    private final AtomicLong looks = new AtomicLong();
    private final AtomicLong steps = new AtomicLong();

    /**
     * @param most places where lines may cross
     * @param refusal the sentence for work with more of them
     * @param progress learns that the work goes on, and may stop it
     */
    public Effort(long most, String refusal, Progress progress) {
        this.most = most;
        this.refusal = refusal;
        this.progress = progress;
    }

    /** @throws Refusal if there are too many by now */
    void crossing() {
        if (crossings.incrementAndGet() > most) {
            throw new Refusal(refusal);
        }
    }

    /** One pair of lines. */
    void look() {
        long now = looks.incrementAndGet();
        if (now > most * LOOKS_A_CROSSING) {
            throw new Refusal(refusal);
        }
        if (now % STEPS_A_BEAT == 0) {
            progress.beat();
        }
    }

    /** One small step, of which any number are allowed. */
    void step() {
        steps(1);
    }

    /** As many small steps, of which any number are allowed. */
    void steps(int count) {
        long now = steps.addAndGet(count);
        if (now / STEPS_A_BEAT != (now - count) / STEPS_A_BEAT) {
            progress.beat();
        }
    }
}
