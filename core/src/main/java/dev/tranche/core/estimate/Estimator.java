package dev.tranche.core.estimate;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;

/**
 * Puts a plan's ledger together.
 *
 * @param rig that will print it
 * @param purges how purge is computed
 * @param footprintCentre where the model's middle stands on the bed, mm; swaps start there when no file says better
 */
public record Estimator(Rig rig, PurgeModel purges, Coordinate footprintCentre) {

    /**
     * @param shelf every spool the plan names
     * @param base the print without swaps, on the same grid
     * @param file the sliced file, if it is what {@code base} came from
     */
    public Ledger ledger(
            ColourPlan plan, LayerGrid grid, Map<SpoolId, Spool> shelf, BasePrint base, Optional<GridMatch> file) {
        return new Run(plan, grid, shelf, base, file).ledger();
    }

    /** How a spool is named to the machine and its owner: letter and name. */
    public static String label(ColourPlan plan, Spool spool) {
        return plan.letter(spool.id()) + " " + spool.name();
    }

    /** One ledger in the making: the print is walked from the bed up, and every stop delays the next. */
    private final class Run {
        private final ColourPlan plan;
        private final LayerGrid grid;
        private final Map<SpoolId, Spool> shelf;
        private final BasePrint base;
        private final Optional<GridMatch> file;
        private final List<Tranche> tranches;
        private final List<Tranche> changes = new ArrayList<>();
        private final Loading loading;
        private final List<Swap> swaps = new ArrayList<>();
        private final List<Pause> pauses = new ArrayList<>();
        private double delay;

        private Run(
                ColourPlan plan, LayerGrid grid, Map<SpoolId, Spool> shelf, BasePrint base, Optional<GridMatch> file) {
            this.plan = plan;
            this.grid = grid;
            this.shelf = shelf;
            this.base = base;
            this.file = file;
            this.tranches = plan.tranches(grid);
            for (int i = 1; i < tranches.size(); i++) {
                if (!tranches.get(i).spool().equals(tranches.get(i - 1).spool())) {
                    changes.add(tranches.get(i));
                }
            }
            this.loading = Loading.of(
                    rig.rack(),
                    Stream.concat(Stream.of(tranches.get(0)), changes.stream())
                            .map(Tranche::spool)
                            .toList());
        }

        private Ledger ledger() {
            Spool first = shelf.get(tranches.get(0).spool());
            Optional<FirstLoad> load = rig.macros().answer(Event.FIRST_LOAD).map(macro -> firstLoad(macro, first));
            delay = load.map(FirstLoad::seconds).orElse(0.0);
            List<Halt> halts =
                    plan.halts().stream().filter(h -> plan.stops(h, grid)).toList();
            Spool loaded = first;
            int halt = 0;
            for (Tranche change : changes) {
                while (halt < halts.size() && layer(halts.get(halt)) < change.firstLayer()) {
                    pause(halts, halt++, loaded, true);
                }
                boolean halted = halt < halts.size() && layer(halts.get(halt)) == change.firstLayer();
                Swap swap = swap(change, loaded);
                boolean person = swap.dryRun().personSeconds() > 0;
                if (halted) {
                    pause(halts, halt++, loaded, !person);
                    swap = swap(change, loaded);
                }
                swaps.add(swap);
                delay += swap.seconds();
                loaded = swap.in();
            }
            while (halt < halts.size()) {
                pause(halts, halt++, loaded, true);
            }
            return new Ledger(
                    base,
                    load,
                    swaps,
                    pauses,
                    uses(load),
                    loading,
                    rig.printer().filament());
        }

        private int layer(Halt halt) {
            return grid.snap(halt.wished()).layer();
        }

        private FirstLoad firstLoad(Macro macro, Spool spool) {
            Moment moment = moment(0, 1, 1, Optional.empty(), spool, 0, "");
            return new FirstLoad(moment, spool, DryRun.of(macro, rig.macros(), rig.printer(), moment));
        }

        private Swap swap(Tranche change, Spool out) {
            Spool in = shelf.get(change.spool());
            Purge purge = purges.between(out, in);
            Moment moment = moment(
                    swaps.size() + 1,
                    changes.size(),
                    change.firstLayer(),
                    Optional.of(out),
                    in,
                    rig.printer().filament().length(purge.volume()),
                    "");
            return new Swap(
                    moment,
                    grid.bottom(change.firstLayer()),
                    out,
                    in,
                    purge,
                    dryRun(Event.SWAP, moment),
                    base.secondsUntil(change.firstLayer()) + delay);
        }

        private void pause(List<Halt> halts, int index, Spool loaded, boolean stops) {
            Halt halt = halts.get(index);
            int layer = layer(halt);
            Moment moment = new Moment(
                    index + 1,
                    halts.size(),
                    layer,
                    "",
                    "",
                    loaded.temperature(),
                    rig.rack().temperature(extruder(), loaded),
                    rig.rack().extruder(extruder()).standby(),
                    0,
                    extruder(),
                    halt.note(),
                    entry(layer, loaded));
            Optional<DryRun> run = stops ? Optional.of(dryRun(Event.HALT, moment)) : Optional.empty();
            Pause pause = new Pause(moment, grid.bottom(layer), loaded, run, base.secondsUntil(layer) + delay);
            pauses.add(pause);
            delay += pause.seconds();
        }

        private DryRun dryRun(Event event, Moment moment) {
            Macro macro = rig.macros().answer(event).orElseGet(() -> Macro.of(event));
            return DryRun.of(macro, rig.macros(), rig.printer(), moment);
        }

        private int extruder() {
            return loading.stages().get(swaps.size()).extruder();
        }

        private Moment moment(int number, int of, int layer, Optional<Spool> out, Spool in, double purge, String note) {
            int extruder = loading.stages().get(number).extruder();
            return new Moment(
                    Math.max(1, number),
                    of,
                    layer,
                    out.map(s -> label(plan, s)).orElse(""),
                    label(plan, in),
                    out.map(Spool::temperature).orElse(0),
                    rig.rack().temperature(extruder, in),
                    rig.rack().extruder(extruder).standby(),
                    purge,
                    extruder,
                    note,
                    entry(layer, out.orElse(in)));
        }

        private ControllerState entry(int layer, Spool loaded) {
            return file.flatMap(f -> f.layer(layer).door())
                    .map(SlicedLayer.Door::state)
                    .orElseGet(() -> ControllerState.standingAt(
                            footprintCentre.x,
                            footprintCentre.y,
                            grid.bottom(layer).millimetres(),
                            loaded.temperature()));
        }

        private List<SpoolUse> uses(Optional<FirstLoad> load) {
            Map<SpoolId, double[]> sums = new LinkedHashMap<>();
            plan.palette().forEach(id -> sums.put(id, new double[4]));
            double[] first = sums.get(tranches.get(0).spool());
            first[0] += base.before().plastic().cubicMillimetres();
            first[2] += base.before().seconds();
            first[3] += load.map(FirstLoad::seconds).orElse(0.0);
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
            for (Pause pause : pauses) {
                sums.get(pause.loaded().id())[3] += pause.seconds();
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
}
