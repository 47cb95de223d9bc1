package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.Spool;

/**
 * The first load of a print, where the printer has a macro for it. It is no swap.
 *
 * @param moment before layer 1
 * @param spool that goes in
 * @param dryRun of the macro there
 */
public record FirstLoad(Moment moment, Spool spool, DryRun dryRun) {
    public double seconds() {
        return dryRun.seconds();
    }
}
