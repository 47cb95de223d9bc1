package dev.tranche.core.estimate;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
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
 * @param terms how many, and what current costs
 */
public record Estimator(Rig rig, PurgeModel purges, Coordinate footprintCentre, Terms terms) {
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
        return new Run(plan, order, grid, shelf, base, file).ledger();
    }

    /** How a spool is named to the machine and its owner: letter and name. */
    public static String label(ColourPlan plan, Spool spool) {
        return plan.letter(spool.id()) + " " + spool.name();
    }

    /** One ledger in the making: the print is walked pass by pass, and every stop delays the next. */
    private final class Run {
        private final ColourPlan plan;
        private final LayerGrid grid;
        private final Map<SpoolId, Spool> shelf;
        private final BasePrint base;
        private final Optional<GridMatch> file;
        private final List<Pass> passes;
        private final List<Pass> changes;
        private final Loading loading;
        private final TowerPrinting tower;
        private final DryRuns dryRuns = new DryRuns(rig);
        private final Tally tally;
        private final List<Swap> swaps = new ArrayList<>();
        private final List<Pause> pauses = new ArrayList<>();
        private final List<Stretch> stretches = new ArrayList<>();
        private final Map<List<SpoolId>, Purge> between = new HashMap<>();
        private final Double[] begins;
        private final Double[] ends;
        private double now;
        /** The highest layer that has any plastic yet. */
        private int highest;

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
            this.base = base.source() == BasePrint.Source.MODEL ? base.times(terms.copies()) : base;
            this.file = file;
            this.passes = order.passes();
            this.changes = order.swaps();
            this.loading = Loading.of(
                    rig.rack(),
                    Stream.concat(Stream.of(passes.get(0)), changes.stream())
                            .map(Pass::spool)
                            .toList());
            this.tower = tower();
            this.tally = new Tally(plan.palette(), shelf);
            this.begins = new Double[grid.count()];
            this.ends = new Double[grid.count()];
        }

        /** Where the file holds the swaps, it holds their tower too. */
        private TowerPrinting tower() {
            return purges.settings().place() instanceof PurgePlace.OnTower place && !changes.isEmpty() && !inFile()
                    ? TowerPrinting.of(
                            place.width(),
                            passes,
                            (out, in) -> purge(shelf.get(out), shelf.get(in)).volume(),
                            grid,
                            rig.printer())
                    : TowerPrinting.none(grid, rig.printer());
        }

        /** Whether the sliced file holds the swaps, and with them their purge. */
        private boolean inFile() {
            return file.isPresent() && file.get().file().changesTools();
        }

        private Purge purge(Spool out, Spool in) {
            return between.computeIfAbsent(List.of(out.id(), in.id()), pair -> purges.between(out, in));
        }

        private Ledger ledger() {
            Spool loaded = shelf.get(passes.get(0).spool());
            Spool first = loaded;
            Optional<FirstLoad> load = rig.macros().answer(Event.FIRST_LOAD).map(macro -> firstLoad(macro, first));
            tally.before(loaded, base.before(), load.map(FirstLoad::seconds).orElse(0.0));
            now = base.before().seconds() + load.map(FirstLoad::seconds).orElse(0.0);
            double since = 0;
            int sinceLayer = 1;
            Iterator<Halt> halts =
                    plan.halts().stream().filter(h -> plan.stops(h, grid)).iterator();
            Halt halt = halts.hasNext() ? halts.next() : null;
            int nth = 0;
            int last = 1;
            for (Pass pass : passes) {
                nth = pass.layer() == last ? nth : 0;
                boolean higher = pass.layer() > highest;
                boolean change = !pass.spool().equals(loaded.id());
                if (higher) {
                    printTower(pass.layer(), loaded);
                }
                if (higher && halt != null && layer(halt) <= pass.layer()) {
                    pause(
                            halt,
                            pass.layer(),
                            loaded,
                            !change || !swap(pass, nth, loaded).needsPerson());
                    while (halt != null && layer(halt) <= pass.layer()) {
                        halt = halts.hasNext() ? halts.next() : null;
                    }
                }
                if (change) {
                    Swap swap = swap(pass, nth, loaded);
                    stretches.add(new Stretch(loaded.id(), sinceLayer, last, since, swap.startsAt()));
                    swaps.add(swap);
                    tally.swapped(swap);
                    now += swap.seconds();
                    double onTower = tower.seconds(
                            Math.max(highest, pass.layer()), swap.purge().volume());
                    tally.tower(swap.in(), Volume.NONE, onTower);
                    now += onTower;
                    since = now;
                    sinceLayer = pass.layer();
                    loaded = swap.in();
                }
                print(pass, loaded);
                highest = Math.max(highest, pass.layer());
                last = pass.layer();
                nth++;
            }
            stretches.add(new Stretch(loaded.id(), sinceLayer, last, since, now));
            return new Ledger(
                    base,
                    load,
                    swaps,
                    pauses,
                    stretches,
                    tally.uses(
                            base.holdsTower() && inFile() && purges.settings().place() instanceof PurgePlace.OnTower),
                    loading,
                    rig.printer().filament(),
                    new LayerTimes(List.of(begins), List.of(ends)),
                    tower.tower(),
                    terms,
                    purges.settings().place());
        }

        private void print(Pass pass, Spool loaded) {
            BasePrint.LayerWork work = base.layers().get(pass.layer() - 1);
            int at = pass.layer() - 1;
            begins[at] = begins[at] == null ? now : begins[at];
            now += pass.share() * work.seconds();
            ends[at] = now;
            tally.printed(loaded, work.plastic().times(pass.plastic()), pass.share() * work.seconds());
        }

        /** What the tower needs on a layer, and on those below that have not been begun. */
        private void printTower(int layer, Spool loaded) {
            for (int at = highest + 1; at <= layer; at++) {
                double seconds = tower.idleSeconds(at);
                tally.tower(loaded, tower.idle(at), seconds);
                now += seconds;
            }
        }

        private int layer(Halt halt) {
            return grid.snap(halt.wished()).layer();
        }

        private FirstLoad firstLoad(Macro macro, Spool spool) {
            Moment moment = moment(0, 1, 1, 0, Optional.empty(), spool, 0);
            return new FirstLoad(moment, spool, DryRun.of(macro, rig.macros(), rig.printer(), moment));
        }

        private Swap swap(Pass change, int nth, Spool out) {
            Spool in = shelf.get(change.spool());
            Purge purge = purge(out, in);
            PurgePlace place = purges.settings().place();
            Filament filament = rig.printer().filament();
            Volume pushed = place instanceof PurgePlace.Routine r ? filament.volume(r.length()) : purge.volume();
            // What is printed onto the tower, the macro need not push.
            double byMacro = place instanceof PurgePlace.OnTower ? 0 : filament.length(pushed);
            Moment moment =
                    moment(swaps.size() + 1, changes.size(), change.layer(), nth, Optional.of(out), in, byMacro);
            boolean within = change.layer() <= highest;
            return new Swap(
                    moment,
                    top(),
                    within,
                    out,
                    in,
                    purge,
                    pushed,
                    dryRuns.of(Event.SWAP, moment),
                    now,
                    door(change.layer(), nth, within));
        }

        private void pause(Halt halt, int layer, Spool loaded, boolean stops) {
            Moment moment = new Moment(
                    pauses.size() + 1,
                    (int) plan.halts().stream().filter(h -> plan.stops(h, grid)).count(),
                    layer,
                    "",
                    "",
                    temperature(loaded, layer),
                    rig.rack().temperature(extruder(), loaded, layer),
                    rig.rack().extruder(extruder()).standby(),
                    0,
                    extruder(),
                    halt.note(),
                    entry(layer, 0, loaded));
            Optional<DryRun> run = stops ? Optional.of(dryRuns.of(Event.HALT, moment)) : Optional.empty();
            Pause pause = new Pause(moment, grid.bottom(layer), loaded, run, now);
            pauses.add(pause);
            tally.paused(pause);
            now += pause.seconds();
        }

        private int extruder() {
            return loading.stages().get(swaps.size()).extruder();
        }

        private Moment moment(int number, int of, int layer, int nth, Optional<Spool> out, Spool in, double purge) {
            int extruder = loading.stages().get(number).extruder();
            return new Moment(
                    Math.max(1, number),
                    of,
                    layer,
                    out.map(s -> label(plan, s)).orElse(""),
                    label(plan, in),
                    out.map(s -> temperature(s, layer)).orElse(0),
                    rig.rack().temperature(extruder, in, layer),
                    rig.rack().extruder(extruder).standby(),
                    purge,
                    extruder,
                    "",
                    entry(layer, nth, out.orElse(in)));
        }

        private static int temperature(Spool spool, int layer) {
            return layer == 1 ? spool.firstLayerTemperature() : spool.temperature();
        }

        /** Where the nozzle stands: on the highest that was printed. */
        private Height top() {
            return highest == 0 ? Height.ZERO : grid.top(highest);
        }

        /** Inside a layer there is a door only where the file changes tools itself. */
        private Optional<Door> door(int layer, int nth, boolean within) {
            return file.filter(f -> !within || inFile()).flatMap(f -> f.door(layer, within ? nth : 0));
        }

        /** The state at the door in the sliced file; without one, none is known. */
        private ControllerState entry(int layer, int nth, Spool loaded) {
            double raft = plan.layers().raft().millimetres();
            return door(layer, nth, layer <= highest)
                    .map(Door::state)
                    .orElseGet(() -> ControllerState.standingAt(
                            footprintCentre.x,
                            footprintCentre.y,
                            raft + top().millimetres(),
                            temperature(loaded, Math.max(1, highest))));
        }
    }
}
