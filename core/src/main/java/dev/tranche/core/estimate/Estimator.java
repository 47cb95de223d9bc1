package dev.tranche.core.estimate;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
     * @param order in which the plan's colours are printed on {@code grid}
     * @param shelf every spool the plan names
     * @param base the print without swaps, on the same grid
     * @param file the sliced file, if it is what {@code base} came from
     */
    public Ledger ledger(
            ColourPlan plan,
            PrintOrder order,
            LayerGrid grid,
            Map<SpoolId, Spool> shelf,
            BasePrint base,
            Optional<GridMatch> file) {
        return new Run(plan, order, grid, shelf, base, file).ledger();
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
        private final List<Pass> passes;
        private final List<Pass> changes;
        private final Loading loading;
        private final double[] until;
        private final List<Swap> swaps = new ArrayList<>();
        private final List<Pause> pauses = new ArrayList<>();
        private final List<Stretch> stretches = new ArrayList<>();
        /**
         * Dry runs so far: between the same spools they differ in nothing but their height, and in what their messages
         * say, as long as there is room above and no lines of the owner's own.
         */
        private final Map<Moment, DryRun> dryRuns = new HashMap<>();

        private final Map<List<SpoolId>, Purge> between = new HashMap<>();
        private double delay;

        private Run(
                ColourPlan plan,
                PrintOrder order,
                LayerGrid grid,
                Map<SpoolId, Spool> shelf,
                BasePrint base,
                Optional<GridMatch> file) {
            this.plan = plan;
            this.grid = grid;
            this.shelf = shelf;
            this.base = base;
            this.file = file;
            this.passes = order.passes();
            this.changes = order.swaps();
            this.until = until(base);
            this.loading = Loading.of(
                    rig.rack(),
                    Stream.concat(Stream.of(passes.get(0)), changes.stream())
                            .map(Pass::spool)
                            .toList());
        }

        private static double[] until(BasePrint base) {
            double[] until = new double[base.layers().size() + 2];
            until[1] = base.before().seconds();
            for (int layer = 1; layer <= base.layers().size(); layer++) {
                until[layer + 1] = until[layer] + base.layers().get(layer - 1).seconds();
            }
            return until;
        }

        /** Seconds of printing before {@code pass}, without stops. */
        private double printedBefore(Pass pass) {
            return until[pass.layer()] + pass.from() * (until[pass.layer() + 1] - until[pass.layer()]);
        }

        private Ledger ledger() {
            Spool loaded = shelf.get(passes.get(0).spool());
            Spool first = loaded;
            Optional<FirstLoad> load = rig.macros().answer(Event.FIRST_LOAD).map(macro -> firstLoad(macro, first));
            delay = load.map(FirstLoad::seconds).orElse(0.0);
            double since = 0;
            int sinceLayer = 1;
            List<Halt> halts =
                    plan.halts().stream().filter(h -> plan.stops(h, grid)).toList();
            int halt = 0;
            int last = 1;
            for (Pass pass : passes) {
                boolean change = !pass.spool().equals(loaded.id());
                boolean halted = pass.first() && halt < halts.size() && layer(halts.get(halt)) == pass.layer();
                if (change) {
                    Swap swap = swap(pass, loaded);
                    if (halted) {
                        pause(halts, halt, loaded, !(swap.dryRun().personSeconds() > 0));
                        swap = swap(pass, loaded);
                    }
                    stretches.add(new Stretch(loaded.id(), sinceLayer, last, since, swap.startsAt()));
                    swaps.add(swap);
                    delay += swap.seconds();
                    since = swap.startsAt() + swap.seconds();
                    sinceLayer = pass.layer();
                    loaded = swap.in();
                } else if (halted) {
                    pause(halts, halt, loaded, true);
                }
                halt += halted ? 1 : 0;
                last = pass.layer();
            }
            stretches.add(new Stretch(loaded.id(), sinceLayer, last, since, until[until.length - 1] + delay));
            return new Ledger(
                    base,
                    load,
                    swaps,
                    pauses,
                    stretches,
                    uses(load),
                    loading,
                    rig.printer().filament());
        }

        private int layer(Halt halt) {
            return grid.snap(halt.wished()).layer();
        }

        private FirstLoad firstLoad(Macro macro, Spool spool) {
            Moment moment = moment(0, 1, 1, Optional.empty(), spool, 0, false);
            return new FirstLoad(moment, spool, DryRun.of(macro, rig.macros(), rig.printer(), moment));
        }

        private Swap swap(Pass change, Spool out) {
            Spool in = shelf.get(change.spool());
            boolean within = !change.first();
            Purge purge = between.computeIfAbsent(List.of(out.id(), in.id()), pair -> purges.between(out, in));
            Moment moment = moment(
                    swaps.size() + 1,
                    changes.size(),
                    change.layer(),
                    Optional.of(out),
                    in,
                    rig.printer().filament().length(purge.volume()),
                    within);
            return new Swap(
                    moment,
                    top(change.layer(), within),
                    within,
                    out,
                    in,
                    purge,
                    dryRun(Event.SWAP, moment),
                    printedBefore(change) + delay);
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
                    entry(layer, loaded, false));
            Optional<DryRun> run = stops ? Optional.of(dryRun(Event.HALT, moment)) : Optional.empty();
            Pause pause = new Pause(moment, grid.bottom(layer), loaded, run, until[layer] + delay);
            pauses.add(pause);
            delay += pause.seconds();
        }

        private DryRun dryRun(Event event, Moment moment) {
            Macro macro = rig.macros().answer(event).orElseGet(() -> Macro.of(event));
            boolean anywhere = moment.entry().z() + highestLift(macro)
                            < rig.printer().maxHeight().millimetres()
                    && macro.steps().stream()
                            .noneMatch(s -> s.step() instanceof Step.Raw || s.step() instanceof Step.FirmwareRoutine);
            return anywhere
                    ? dryRuns.computeIfAbsent(
                            moment.anyHeight(), m -> DryRun.of(macro, rig.macros(), rig.printer(), moment))
                    : DryRun.of(macro, rig.macros(), rig.printer(), moment);
        }

        private static double highestLift(Macro macro) {
            return macro.steps().stream()
                    .mapToDouble(s -> s.step() instanceof Step.Lift lift ? lift.height() : 0)
                    .sum();
        }

        private int extruder() {
            return loading.stages().get(swaps.size()).extruder();
        }

        private Moment moment(
                int number, int of, int layer, Optional<Spool> out, Spool in, double purge, boolean within) {
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
                    "",
                    entry(layer, out.orElse(in), within));
        }

        /** Where the nozzle stands: on what was printed last. */
        private Height top(int layer, boolean within) {
            return within ? grid.top(layer) : grid.bottom(layer);
        }

        /** The state at the layer's door in the sliced file; inside a layer it has none that is known. */
        private ControllerState entry(int layer, Spool loaded, boolean within) {
            double raft = plan.layers().raft().millimetres();
            return file.filter(f -> !within)
                    .flatMap(f -> f.layer(layer).door())
                    .map(SlicedLayer.Door::state)
                    .orElseGet(() -> ControllerState.standingAt(
                            footprintCentre.x,
                            footprintCentre.y,
                            raft + top(layer, within).millimetres(),
                            loaded.temperature()));
        }

        private List<SpoolUse> uses(Optional<FirstLoad> load) {
            Map<SpoolId, double[]> sums = new LinkedHashMap<>();
            plan.palette().forEach(id -> sums.put(id, new double[4]));
            double[] first = sums.get(passes.get(0).spool());
            first[0] += base.before().plastic().cubicMillimetres();
            first[2] += base.before().seconds();
            first[3] += load.map(FirstLoad::seconds).orElse(0.0);
            Set<SpoolId> used = new HashSet<>();
            for (Pass pass : passes) {
                double[] sum = sums.get(pass.spool());
                used.add(pass.spool());
                sum[0] += pass.share()
                        * base.layers().get(pass.layer() - 1).plastic().cubicMillimetres();
                sum[2] += pass.share() * base.layers().get(pass.layer() - 1).seconds();
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
                if (used.contains(id)) {
                    uses.add(new SpoolUse(shelf.get(id), new Volume(sum[0]), new Volume(sum[1]), sum[2], sum[3]));
                }
            });
            return uses;
        }
    }
}
