package dev.tranche.core.estimate;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.rig.Mixing.Exchange;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Optional;

/**
 * One swap of a print, or one turn from a blend to another.
 *
 * @param number of it among both, from 1: what a file's blocks and an agenda of stops know it by
 * @param moment at which its macro runs
 * @param height of the nozzle at which it happens: the top of what was printed last
 * @param within whether another colour of the same layer was printed before it
 * @param out spool that comes out, {@code in} that goes in
 * @param purge that the pair needs
 * @param pushed through; not what it needs where the machine's routine decides
 * @param ontoTower what of that is printed onto a tower
 * @param dryRun of the macro there
 * @param spared seconds that the sliced file would wait for the nozzle after it, and need not any more
 * @param startsAt seconds from the start of the print, earlier swaps and halts included
 * @param next what is printed after it
 * @param exchanges the spools that are swapped for it where a nozzle blends; nothing of any other nozzle
 * @param door where the sliced file has a place for it
 */
public record Swap(
        int number,
        Moment moment,
        Height height,
        boolean within,
        Spool out,
        Spool in,
        Purge purge,
        Volume pushed,
        Volume ontoTower,
        DryRun dryRun,
        double spared,
        double startsAt,
        Pass next,
        Optional<List<Exchange>> exchanges,
        Optional<Door> door) {

    /** “Swap 2”, counted without the turns, or “Blend” where no spool is swapped. */
    public String name() {
        return turns() ? "Blend" : "Swap " + moment.number();
    }

    /** Layer before which, or in which, it happens, from 1. */
    public int layer() {
        return moment.layer();
    }

    /** Whether somebody has to be there. */
    public boolean needsPerson() {
        return dryRun.attended();
    }

    /** Whether no spool is swapped, but the nozzle is cleared of one blend for another. */
    public boolean turns() {
        return exchanges.filter(List::isEmpty).isPresent();
    }

    /** The spool that is taken out; of several the first. */
    public SpoolId taken() {
        return exchanges.flatMap(e -> e.stream().findFirst()).map(Exchange::out).orElse(out.id());
    }

    /** The spool that is put in; of several the first. */
    public SpoolId put() {
        return exchanges.flatMap(e -> e.stream().findFirst()).map(Exchange::in).orElse(in.id());
    }

    /** What the person does at its stops. */
    public List<Duty> duties(Rig rig) {
        return rig.macros()
                .answer(Event.SWAP)
                .map(macro -> Duty.of(macro, rig.printer(), moment))
                .orElse(List.of());
    }

    public double seconds() {
        return machineSeconds() + dryRun.personSeconds();
    }

    /** The machine's own time, and what it need not wait any more taken off. */
    public double machineSeconds() {
        return dryRun.machineSeconds() - spared;
    }

    /** Where it happens, in words: “before layer 16”, or “in layer 16”. */
    public String place() {
        return (within ? "in layer " : "before layer ") + layer();
    }
}
