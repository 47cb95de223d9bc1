package dev.tranche.core.estimate;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;

/**
 * Puts a plan's ledger together: a {@link Timeline} walks the print into what happens, a {@link Tally} folds that.
 *
 * @param rig that will print it
 * @param purges how purge is computed
 * @param footprintCentre where the model's middle stands on the bed, mm; swaps start there when no file says better
 * @param terms how many, and what current costs
 * @param inNozzle the spool that the last print left there, if that is known
 */
public record Estimator(
        Rig rig, PurgeModel purges, Coordinate footprintCentre, Terms terms, Optional<SpoolId> inNozzle) {
    /**
     * @param order in which the plan's colours are printed on {@code grid}
     * @param shelf every spool the plan names
     * @param base one copy of the print without swaps, on the same grid; all copies where a file says so
     * @param file the sliced file, if it is what {@code base} came from
     */
    public Ledger ledger(
            ColourPlan plan,
            PrintOrder order,
            LayerGrid grid,
            Map<SpoolId, Spool> shelf,
            BasePrint base,
            Optional<GridMatch> file) {
        List<Pass> passes = order.passes();
        Pushes pushes = new Pushes(purges);
        Paints paints = new Paints(shelf, plan.mixtures(), grid);
        Optional<Mixing> mixing = Mixing.of(rig, plan);
        Changes changes = Changes.of(passes, paints, pushes, mixing);
        // Where the file holds the swaps, it holds their tower too.
        boolean inFile = file.map(f -> f.file().changesTools()).orElse(false);
        TowerPrinting tower = inFile
                ? TowerPrinting.none(grid, rig.printer())
                : towerPrinting(pushes, changes, passes, grid, rig.printer());
        Spool first = paints.at(passes.get(0).spool(), passes.get(0).layer());
        Optional<Cleared> cleared = inNozzle.filter(s -> !s.equals(first.id()))
                .map(shelf::get)
                .map(out -> new Cleared(out, first, pushes.between(out, first)));
        List<SpoolId> sequence = Stream.concat(Stream.of(passes.get(0)), changes.all().stream())
                .map(Pass::spool)
                .toList();
        Loading loading = mixing.map(m -> m.loading(rig.rack().size(), sequence))
                .orElseGet(() -> Loading.of(rig.rack(), sequence));
        Stops stops = new Stops(
                rig, plan, grid, loading, pushes, file, footprintCentre, cleared, changes, mixing, new DryRuns(rig));
        BasePrint all = base.source() == BasePrint.Source.MODEL ? base.times(terms.copies()) : base;
        Tally tally = Tally.of(
                Timeline.of(
                        passes, grid, paints, all, tower, stops, plan.halts().on(grid)),
                plan.palette(),
                paints,
                grid.count());
        return new Ledger(
                all,
                tally.firstLoad(),
                cleared,
                tally.swaps(),
                tally.pauses(),
                tally.stretches(),
                tally.uses(all.holdsTower()
                        && inFile
                        && pushes.place().towerWidth().isPresent()),
                loading,
                rig.printer().filament(),
                tally.layers(),
                tally.turns(),
                changes.feeding(),
                tower.tower(),
                terms,
                pushes.place());
    }

    /** The tower that takes the purge of an order, where the plan prints one and a sliced file holds none. */
    public static Optional<Tower> tower(
            PurgeModel purges, PrintOrder order, LayerGrid grid, Paints paints, ColourPlan plan, Rig rig) {
        Pushes pushes = new Pushes(purges);
        Changes changes = Changes.of(order.passes(), paints, pushes, Mixing.of(rig, plan));
        return towerPrinting(pushes, changes, order.passes(), grid, rig.printer())
                .tower();
    }

    private static TowerPrinting towerPrinting(
            Pushes pushes, Changes changes, List<Pass> passes, LayerGrid grid, Printer printer) {
        OptionalDouble width = pushes.place().towerWidth();
        return width.isEmpty() || changes.all().isEmpty()
                ? TowerPrinting.none(grid, printer)
                : TowerPrinting.of(
                        width.getAsDouble(),
                        passes,
                        i -> changes.before(i)
                                ? pushes.place().ontoTower(changes.purge(i).volume())
                                : Volume.NONE,
                        grid,
                        printer);
    }

    /** How a spool is named to the machine and its owner: letter and name. */
    public static String label(ColourPlan plan, Spool spool) {
        return plan.letter(spool.id()) + " " + spool.name();
    }
}
