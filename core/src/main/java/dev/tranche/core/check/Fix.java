package dev.tranche.core.check;

import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.purge.PurgeSettings;
import java.util.function.UnaryOperator;

/**
 * A change of the plan that mends a finding.
 *
 * @param label what the button says will happen
 * @param colours what becomes of the colours and their order
 * @param purge what becomes of how it is purged
 */
public record Fix(String label, UnaryOperator<ColourPlan> colours, UnaryOperator<PurgeSettings> purge) {
    Fix(String label, UnaryOperator<ColourPlan> colours) {
        this(label, colours, UnaryOperator.identity());
    }

    static Fix ofPurge(String label, UnaryOperator<PurgeSettings> purge) {
        return new Fix(label, UnaryOperator.identity(), purge);
    }
}
