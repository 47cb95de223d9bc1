package dev.tranche.core.estimate;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.Purge;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.rig.Mixing.Exchange;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;

/**
 * What each stop of a print is: what its macro knows there, and how its dry run goes.
 *
 * @param loading the first load, then one stage a swap
 * @param file the sliced file, if there is one
 * @param centre where the model's middle stands on the bed, mm; a stop begins there when no file says better
 * @param cleared what is in the nozzle at first
 * @param changes which paints follow one another without a stop
 * @param mixing how its mixtures are blended, if it has any
 */
record Stops(
        Rig rig,
        ColourPlan plan,
        LayerGrid grid,
        Loading loading,
        Pushes pushes,
        Optional<GridMatch> file,
        Coordinate centre,
        Optional<Cleared> cleared,
        Changes changes,
        Optional<Mixing> mixing,
        DryRuns dryRuns) {

    /**
     * How far a print has come.
     *
     * @param pass that is printed next
     * @param highest layer that has any plastic yet; 0 for none
     * @param swaps made so far
     * @param halts made so far
     * @param now seconds from the start
     */
    record Point(Pass pass, int highest, int swaps, int halts, double now) {
        int layer() {
            return pass.layer();
        }

        boolean within() {
            return layer() <= highest;
        }
    }

    Optional<Blending> blending() {
        return mixing.map(m -> new Blending(m, plan.mixtures(), rig.macros(), grid, raft()));
    }

    Optional<FirstLoad> firstLoad(Spool spool) {
        Point start = new Point(new Pass(1, spool.id(), 0, 1, 1, Optional.empty()), 0, 0, 0, 0);
        double purge = cleared.map(
                        c -> rig.printer().filament().length(c.purge().volume()))
                .orElse(0.0);
        Moment usual = moment(start, 0, new Changes.Count(1, 1), Optional.empty(), spool, purge);
        Moment moment = file.map(f -> usual.at(f.file().start().state())).orElse(usual);
        return rig.macros()
                .answer(Event.FIRST_LOAD)
                .map(macro -> new FirstLoad(moment, spool, DryRun.of(macro, rig.macros(), rig.printer(), moment)));
    }

    /** @param pass before which it happens, from 0 */
    Swap swap(Point at, int pass, Spool out, Spool in) {
        Optional<List<Exchange>> exchanges = changes.exchanges(pass);
        Purge purge = pushes.between(out, in);
        Filament filament = rig.printer().filament();
        Volume beside = pushes.place().beside(purge.volume(), filament);
        Volume ontoTower = pushes.place().ontoTower(purge.volume());
        Moment paints = moment(at, at.swaps() + 1, changes.count(pass), Optional.of(out), in, filament.length(beside));
        Moment moment = exchanges
                .filter(e -> !e.isEmpty())
                .map(e -> paints.naming(
                        named(e, x -> label(x.out())), named(e, x -> label(x.in()) + " at input " + (x.input() + 1))))
                .orElse(exchanges.isPresent() ? paints.turning() : paints);
        Optional<Door> door = door(at);
        DryRun run = dryRuns.of(Event.SWAP, moment);
        return new Swap(
                at.swaps() + 1,
                moment,
                top(at),
                at.within(),
                out,
                in,
                purge,
                beside.plus(ontoTower),
                ontoTower,
                run,
                door.map(d -> d.warming().sparedAt(run.exit().nozzleNow())).orElse(0.0),
                at.now(),
                at.pass(),
                exchanges,
                door);
    }

    private String label(SpoolId spool) {
        return Estimator.label(plan, changes.spool(spool));
    }

    private static String named(List<Exchange> exchanges, Function<Exchange, String> name) {
        return exchanges.stream().map(name).collect(Collectors.joining(" and "));
    }

    /** @param stops whether its macro runs, since no swap before the same layer waits for a person anyway */
    Pause pause(Point at, Halt halt, int of, Spool loaded, boolean stops) {
        Moment moment = halting(at, halt.note(), of, loaded);
        return new Pause(
                moment,
                grid.bottom(at.layer()),
                false,
                Optional.empty(),
                loaded,
                stops ? Optional.of(dryRuns.of(Event.HALT, moment)) : Optional.empty(),
                at.now());
    }

    /**
     * The spool that a person has to take out of its slot before the next swap, since there are fewer slots than spools and the
     * machine changes by itself between those.
     */
    Optional<SpoolId> inTheWay(Point at, Swap swap) {
        return swap.needsPerson() || rig.printer().hotend().blends()
                ? Optional.empty()
                : loading.stages().get(at.swaps() + 1).replaced();
    }

    /** A halt before a swap, in which a person puts its spool into a slot. */
    Pause refill(Point at, Swap swap, Spool gone, int of, Spool loaded) {
        int slot = loading.stages().get(at.swaps() + 1).extruder();
        String note = Words.format(
                "put %s in T%d, where %s is", Estimator.label(plan, swap.in()), slot, Estimator.label(plan, gone));
        Moment moment = halting(at, note, of, loaded);
        return new Pause(
                moment,
                swap.height(),
                at.within(),
                door(at),
                loaded,
                Optional.of(dryRuns.of(Event.HALT, moment)),
                at.now());
    }

    private Moment halting(Point at, String note, int of, Spool loaded) {
        int extruder = loading.stages().get(at.swaps()).extruder();
        return new Moment(
                        at.halts() + 1,
                        of,
                        at.layer(),
                        "",
                        "",
                        temperature(loaded, at.layer()),
                        rig.rack().temperature(extruder, loaded, at.layer()),
                        rig.rack().extruder(extruder).standby(),
                        0,
                        extruder,
                        note,
                        entry(at, loaded))
                .beside(standing(at));
    }

    /** How many halts of that kind a print would need. */
    int refills() {
        return (int) loading.stages().stream()
                .skip(1)
                .filter(s -> s.replaced().isPresent())
                .count();
    }

    private Moment moment(Point at, int stage, Changes.Count count, Optional<Spool> out, Spool in, double purge) {
        int extruder = loading.stages().get(stage).extruder();
        return new Moment(
                        count.number(),
                        count.of(),
                        at.layer(),
                        out.map(s -> Estimator.label(plan, s)).orElse(""),
                        Estimator.label(plan, in),
                        out.map(s -> temperature(s, at.layer())).orElse(0),
                        rig.rack().temperature(extruder, in, at.layer()),
                        rig.rack().extruder(extruder).standby(),
                        purge,
                        extruder,
                        "",
                        entry(at, out.orElse(in)))
                .beside(standing(at))
                .leavingPurge(pushes.place() instanceof PurgePlace.Routine && callsRoutine(extruder));
    }

    private boolean callsRoutine(int extruder) {
        return rig.macros()
                .answer(Event.SWAP)
                .filter(m -> m.callsRoutine(rig.printer(), extruder))
                .isPresent();
    }

    private static int temperature(Spool spool, int layer) {
        return layer == 1 ? spool.firstLayerTemperature() : spool.temperature();
    }

    /** Where the nozzle stands: on the highest that was printed. */
    private Height top(Point at) {
        return at.highest() == 0 ? Height.ZERO : grid.top(at.highest());
    }

    /** How high plastic stands by then, as a file has it. */
    private double standing(Point at) {
        return raft().millimetres() + top(at).millimetres();
    }

    private Height raft() {
        return file.map(GridMatch::raft).orElse(plan.layers().raft());
    }

    /** Where the file begins with what comes next; a plan without tools has places between layers only. */
    Optional<Door> door(Point at) {
        return at.pass().door().or(() -> file.filter(f -> !at.within())
                .flatMap(f -> f.layer(at.layer()).door()));
    }

    /** The state at the door in the sliced file; without one, none is known. */
    private ControllerState entry(Point at, Spool loaded) {
        double raft = plan.layers().raft().millimetres();
        return door(at).map(d -> file.orElseThrow().file().withoutSwaps(d, rig.printer()))
                .orElseGet(() -> ControllerState.standingAt(
                        centre.x,
                        centre.y,
                        raft + top(at).millimetres(),
                        temperature(loaded, Math.max(1, at.highest()))));
    }
}
