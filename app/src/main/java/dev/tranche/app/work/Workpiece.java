package dev.tranche.app.work;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.core.check.Concern;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Looks;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.plate.Clearance;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.returns.Cure;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.Painting;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Severity;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A stored plan brought to life: its model cut, and all that the core reckons of it.
 *
 * @param cut from above and from the front
 * @param machine it is printed on
 * @param reckoning order, ledger, clock and findings
 */
public record Workpiece(PlanState plan, ModelCuts.Cut cut, Machine machine, Reckoning reckoning) {

    public ColourPlan colours() {
        return plan.content().colours();
    }

    public LayerGrid grid() {
        return cut.model().grid();
    }

    public Colouring colouring() {
        return reckoning.brief().colouring();
    }

    /** How its finished piece looks. */
    public Looks looks() {
        return reckoning.facts().looks();
    }

    public List<String> partNames() {
        return reckoning.brief().partNames();
    }

    /** Every spool the plan may name. */
    public Map<SpoolId, Spool> shelf() {
        return reckoning.brief().shelf();
    }

    /** What it is printed with, spools and mixtures, layer by layer. */
    public Paints paints() {
        return looks().paints();
    }

    /** In which orders its colours could be printed, {@link #order()} the one in which they are. */
    public Orders orders() {
        return reckoning.facts().orders();
    }

    public PrintOrder order() {
        return reckoning.facts().order();
    }

    /** Where its copies stand; those that a sliced file holds, if there is one that fits. */
    public Layout layout() {
        return reckoning.facts().layout();
    }

    /** How far apart its order needs things to stand for the head, mm; 0 where it needs nothing. */
    public double headRoom() {
        return Clearance.needed(
                colours().ordering().rule(),
                grid().printedHeight().millimetres(),
                machine.printer().hotend());
    }

    /** How the nozzle comes back from swaps. */
    public ReturnPaths returns() {
        return reckoning.facts().returns();
    }

    /** What makes fewer of its ways unclean, the best first. */
    public List<Cure> cures() {
        return reckoning.facts().cures();
    }

    /** From the bed up. */
    public List<Tranche> tranches() {
        return reckoning.facts().tranches();
    }

    public Ledger ledger() {
        return reckoning.facts().ledger();
    }

    /** By the clock, if it has a start. */
    public Optional<Schedule> schedule() {
        return reckoning.facts().schedule();
    }

    public List<Finding> findings() {
        return reckoning.findings();
    }

    /** Findings with which nothing is handed off. */
    public List<Finding> obstacles() {
        return findings().stream().filter(f -> f.severity() == Severity.STOP).toList();
    }

    /** Findings about the sliced file to be read before it is handed off, with which it may be. */
    public List<Finding> warningsOfTheFile() {
        return told().stream()
                .filter(f -> f.concern() == Concern.FILE && f.severity() == Severity.WARN && !f.accepted())
                .toList();
    }

    /** Findings to be read: neither put aside nor such as say the same on every plan. */
    public List<Finding> told() {
        return findings().stream().filter(f -> !f.known() && !isAside(f)).toList();
    }

    /** Findings that whoever has read them once knows. */
    public List<Finding> knownBefore() {
        return findings().stream().filter(f -> f.known() && !isAside(f)).toList();
    }

    /** Findings that the plan's owner has put aside. */
    public List<Finding> aside() {
        return findings().stream().filter(this::isAside).toList();
    }

    private boolean isAside(Finding finding) {
        return plan.content().asides().hold(finding);
    }

    /** The sliced file, and {@link #match()} if its layers are the plan's. */
    public Optional<SlicedFile> file() {
        return reckoning.brief().file();
    }

    /** The sliced file in the order in which it is printed. */
    public Optional<SlicedFile> printed() {
        return match().map(GridMatch::file).or(this::file);
    }

    public Optional<GridMatch> match() {
        return reckoning.facts().match();
    }

    /** The tools of a file that changes them, and the spools they stand for. */
    public Optional<ToolTable> tools() {
        return reckoning.facts().tools();
    }

    /** Whether the model can be coloured as the sliced file prints it. */
    public boolean drawsColours() {
        return match().isPresent() && Painting.isIn(reckoning.facts().surroundings());
    }

    /** The stops that the file holds already. */
    public Optional<StopTable> stops() {
        return reckoning.facts().stops();
    }

    /** One copy of it without swaps. */
    public BasePrint base() {
        return reckoning.base();
    }

    public Estimator estimator() {
        return reckoning.estimator();
    }

    public SwapWriter writer() {
        return reckoning.writer();
    }

    /** Of the plan's swaps, as stamped into files. */
    public String stateNow() {
        return reckoning.facts().state();
    }

    public Spool spool(SpoolId id) {
        return shelf().get(id);
    }

    /** Letter and name. */
    public String label(Spool spool) {
        return Estimator.label(colours(), spool);
    }

    /** The spool to load before the print. */
    public Spool firstSpool() {
        return spool(ledger().stretches().get(0).spool());
    }

    /** What has to be done with spools before the print, for the end of a sentence. */
    public String loading() {
        return ledger().feeding().isEmpty()
                ? "Load " + label(firstSpool())
                : "Feed " + Mixing.feeding(ledger().feeding(), s -> label(spool(s)));
    }

    /** What the plan would cost in another order. */
    public Ledger ledger(PrintOrder other) {
        return reckoning.ledger(other);
    }

    /** What it would cost with its purge elsewhere. */
    public Ledger ledger(PurgePlace place) {
        return reckoning.ledger(place);
    }

    /** The tranche that {@code layer} belongs to. */
    public Tranche trancheOf(int layer) {
        return tranches().stream().filter(t -> t.covers(layer)).findFirst().orElseThrow();
    }
}
