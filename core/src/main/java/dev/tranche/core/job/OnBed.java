package dev.tranche.core.job;

import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.handoff.Fit;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plate.Clearance;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.returns.Cure;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;

/**
 * What of a plan stands where on the bed.
 *
 * @param plate that is wanted, as far apart as its order needs
 * @param fit how a sliced file lies on the model; it says itself where things stand
 * @param tower that is printed beside the copies, unless a file holds what it holds
 * @param layout of the copies
 */
record OnBed(Brief brief, Plate plate, Optional<Fit> fit, Optional<Tower> tower, Layout layout) {

    static OnBed of(Brief brief, PrintOrder order, PurgeModel purges, Optional<GridMatch> match) {
        CutModel model = brief.colouring().model();
        Printer printer = brief.rig().printer();
        double apart = Clearance.needed(
                brief.plan().ordering().rule(), model.grid().printedHeight().millimetres(), printer.hotend());
        // What stands by hand is held against the head by itself.
        Plate plate = brief.plate().byHand().isEmpty() ? brief.plate().apart(apart) : brief.plate();
        Optional<Fit> fit = match.map(m -> Fit.of(m, model.sections(), printer));
        Optional<Tower> tower = match.isPresent() || isApart(brief)
                ? Optional.empty()
                : Estimator.tower(purges, order, model.grid(), brief.paints(), brief.plan(), brief.rig());
        Layout layout = fit.map(f -> Layout.standing(spots(f, brief.footprint()), brief.footprint(), printer.bed()))
                .orElseGet(() -> Layout.of(plate, brief.footprint(), printer.bed(), tower.map(OnBed::rectangle)));
        return new OnBed(brief, plate, fit, tower, layout);
    }

    private static boolean isApart(Brief brief) {
        return brief.plan().ordering().rule() == Rule.ONE_AFTER_ANOTHER;
    }

    private static Footprint rectangle(Tower tower) {
        return Footprint.rectangle(tower.width(), tower.depth());
    }

    /** Copies of a sliced file lie as the model does. */
    private static List<Spot> spots(Fit fit, Footprint footprint) {
        return fit.copies().stream()
                .map(c -> new Spot(footprint.middle().x + c.x, footprint.middle().y + c.y, 0))
                .toList();
    }

    /** What all copies cover together. */
    Envelope extent() {
        Envelope all = new Envelope();
        layout.copies().forEach(c -> all.expandToInclude(c.outline().getEnvelopeInternal()));
        return known(all);
    }

    /** What the first copy covers. */
    Envelope first() {
        return known(layout.copies().get(0).outline().getEnvelopeInternal());
    }

    /** Where no layer of the model prints, its copies cover nothing; they stand as its file has them. */
    private Envelope known(Envelope covered) {
        return covered.isNull() ? brief.colouring().model().footprint() : covered;
    }

    /** The ways back from swaps, and what makes fewer of them unclean, the best first. */
    record Ways(ReturnPaths paths, List<Cure> cures) {}

    /** As {@link #ways(PrintOrder, Ledger, Orders)}; taken over from the plan as it was before, where they come of the same. */
    Ways ways(PrintOrder order, Ledger ledger, Orders orders, Optional<Reckoning> earlier) {
        return earlier.filter(e -> comeOfTheSame(e, order, ledger))
                .map(e -> new Ways(e.facts().returns(), e.facts().cures()))
                .orElseGet(() -> ways(order, ledger, orders));
    }

    private boolean comeOfTheSame(Reckoning earlier, PrintOrder order, Ledger ledger) {
        Brief was = earlier.brief();
        PlanFacts facts = earlier.facts();
        return brief.plate().equals(was.plate())
                && brief.rig().printer().equals(was.rig().printer())
                && brief.purge().place().equals(was.purge().place())
                && isApart(brief) == isApart(was)
                && brief.footprint().equals(was.footprint())
                && layout.equals(facts.layout())
                && fit.isPresent() == facts.fit().isPresent()
                && tower.equals(facts.ledger().tower())
                && order.passes().equals(facts.order().passes())
                && Leaving.all(ledger).equals(Leaving.all(facts.ledger()))
                && brief.colouring()
                        .model()
                        .grid()
                        .equals(was.colouring().model().grid())
                && brief.colouring().layers().equals(was.colouring().layers());
    }

    /** What matters of a swap to its way back. */
    private record Leaving(int number, Pass next, List<Point> way, Optional<Door> door) {
        static List<List<?>> all(Ledger ledger) {
            return List.of(
                    ledger.firstLoad().stream().map(f -> f.dryRun().wayBack()).toList(),
                    ledger.swaps().stream()
                            .map(s ->
                                    new Leaving(s.number(), s.next(), s.dryRun().wayBack(), s.door()))
                            .toList());
        }
    }

    private Ways ways(PrintOrder order, Ledger ledger, Orders orders) {
        ReturnPaths bare = paths(order, ledger, orders, layout);
        Printer printer = brief.rig().printer();
        ReturnPaths paths = tower.map(t -> bare.past(rectangle(t), plate, layout, printer.bed()))
                .orElse(bare);
        List<Cure> cures = fit.isPresent()
                ? List.of()
                : Cure.of(
                        paths,
                        bare,
                        copy -> paths(order, ledger, orders, layout.startingWith(copy)),
                        layout,
                        plate.room(),
                        printer.bed(),
                        isApart(brief)
                                ? Optional.empty()
                                : Optional.of(brief.purge().place()),
                        brief.colouring().model().grid().layerHeight().millimetres());
        return new Ways(paths, cures);
    }

    private ReturnPaths paths(PrintOrder order, Ledger ledger, Orders orders, Layout of) {
        return ReturnPaths.of(order, ledger, brief.colouring(), orders::things, brief.footprint(), of);
    }
}
