package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.units.Height;

/**
 * One swap of a print.
 *
 * @param number from 1
 * @param layer before which it happens, from 1
 * @param height at which it happens: the top of the layer below
 * @param out spool that comes out, {@code in} that goes in
 * @param purge to push through, {@code purgeLength} the same in mm of filament
 * @param dryRun of the macro there
 * @param personSeconds what the person takes
 * @param startsAt seconds from the start of the print, earlier swaps included
 */
public record Swap(
        int number,
        int layer,
        Height height,
        Spool out,
        Spool in,
        Purge purge,
        double purgeLength,
        DryRun dryRun,
        double personSeconds,
        double startsAt) {

    public double seconds() {
        return dryRun.machineSeconds() + personSeconds;
    }
}
