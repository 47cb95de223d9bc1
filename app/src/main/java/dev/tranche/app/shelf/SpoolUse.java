package dev.tranche.app.shelf;

import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.List;

/** Who would miss a spool that was taken off the shelf. */
public interface SpoolUse {
    /** Names of the plans that print with {@code spool}; of a variant with its plan's before it. */
    List<String> using(SpoolId spool);

    /** @throws Refusal where plans print with it, with their names */
    default void requireUnused(SpoolId spool) {
        List<String> users = using(spool);
        if (!users.isEmpty()) {
            throw new Refusal(
                    "This spool is part of " + Words.some(users) + "; give those colours another spool first.");
        }
    }
}
