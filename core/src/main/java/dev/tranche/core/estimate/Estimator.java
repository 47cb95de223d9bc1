package dev.tranche.core.estimate;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.MacroRenderer;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMoment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;

/**
 * Puts a plan's ledger together.
 *
 * @param printer that will print it
 * @param macro that it swaps with
 * @param purges how purge is computed
 * @param footprintCentre where the model's middle stands on the bed, mm; swaps start there when no file says better
 */
public record Estimator(Printer printer, SwapMacro macro, PurgeModel purges, Coordinate footprintCentre) {

    /**
     * @param shelf every spool the plan names
     * @param base the print without swaps, on the same grid
     * @param file the sliced file, if it is what {@code base} came from
     */
    public Ledger ledger(
            ColourPlan plan, LayerGrid grid, Map<SpoolId, Spool> shelf, BasePrint base, Optional<GridMatch> file) {
        List<Tranche> tranches = plan.tranches(grid);
        List<Swap> swaps = swaps(plan, grid, tranches, shelf, base, file);
        return new Ledger(base, swaps, uses(plan, tranches, shelf, base, swaps), printer.filament());
    }

    private List<Swap> swaps(
            ColourPlan plan,
            LayerGrid grid,
            List<Tranche> tranches,
            Map<SpoolId, Spool> shelf,
            BasePrint base,
            Optional<GridMatch> file) {
        List<Tranche> changes = new ArrayList<>();
        for (int i = 1; i < tranches.size(); i++) {
            if (!tranches.get(i).spool().equals(tranches.get(i - 1).spool())) {
                changes.add(tranches.get(i));
            }
        }
        List<Swap> swaps = new ArrayList<>();
        SpoolId loaded = tranches.get(0).spool();
        double earlier = 0;
        for (Tranche change : changes) {
            Spool out = shelf.get(loaded);
            Spool in = shelf.get(change.spool());
            Purge purge = purges.between(out, in);
            double length = printer.filament().length(purge.volume());
            int number = swaps.size() + 1;
            ControllerState entry = entry(change.firstLayer(), grid, out, file);
            SwapMoment moment = new SwapMoment(
                    number,
                    changes.size(),
                    change.firstLayer(),
                    label(plan, out),
                    label(plan, in),
                    in.temperature(),
                    length,
                    entry);
            DryRun run = DryRun.of(MacroRenderer.render(macro, printer, moment), printer, entry);
            Swap swap = new Swap(
                    number,
                    change.firstLayer(),
                    grid.bottom(change.firstLayer()),
                    out,
                    in,
                    purge,
                    length,
                    run,
                    macro.method().person().toSeconds(),
                    base.secondsUntil(change.firstLayer()) + earlier);
            swaps.add(swap);
            earlier += swap.seconds();
            loaded = change.spool();
        }
        return swaps;
    }

    /** How a spool is named to the machine and its owner: letter and name. */
    public static String label(ColourPlan plan, Spool spool) {
        return plan.letter(spool.id()) + " " + spool.name();
    }

    private ControllerState entry(int layer, LayerGrid grid, Spool out, Optional<GridMatch> file) {
        return file.flatMap(f -> f.layer(layer).door())
                .map(SlicedLayer.Door::state)
                .orElseGet(() -> ControllerState.standingAt(
                        footprintCentre.x, footprintCentre.y, grid.bottom(layer).millimetres(), out.temperature()));
    }

    private List<SpoolUse> uses(
            ColourPlan plan, List<Tranche> tranches, Map<SpoolId, Spool> shelf, BasePrint base, List<Swap> swaps) {
        Map<SpoolId, double[]> sums = new LinkedHashMap<>();
        plan.palette().forEach(id -> sums.put(id, new double[4]));
        double[] first = sums.get(tranches.get(0).spool());
        first[0] += base.before().plastic().cubicMillimetres();
        first[2] += base.before().seconds();
        for (Tranche tranche : tranches) {
            double[] sum = sums.get(tranche.spool());
            for (int layer = tranche.firstLayer(); layer <= tranche.lastLayer(); layer++) {
                sum[0] += base.layers().get(layer - 1).plastic().cubicMillimetres();
                sum[2] += base.layers().get(layer - 1).seconds();
            }
        }
        for (Swap swap : swaps) {
            double[] sum = sums.get(swap.in().id());
            sum[1] += swap.purge().volume().cubicMillimetres();
            sum[3] += swap.seconds();
        }
        List<SpoolUse> uses = new ArrayList<>();
        sums.forEach((id, sum) -> {
            if (tranches.stream().anyMatch(t -> t.spool().equals(id))) {
                uses.add(new SpoolUse(shelf.get(id), new Volume(sum[0]), new Volume(sum[1]), sum[2], sum[3]));
            }
        });
        return uses;
    }
}
