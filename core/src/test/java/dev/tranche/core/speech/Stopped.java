package dev.tranche.core.speech;

import java.util.concurrent.CancellationException;

/** Hears of work that was cancelled before it began, for tests. */
public final class Stopped implements Progress {
    @Override
    public void at(long done, long total) {
        beat();
    }

    @Override
    public void beat() {
        throw new CancellationException();
    }
}
