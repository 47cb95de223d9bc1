package dev.tranche.app;

import org.apache.catalina.Lifecycle;
import org.apache.catalina.LifecycleException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Opens the door again when a thread has died that lets requests in. Where a file takes the last of the memory, the error can meet
 * any thread; the web server gives those of its door up, and would answer nobody any more.
 */
final class Doorkeeper implements Thread.UncaughtExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(Doorkeeper.class);
    /** Until what took the memory has been told so and let go of it, ms. */
    private static final long PATIENCE = 500;
    /** What opening takes, amply. */
    private static final int ROOM = 4 << 20;

    private final Lifecycle door;
    private long opened = Long.MIN_VALUE;

    /** @param door where requests come in */
    Doorkeeper(Lifecycle door) {
        this.door = door;
    }

    @Override
    public void uncaughtException(Thread thread, Throwable error) {
        boolean letsIn =
                thread.getName().endsWith("-Acceptor") || thread.getName().endsWith("-Poller");
        if (letsIn) {
            reopen(System.nanoTime());
        }
        LOG.error("“{}” ended{}", thread.getName(), letsIn ? "; requests are let in again" : "", error);
    }

    /** @param since when it stands open no longer; both of its threads may have died at once */
    private synchronized void reopen(long since) {
        if (opened > since) {
            return;
        }
        try {
            do {
                Thread.sleep(PATIENCE);
            } while (!hasRoom());
            door.stop();
            door.start();
            opened = System.nanoTime();
        } catch (InterruptedException closing) {
            Thread.currentThread().interrupt();
        } catch (LifecycleException e) {
            throw new IllegalStateException(e);
        }
    }

    private static boolean hasRoom() {
        try {
            return new byte[ROOM].length == ROOM;
        } catch (OutOfMemoryError notYet) {
            return false;
        }
    }
}
