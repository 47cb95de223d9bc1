package dev.tranche.core.job;

import dev.tranche.core.estimate.QuietTime;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.rig.Rig;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a print is reckoned from.
 *
 * @param planId as stamped into files
 * @param colouring of the plan's model in its colours
 * @param partNames what the parts are called, one a part
 * @param purge how it is purged, and {@code measured} what was measured on the printer
 * @param rig that prints it
 * @param shelf every spool the plan names, and its mixtures as the spools they would be
 * @param atHand spools on the shelf now, whether the plan names them or not
 * @param file the sliced file, if there is one, and {@code said} what its owner said of it
 * @param rearranging what came of printing it in the plan's order
 * @param terms copies and current
 * @param plate where the copies stand, and {@code footprint} what one of them covers
 * @param start by the clock, if it has one, and {@code quiet} when nobody is at the machine
 * @param written the state that the last file written for this plan holds
 * @param inNozzle the spool that the last print left in the printer's nozzle, if that is known
 * @param rehearsed what was not as planned when it was rehearsed as it is, if anything
 */
public record Brief(
        String planId,
        Colouring colouring,
        List<String> partNames,
        PurgeSettings purge,
        List<MeasuredPurge> measured,
        Rig rig,
        Map<SpoolId, Spool> shelf,
        List<SpoolId> atHand,
        Optional<SlicedFile> file,
        Said said,
        Rearranging rearranging,
        Terms terms,
        Plate plate,
        Footprint footprint,
        Optional<ZonedDateTime> start,
        List<QuietTime> quiet,
        Optional<String> written,
        Optional<SpoolId> inNozzle,
        Optional<String> rehearsed) {
    public Brief {
        shelf = colouring.plan().mixtures().onto(shelf);
        atHand = List.copyOf(atHand);
    }

    /** The same when it is known in which order the file is printed. */
    public Brief with(Rearranging other) {
        return new Brief(
                planId, colouring, partNames, purge, measured, rig, shelf, atHand, file, said, other, terms, plate,
                footprint, start, quiet, written, inNozzle, rehearsed);
    }

    /** The file as it is printed. */
    Optional<SlicedFile> printed() {
        return rearranging.made().map(Rearranged::file).or(() -> file);
    }

    /** What it is printed with. */
    public Paints paints() {
        return new Paints(shelf, plan().mixtures(), colouring.model().grid());
    }

    ColourPlan plan() {
        return colouring.plan();
    }
}
