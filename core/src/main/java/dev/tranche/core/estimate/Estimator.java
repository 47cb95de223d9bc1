package dev.tranche.core.estimate;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
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
        List<Pass> changes = order.swaps();
        Pushes pushes = new Pushes(purges);
        // Where the file holds the swaps, it holds their tower too.
        boolean inFile = file.map(f -> f.file().changesTools()).orElse(false);
        TowerPrinting tower = inFile
                ? TowerPrinting.none(grid, rig.printer())
                : towerPrinting(pushes, order, grid, shelf, rig.printer());
        Loading loading = Loading.of(
                rig.rack(),
                Stream.concat(Stream.of(passes.get(0)), changes.stream())
                        .map(Pass::spool)
                        .toList());
        Spool first = shelf.get(passes.get(0).spool());
        Optional<Cleared> cleared = inNozzle.filter(s -> !s.equals(first.id()))
                .map(shelf::get)
                .map(out -> new Cleared(out, first, pushes.between(out, first)));
        Stops stops = new Stops(rig, plan, grid, loading, pushes, file, footprintCentre, cleared, new DryRuns(rig));
        BasePrint all = base.source() == BasePrint.Source.MODEL ? base.times(terms.copies()) : base;
        Tally tally = Tally.of(
                Timeline.of(passes, grid, shelf, all, tower, stops, plan.halts().on(grid)),
                plan.palette(),
                shelf,
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
                tower.tower(),
                terms,
                pushes.place());
    }

    /** The tower that takes the purge of an order, where the plan prints one and a sliced file holds none. */
    public static Optional<Tower> tower(
            PurgeModel purges, PrintOrder order, LayerGrid grid, Map<SpoolId, Spool> shelf, Printer printer) {
        return towerPrinting(new Pushes(purges), order, grid, shelf, printer).tower();
    }

    private static TowerPrinting towerPrinting(
            Pushes pushes, PrintOrder order, LayerGrid grid, Map<SpoolId, Spool> shelf, Printer printer) {
        OptionalDouble width = pushes.place().towerWidth();
        return width.isEmpty() || order.swaps().isEmpty()
                ? TowerPrinting.none(grid, printer)
                : TowerPrinting.of(
                        width.getAsDouble(),
                        order.passes(),
                        (out, in) -> pushes.place()
                                .ontoTower(pushes.between(shelf.get(out), shelf.get(in))
                                        .volume()),
                        grid,
                        printer);
    }

    /** How a spool is named to the machine and its owner: letter and name. */
    public static String label(ColourPlan plan, Spool spool) {
        return plan.letter(spool.id()) + " " + spool.name();
    }
}
