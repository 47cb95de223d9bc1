package dev.tranche.app.plans;

import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.purge.PurgeSettings;

/**
 * What undo and redo go back and forth through.
 *
 * @param colours by height
 * @param purge how it wants to be purged
 * @param printer id of the printer that will print it
 */
public record PlanContent(ColourPlan colours, PurgeSettings purge, long printer) {
    PlanContent withColours(ColourPlan changed) {
        return new PlanContent(changed, purge, printer);
    }
}
