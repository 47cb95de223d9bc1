package dev.tranche.core.units;

import java.util.concurrent.CancellationException;

/** Where long work says how far it is, and learns that it is no longer wanted. Called from any thread. */
@FunctionalInterface
public interface Progress {
    /** Listens to nothing and never cancels. */
    Progress UNHEARD = (done, total) -> {};

    /**
     * @param done units of work finished so far
     * @param total all units of work; not less than {@code done}
     * @throws CancellationException if the work is to stop; the worker lets it pass and keeps nothing
     */
    void at(long done, long total);
}
