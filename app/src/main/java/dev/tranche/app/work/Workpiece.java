package dev.tranche.app.work;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * All there is to know about a plan at one moment.
 *
 * @param colouring of the cut in the plan's colours
 * @param orders in which its colours could be printed, {@code order} the one in which they are
 * @param base one copy of it without swaps, and {@code estimator} what reckons with it
 * @param partNames one a part
 * @param shelf every spool the plan may name
 * @param tranches from the bed up
 * @param schedule by the clock, if it has a start
 * @param file the sliced file, and {@code match} if its layers are the plan's
 * @param stateNow of the plan's swaps, as stamped into files
 */
public record Workpiece(
        PlanState plan,
        ModelCuts.Cut cut,
        Colouring colouring,
        Orders orders,
        PrintOrder order,
        BasePrint base,
        Estimator estimator,
        List<String> partNames,
        Map<SpoolId, Spool> shelf,
        Machine machine,
        List<Tranche> tranches,
        Ledger ledger,
        Optional<Schedule> schedule,
        List<Finding> findings,
        Optional<SlicedFile> file,
        Optional<GridMatch> match,
        SwapWriter writer,
        String stateNow) {

    public ColourPlan colours() {
        return plan.content().colours();
    }

    public LayerGrid grid() {
        return cut.model().grid();
    }

    public Spool spool(SpoolId id) {
        return shelf.get(id);
    }

    /** Letter and name. */
    public String label(Spool spool) {
        return Estimator.label(colours(), spool);
    }

    /** The spool to load before the print. */
    public Spool firstSpool() {
        return spool(ledger.stretches().get(0).spool());
    }

    /** What the plan would cost in another order. */
    public Ledger ledger(PrintOrder other) {
        return estimator.ledger(colours(), other, grid(), shelf, base, match);
    }

    /** What it would cost with its purge elsewhere. */
    public Ledger ledger(PurgePlace place) {
        PurgeModel purges = new PurgeModel(
                estimator.purges().deadVolume(),
                estimator.purges().settings().into(place),
                estimator.purges().measured());
        return new Estimator(estimator.rig(), purges, estimator.footprintCentre(), estimator.terms())
                .ledger(colours(), order, grid(), shelf, base, match);
    }

    /** The tranche that {@code layer} belongs to. */
    public Tranche trancheOf(int layer) {
        return tranches.stream().filter(t -> t.covers(layer)).findFirst().orElseThrow();
    }
}
