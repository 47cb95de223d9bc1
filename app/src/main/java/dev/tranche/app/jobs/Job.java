package dev.tranche.app.jobs;

import dev.tranche.core.speech.Progress;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/** Work that takes longer than a click: how far it is, how it ended, and a way to stop it. */
public final class Job implements Progress {
    private final String id;
    private final String title;
    private final CountDownLatch ended = new CountDownLatch(1);
    private volatile long done;
    private volatile long total = 1;
    private volatile boolean cancelled;
    private volatile String destination;
    private volatile String failure;

    Job(String id, String title) {
        this.id = id;
        this.title = title;
    }

    /** What a job does; it answers the page to go to when it is done, or {@link #HERE}. */
    @FunctionalInterface
    public interface Work {
        /** The page that waits is the one to show. */
        String HERE = "";

        String run(Progress progress) throws Exception;
    }

    @Override
    public void at(long nowDone, long ofTotal) {
        beat();
        done = nowDone;
        total = Math.max(1, ofTotal);
    }

    @Override
    public void beat() {
        if (cancelled) {
            throw new CancellationException();
        }
    }

    synchronized void succeed(String page) {
        if (!isOver()) {
            destination = page;
            ended.countDown();
        }
    }

    synchronized void fail(String sentence) {
        if (!isOver()) {
            failure = sentence;
            ended.countDown();
        }
    }

    /** It is over at once for whoever waits; the work itself stops when it next says where it is. */
    void cancel() {
        cancelled = true;
        fail("Cancelled; nothing was changed.");
    }

    public boolean isCancelled() {
        return cancelled;
    }

    public boolean isOver() {
        return ended.getCount() == 0;
    }

    /** Waits a moment, so that short work needs no progress bar. */
    public boolean endsWithin(long milliseconds) {
        try {
            return ended.await(milliseconds, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    public String id() {
        return id;
    }

    public String title() {
        return title;
    }

    public long done() {
        return done;
    }

    public long total() {
        return total;
    }

    public Optional<String> destination() {
        return Optional.ofNullable(destination);
    }

    public Optional<String> failure() {
        return Optional.ofNullable(failure);
    }
}
