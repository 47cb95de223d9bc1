package dev.tranche.app.plans;

import dev.tranche.core.geometry.Placement;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.purge.PurgeSettings;

/**
 * What undo and redo go back and forth through.
 *
 * @param colours by height
 * @param purge how it wants to be purged
 * @param printer id of the printer that will print it
 * @param placement how the model is scaled and which way it lies
 */
public record PlanContent(ColourPlan colours, PurgeSettings purge, long printer, Placement placement) {
    /** A model as its file has it. */
    public PlanContent(ColourPlan colours, PurgeSettings purge, long printer) {
        this(colours, purge, printer, Placement.AS_IS);
    }

    public PlanContent with(ColourPlan changed) {
        return new PlanContent(changed, purge, printer, placement);
    }

    public PlanContent with(PurgeSettings changed) {
        return new PlanContent(colours, changed, printer, placement);
    }

    public PlanContent on(long otherPrinter) {
        return new PlanContent(colours, purge, otherPrinter, placement);
    }

    /**
     * The model placed otherwise. Heights of colours and halts move along where it is scaled as it lies; where it
     * is laid on another side they stay, as nobody but its owner knows where they belong now.
     */
    public PlanContent with(Placement other) {
        boolean upright = placement.downX() == 0 && placement.downY() == 0;
        boolean along = placement.liesAs(other) && (upright || placement.scalesEvenly() && other.scalesEvenly());
        double factor = other.scaleZ() / placement.scaleZ();
        return new PlanContent(along && factor != 1 ? colours.scaledBy(factor) : colours, purge, printer, other);
    }
}
