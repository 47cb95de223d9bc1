package dev.tranche.core.estimate;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Duty;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;

/**
 * One halt of a print.
 *
 * @param moment at which its macro runs
 * @param height at which it happens: the top of the layer below
 * @param within whether it comes inside the layer, for a swap there
 * @param door where the sliced file has a place for it; empty where that is where its layer begins
 * @param loaded the spool that stays in
 * @param dryRun of the macro there; empty where a swap before the same layer waits for a person anyway
 * @param startsAt seconds from the start of the print, earlier swaps and halts included
 */
public record Pause(
        Moment moment,
        Height height,
        boolean within,
        Optional<Door> door,
        Spool loaded,
        Optional<DryRun> dryRun,
        double startsAt) {

    /** From 1. */
    public int number() {
        return moment.number();
    }

    /** “Halt 2”. */
    public String name() {
        return "Halt " + number();
    }

    /** Layer before which it happens, from 1. */
    public int layer() {
        return moment.layer();
    }

    /** What it is for. */
    public String note() {
        return moment.note();
    }

    /** What the person does at its stops. */
    public List<Duty> duties(Rig rig) {
        return rig.macros()
                .answer(Event.HALT)
                .filter(macro -> dryRun.isPresent())
                .map(macro -> Duty.of(macro, rig.printer(), moment))
                .orElse(List.of());
    }

    public double seconds() {
        return dryRun.map(DryRun::seconds).orElse(0.0);
    }
}
