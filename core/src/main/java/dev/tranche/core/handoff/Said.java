package dev.tranche.core.handoff;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What its owner said of a sliced file; all else is as Tranche reads it.
 *
 * @param tools spools that its tools stand for, by the tools' numbers
 * @param stops what becomes of its stops, by their index
 * @param accepted findings that he knows and accepts, each by its key and how it read
 */
public record Said(Map<Integer, SpoolId> tools, Map<Integer, StopTable.Choice> stops, Set<String> accepted) {
    private static final int MOST_TOOLS = 100;
    private static final int MOST_STOPS = 1_000;
    private static final int MOST_ACCEPTED = 50;
    private static final String KEY = "[A-Za-z0-9-]{1,60}(\\.[0-9a-f]{1,8})?";

    public static final Said NOTHING = new Said(Map.of(), Map.of(), Set.of());

    public Said {
        tools = Map.copyOf(tools);
        stops = Map.copyOf(stops);
        accepted = Set.copyOf(accepted);
        if (tools.size() > MOST_TOOLS || stops.size() > MOST_STOPS || accepted.size() > MOST_ACCEPTED) {
            throw Refusal.of(
                    "More is said of the G-code than it can hold: at most %d tools, %d stops and %d findings.",
                    MOST_TOOLS, MOST_STOPS, MOST_ACCEPTED);
        }
        accepted.forEach(Said::requireFinding);
    }

    /** Refuses what cannot stand for a finding: its key, and a number for how it read. */
    public static void requireFinding(String word) {
        if (!word.matches(KEY)) {
            throw Refusal.of("“%s” is not a finding of Tranche's.", Words.quoted(word));
        }
    }

    /** With a tool given to a spool, or, without one, left to Tranche. */
    public Said tool(int tool, Optional<SpoolId> spool) {
        Map<Integer, SpoolId> changed = new TreeMap<>(tools);
        changed.remove(tool);
        spool.ifPresent(s -> changed.put(tool, s));
        return new Said(changed, stops, accepted);
    }

    /** With the same choice for stops, or none. */
    public Said stops(Collection<Integer> which, Optional<StopTable.Choice> choice) {
        Map<Integer, StopTable.Choice> changed = new TreeMap<>(stops);
        which.forEach(changed::remove);
        choice.ifPresent(c -> which.forEach(w -> changed.put(w, c)));
        return new Said(tools, changed, accepted);
    }

    /** With findings accepted. */
    public Said accepting(Collection<String> words) {
        Set<String> changed = new TreeSet<>(accepted);
        changed.addAll(words);
        return new Said(tools, stops, changed);
    }

    /** With a finding no longer accepted. */
    public Said refusing(String word) {
        Set<String> changed = new TreeSet<>(accepted);
        changed.remove(word);
        return new Said(tools, stops, changed);
    }
}
