package dev.tranche.core.check;

import dev.tranche.core.handoff.Said;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.speech.Words;
import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * Findings that a plan's owner knows and has put aside, each with why. One that reads otherwise than it did is told again.
 *
 * @param reasons by the findings' words
 */
public record Asides(Map<String, String> reasons) {
    private static final int MOST = 200;
    private static final int LONGEST = 200;

    public static final Asides NONE = new Asides(Map.of());

    public Asides {
        reasons = Collections.unmodifiableMap(new TreeMap<>(reasons));
        if (reasons.size() > MOST) {
            throw Refusal.of("At most %d findings can be put aside; bring some back first.", MOST);
        }
        reasons.forEach((word, reason) -> {
            Said.requireFinding(word);
            if (reason.isBlank() || reason.length() > LONGEST) {
                throw Refusal.of("Say in at most %d letters why it is put aside.", LONGEST);
            }
        });
    }

    public boolean hold(Finding finding) {
        return finding.severity() != Severity.STOP && reasons.containsKey(finding.word());
    }

    /** With one more put aside. */
    public Asides with(Finding finding, String reason) {
        if (finding.severity() == Severity.STOP) {
            throw new Refusal("What stops the hand-off cannot be put aside; mend it, or accept it at the hand-off.");
        }
        Map<String, String> more = new TreeMap<>(reasons);
        more.put(finding.word(), Words.oneLine(reason));
        return new Asides(more);
    }

    /** With one told again. */
    public Asides without(String word) {
        Map<String, String> fewer = new TreeMap<>(reasons);
        fewer.remove(word);
        return new Asides(fewer);
    }
}
