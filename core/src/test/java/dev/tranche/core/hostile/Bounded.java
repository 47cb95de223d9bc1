package dev.tranche.core.hostile;

import dev.tranche.core.speech.Progress;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;

/** Hears how much work is done, and fails a test whose work has no end; or cancels it at once. */
final class Bounded implements Progress {
    private final long most;
    private final AtomicLong heard = new AtomicLong();
    private volatile boolean cancelled;

    private Bounded(long most) {
        this.most = most;
    }

    static Bounded by(long most) {
        return new Bounded(most);
    }

    static Bounded cancelledAfter(long heard) {
        Bounded bounded = new Bounded(heard);
        bounded.cancelled = true;
        return bounded;
    }

    @Override
    public void at(long done, long total) {
        beat();
    }

    @Override
    public void beat() {
        if (heard.incrementAndGet() > most) {
            if (cancelled) {
                throw new CancellationException();
            }
            throw new AssertionError("more work than " + most + " beats: it grows faster than the file");
        }
    }

    long heard() {
        return heard.get();
    }
}
