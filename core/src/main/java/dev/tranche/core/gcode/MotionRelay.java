package dev.tranche.core.gcode;

import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * Hands moves on to a {@link MotionClock} in batches, so that one thread reads while another clocks. Where there are few
 * moves no second thread is begun. Not for two readers.
 */
final class MotionRelay implements AutoCloseable {
    private static final int ROOM = 4096;
    private static final int FIELDS = 8;
    /** Stands where a path would, for a pause. */
    private static final double PAUSE = -1;

    private final MotionClock clock;
    private Batch filling = new Batch();
    private Batch spare = new Batch();
    private ExecutorService other;
    private Future<?> clocking;

    private static final class Batch {
        final double[] fields = new double[ROOM * FIELDS];
        final int[] accounts = new int[ROOM];
        int size;
    }

    MotionRelay(MotionClock clock) {
        this.clock = clock;
    }

    /** As {@link MotionClock#move}. */
    void move(double dx, double dy, double dz, double de, double path, double chord, double asked, double a, int to) {
        if (filling.size == ROOM) {
            handOver();
        }
        Batch batch = filling;
        double[] f = batch.fields;
        int at = batch.size * FIELDS;
        f[at] = dx;
        f[at + 1] = dy;
        f[at + 2] = dz;
        f[at + 3] = de;
        f[at + 4] = path;
        f[at + 5] = chord;
        f[at + 6] = asked;
        f[at + 7] = a;
        batch.accounts[batch.size++] = to;
    }

    /** As {@link MotionClock#pause}. */
    void pause(double seconds, int to) {
        move(0, 0, 0, 0, PAUSE, 0, seconds, 0, to);
    }

    /** Everything handed on is clocked to its end, and {@link MotionClock#seconds} complete. */
    void finish() {
        await();
        clock(filling);
        clock.stop();
    }

    private void handOver() {
        await();
        if (other == null) {
            other = Executors.newSingleThreadExecutor(work -> {
                Thread thread = new Thread(work, "motion");
                thread.setDaemon(true);
                return thread;
            });
        }
        Batch full = filling;
        filling = spare;
        spare = full;
        clocking = other.submit(() -> clock(full));
    }

    private void await() {
        if (clocking != null) {
            try {
                clocking.get();
            } catch (ExecutionException e) {
                throw new IllegalStateException(e.getCause());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("interrupted while moves were clocked", e);
            }
            clocking = null;
        }
    }

    private void clock(Batch batch) {
        double[] f = batch.fields;
        for (int i = 0, at = 0; i < batch.size; i++, at += FIELDS) {
            if (f[at + 4] == PAUSE) {
                clock.pause(f[at + 6], batch.accounts[i]);
            } else {
                clock.move(
                        f[at],
                        f[at + 1],
                        f[at + 2],
                        f[at + 3],
                        f[at + 4],
                        f[at + 5],
                        f[at + 6],
                        f[at + 7],
                        batch.accounts[i]);
            }
        }
        batch.size = 0;
    }

    @Override
    public void close() {
        if (other != null) {
            other.shutdownNow();
        }
    }
}
