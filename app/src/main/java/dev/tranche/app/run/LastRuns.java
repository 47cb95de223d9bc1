package dev.tranche.app.run;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The last rehearsal of each plan: all that are under way, and of those that are over, which were looked at last. */
final class LastRuns {
    private static final int MOST = 20;

    /** By plan, the one looked at longest ago first. */
    private final Map<String, Run> runs = new LinkedHashMap<>(2 * MOST, 0.75f, true);

    /** Takes the place of the one before, which goes on no more. */
    synchronized void put(String plan, Run run) {
        Run before = runs.put(plan, run);
        if (before != null) {
            before.cancel();
        }
        Iterator<Run> longest = runs.values().iterator();
        while (runs.size() > MOST && longest.hasNext()) {
            if (longest.next().isOver()) {
                longest.remove();
            }
        }
    }

    synchronized Optional<Run> of(String plan) {
        return Optional.ofNullable(runs.get(plan));
    }

    synchronized List<Run> all() {
        return List.copyOf(runs.values());
    }
}
