package dev.tranche.core.check;

import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.returns.Cure;
import dev.tranche.core.rig.Rig;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * A change of the plan, or of its printer, that mends a finding.
 *
 * @param label what the button says will happen
 * @param colours what becomes of the colours and their order
 * @param purge what becomes of how it is purged
 * @param plate what becomes of what stands where on the bed
 * @param rig what becomes of the printer, for all plans that are printed on it
 */
public record Fix(
        String label,
        UnaryOperator<ColourPlan> colours,
        UnaryOperator<PurgeSettings> purge,
        UnaryOperator<Plate> plate,
        Optional<UnaryOperator<Rig>> rig) {
    Fix(String label, UnaryOperator<ColourPlan> colours) {
        this(label, colours, UnaryOperator.identity(), UnaryOperator.identity(), Optional.empty());
    }

    /** A change of the plate whose copies stand as they do, and of where purge goes. */
    public static Fix of(Cure cure, Layout layout) {
        return new Fix(
                cure.label(), UnaryOperator.identity(), cure.purge(), standing(layout, cure.plate()), Optional.empty());
    }

    static Fix ofPlate(String label, Layout layout, UnaryOperator<Plate> plate) {
        return new Fix(
                label, UnaryOperator.identity(), UnaryOperator.identity(), standing(layout, plate), Optional.empty());
    }

    /** Copies stay where they stand. */
    private static UnaryOperator<Plate> standing(Layout layout, UnaryOperator<Plate> plate) {
        return p -> plate.apply(p.byHand().isEmpty() ? p.standing(layout.spots()) : p);
    }

    static Fix ofPurge(String label, UnaryOperator<PurgeSettings> purge) {
        return new Fix(label, UnaryOperator.identity(), purge, UnaryOperator.identity(), Optional.empty());
    }

    static Fix ofRig(String label, UnaryOperator<Rig> rig) {
        return new Fix(
                label, UnaryOperator.identity(), UnaryOperator.identity(), UnaryOperator.identity(), Optional.of(rig));
    }
}
