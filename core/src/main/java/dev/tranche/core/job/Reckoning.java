package dev.tranche.core.job;

import dev.tranche.core.check.Checks;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.handoff.Jobs;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Looks;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Things;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.rig.Mixing;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Toll;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;

/**
 * What comes of a plan.
 *
 * @param brief it was reckoned from
 * @param facts order, ledger, clock and what else rules look at
 * @param base one copy of it without swaps, and {@code estimator} what reckons with it
 * @param writer of its swaps into G-code
 * @param findings worst first
 */
public record Reckoning(
        Brief brief, PlanFacts facts, BasePrint base, Estimator estimator, SwapWriter writer, List<Finding> findings) {

    /** Reckons a plan; all of it is computed here, and nothing is read or kept. */
    public static Reckoning of(Brief brief) {
        return of(brief, new Looks(brief.colouring(), brief.shelf()), Optional.empty(), Progress.UNHEARD);
    }

    /**
     * As {@link #of(Brief)}, where it may be known already how the piece looks.
     *
     * @param looks of the brief's colouring in its shelf's spools
     * @param earlier of the plan as it was before: what an edit leaves as it was is not worked out again
     * @param progress hears how far the longest of it is
     */
    public static Reckoning of(Brief brief, Looks looks, Optional<Reckoning> earlier, Progress progress) {
        CutModel model = brief.colouring().model();
        LayerGrid grid = model.grid();
        Printer printer = brief.rig().printer();
        Optional<GridMatch> sliced = brief.file().flatMap(f -> match(f, grid));
        Optional<GridMatch> match =
                brief.rearranging().made().isEmpty() ? sliced : brief.printed().flatMap(f -> match(f, grid));
        PurgeModel purges = purges(brief);
        Orders orders = orders(brief, purges)
                .apart(brief.rearranging().made().map(Rearranged::apart).orElse(Set.of()));
        earlier.ifPresent(e -> orders.knowing(e.facts().orders()));
        Optional<ToolTable> tools = match.filter(m -> m.file().changesTools())
                .map(m -> ToolTable.of(m, brief.colouring(), brief.said().tools(), brief.atHand()));
        PrintOrder order = tools.filter(ToolTable::complete)
                .map(t -> PrintOrder.sliced(match.orElseThrow(), t))
                .orElseGet(() -> layered(orders, match, progress));
        OnBed bed = OnBed.of(brief, order, purges, match);
        BasePrint base = sliced.map(m -> BasePrint.from(m, printer.filament(), bed.extent()))
                .orElseGet(() -> BasePrint.from(
                        model.sections(), grid, printer, brief.terms().filling()))
                .at(printer.motion().pace());
        Envelope footprint = match.map(GridMatch::part).orElseGet(bed::first);
        Estimator estimator = new Estimator(brief.rig(), purges, footprint.centre(), brief.terms(), brief.inNozzle());
        BasePrint printed = brief.rearranging()
                .made()
                .flatMap(made -> match)
                .map(m -> BasePrint.from(m, printer.filament(), bed.extent())
                        .at(printer.motion().pace())
                        .insteadOf(base))
                .orElse(base);
        Ledger ledger = estimator.ledger(brief.plan(), order, grid, brief.shelf(), printed, match);
        OnBed.Ways ways = bed.ways(order, ledger, orders, earlier);
        SwapWriter writer = new SwapWriter(brief.planId(), brief.rig());
        PlanFacts facts = new PlanFacts(
                brief.planId(),
                writer.state(ledger),
                brief.colouring(),
                looks,
                brief.partNames(),
                orders,
                order,
                brief.plan().tranches(grid),
                footprint,
                brief.footprint(),
                bed.layout(),
                bed.plate().room(),
                ways.paths(),
                ways.cures(),
                brief.rig(),
                brief.shelf(),
                brief.atHand(),
                ledger,
                brief.file(),
                match,
                tools,
                match.map(m -> StopTable.of(m, ledger, brief.said().stops())),
                bed.fit(),
                brief.said(),
                brief.rearranging(),
                brief.start().map(s -> Schedule.of(ledger, s, printer.heaterLimit(), brief.quiet())),
                brief.written(),
                brief.rehearsed());
        return new Reckoning(brief, facts, base, estimator, writer, Checks.run(facts));
    }

    /**
     * The sliced file with the plan's stops in it.
     *
     * @throws Refusal if the printer cannot blend what the plan blends, there is no file whose layers are the plan's, or no place in it for one of the stops
     */
    public Patch patch() {
        Mixing.require(brief.rig(), brief.plan());
        return writer.patch(matched(), facts.ledger(), facts.stops().orElseThrow());
    }

    /**
     * The sliced file in jobs.
     *
     * @param before layers, from 2, with which another job begins
     * @throws Refusal if there is no file, or it cannot be cut there
     */
    public Jobs jobs(Set<Integer> before) {
        Mixing.require(brief.rig(), brief.plan());
        return Jobs.of(
                matched(),
                facts.ledger(),
                facts.order(),
                brief.shelf(),
                facts.stops().orElseThrow(),
                writer,
                before);
    }

    private GridMatch matched() {
        return facts.match()
                .orElseGet(() -> GridMatch.of(
                        brief.printed()
                                .orElseThrow(() -> new Refusal(
                                        "There is no G-code yet; give the file your slicing program wrote.")),
                        brief.colouring().model().grid()));
    }

    /** The order of a file that changes tools, as it was sliced. */
    public Optional<PrintOrder> asSliced() {
        return brief.file()
                .filter(SlicedFile::changesTools)
                .flatMap(f -> match(f, brief.colouring().model().grid()))
                .flatMap(m -> {
                    ToolTable tools =
                            ToolTable.of(m, brief.colouring(), brief.said().tools(), brief.atHand());
                    return tools.complete() ? Optional.of(PrintOrder.sliced(m, tools)) : Optional.empty();
                });
    }

    /** A layer with a swap inside for which the sliced file has no place, if there is one. */
    public OptionalInt layerWithoutPlace() {
        return facts.match().isEmpty()
                ? OptionalInt.empty()
                : StopTable.homeless(facts.ledger(), facts.stops().orElseThrow());
    }

    /**
     * What the plan would cost in another order. What a sliced file waits for at its own changes of tools is waited for in no
     * other, but where it lets the nozzle cool itself.
     */
    public Ledger ledger(PrintOrder other) {
        boolean own = other.passes().stream().anyMatch(p -> p.door().isPresent());
        return brief.file()
                .filter(f -> f.changesTools() && !own)
                .flatMap(f -> match(f.warmAtChanges(), brief.colouring().model().grid()))
                .map(warm -> ledger(estimator, other, base.timed(warm), Optional.of(warm)))
                .orElseGet(() -> ledger(estimator, other, base, facts.match()));
    }

    /** What it would cost with its purge elsewhere. */
    public Ledger ledger(PurgePlace place) {
        return ledger(
                new Estimator(
                        brief.rig(),
                        estimator.purges().into(place),
                        estimator.footprintCentre(),
                        brief.terms(),
                        brief.inNozzle()),
                facts.order(),
                // That of a file in another order is all that is printed, as the ledger has it.
                brief.rearranging().made().isPresent() ? facts.ledger().base() : base,
                facts.match());
    }

    private Ledger ledger(Estimator by, PrintOrder order, BasePrint print, Optional<GridMatch> file) {
        return by.ledger(brief.plan(), order, brief.colouring().model().grid(), brief.shelf(), print, file);
    }

    /** What time and plastic go by, for people. */
    public String filledAs() {
        if (facts.match().isEmpty()) {
            return "Time and plastic are estimated with these as long as there is no sliced file.";
        }
        if (facts.layout().copies().isEmpty()) {
            return "The sliced file counts instead; the model was not found in it.";
        }
        CutModel model = brief.colouring().model();
        Volume each = new Volume(
                base.plastic().cubicMillimetres() / facts.layout().copies().size());
        return Words.format(
                "The sliced file counts instead: one copy holds %.2f cm³ there, about as %s would.",
                each.cubicMillimetres() / 1000,
                BasePrint.holding(
                                each,
                                model.sections(),
                                model.grid(),
                                brief.rig().printer(),
                                brief.terms().filling())
                        .rounded()
                        .words());
    }

    private static PrintOrder layered(Orders orders, Optional<GridMatch> match, Progress progress) {
        return match.filter(m -> m.file().order() == SlicedFile.Order.SEVERAL_TIMES)
                .map(m -> PrintOrder.visited(m, orders.numbered()))
                .orElseGet(() -> orders.chosen(progress));
    }

    private static PurgeModel purges(Brief brief) {
        Printer printer = brief.rig().printer();
        return new PurgeModel(
                printer.deadVolume(),
                brief.purge(),
                brief.measured(),
                !printer.hotend().blends());
    }

    /** In which a plan can be printed. */
    static Orders orders(Brief brief) {
        return orders(brief, purges(brief));
    }

    private static Orders orders(Brief brief, PurgeModel purges) {
        Optional<Mixing> mixing = Mixing.of(brief.rig(), brief.plan());
        return new Orders(
                brief.colouring(),
                (out, in) -> toll(brief, purges, mixing, out, in),
                brief.rig().printer().lineWidth(),
                Height.ofMillimetres(brief.rig().printer().hotend().reach()),
                () -> Things.of(
                        brief.colouring(),
                        brief.footprint(),
                        brief.plate().copies(),
                        brief.rig().printer().hotend().head()));
    }

    private static Toll toll(Brief brief, PurgeModel purges, Optional<Mixing> mixing, SpoolId out, SpoolId in) {
        var spool = brief.shelf().get(in);
        Volume purge = purges.between(brief.shelf().get(out), spool).volume();
        double money = purge.grams(spool.density()) * spool.pricePerKilogram().doubleValue() / 1000;
        return new Toll(
                purge.cubicMillimetres(),
                money,
                mixing.map(m -> m.swaps(brief.plan().mixtures(), out, in)).orElse(true));
    }

    static Optional<GridMatch> match(SlicedFile file, LayerGrid grid) {
        try {
            return Optional.of(GridMatch.of(file, grid));
        } catch (Refusal said) {
            // The findings say it again, with the reason.
            return Optional.empty();
        }
    }
}
