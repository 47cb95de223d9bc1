package dev.tranche.core.check;

import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.returns.Cure;
import java.util.function.UnaryOperator;

/**
 * A change of the plan that mends a finding.
 *
 * @param label what the button says will happen
 * @param colours what becomes of the colours and their order
 * @param purge what becomes of how it is purged
 * @param plate what becomes of what stands where on the bed
 */
public record Fix(
        String label,
        UnaryOperator<ColourPlan> colours,
        UnaryOperator<PurgeSettings> purge,
        UnaryOperator<Plate> plate) {
    Fix(String label, UnaryOperator<ColourPlan> colours) {
        this(label, colours, UnaryOperator.identity(), UnaryOperator.identity());
    }

    /** A change of the plate whose copies stand as they do, and of where purge goes. */
    public static Fix of(Cure cure, Layout layout) {
        return new Fix(cure.label(), UnaryOperator.identity(), cure.purge(), standing(layout, cure.plate()));
    }

    static Fix ofPlate(String label, Layout layout, UnaryOperator<Plate> plate) {
        return new Fix(label, UnaryOperator.identity(), UnaryOperator.identity(), standing(layout, plate));
    }

    /** Copies stay where they stand. */
    private static UnaryOperator<Plate> standing(Layout layout, UnaryOperator<Plate> plate) {
        return p -> plate.apply(p.byHand().isEmpty() ? p.standing(layout.spots()) : p);
    }

    static Fix ofPurge(String label, UnaryOperator<PurgeSettings> purge) {
        return new Fix(label, UnaryOperator.identity(), purge, UnaryOperator.identity());
    }
}
