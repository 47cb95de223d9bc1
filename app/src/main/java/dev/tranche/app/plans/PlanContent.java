package dev.tranche.app.plans;

import dev.tranche.core.plan.ColourPlan;

/**
 * What undo and redo go back and forth through.
 *
 * @param colours by height
 * @param printer id of the printer that will print it
 */
public record PlanContent(ColourPlan colours, long printer) {
    PlanContent withColours(ColourPlan changed) {
        return new PlanContent(changed, printer);
    }
}
