package dev.tranche.core.speech;

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

    /**
     * Says that the work goes on where nothing can be counted.
     *
     * @throws CancellationException if the work is to stop
     */
    default void beat() {}

    /**
     * The listener for one part of the work: what it hears of that part it tells as part of the whole.
     *
     * @param before units of the whole that are done before the part begins
     * @param whole units of the whole
     */
    default Progress part(long before, long whole) {
        Progress listener = this;
        return new Progress() {
            @Override
            public void at(long done, long total) {
                listener.at(before + done, whole);
            }

            @Override
            public void beat() {
                listener.beat();
            }
        };
    }
}
