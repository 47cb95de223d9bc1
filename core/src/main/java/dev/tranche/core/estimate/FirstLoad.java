package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Rig;
import java.util.List;

/**
 * The first load of a print, where the printer has a macro for it. It is no swap.
 *
 * @param moment before layer 1
 * @param spool that goes in
 * @param dryRun of the macro there
 */
public record FirstLoad(Moment moment, Spool spool, DryRun dryRun) {
    /** What the person does at its stops. */
    public List<Duty> duties(Rig rig) {
        return rig.macros()
                .answer(Event.FIRST_LOAD)
                .map(macro -> Duty.of(macro, rig.printer(), moment))
                .orElse(List.of());
    }

    public double seconds() {
        return dryRun.seconds();
    }
}
