package dev.tranche.app.work;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.check.Checks;
import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.PrintSettings;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.format.Part;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tranche;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Toll;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Progress;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Volume;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;

/** Brings stored plans to life. */
@Service
public class Workbench {
    /** Files up to this size are read and cut within one click. */
    private static final long QUICK = 4_000_000;

    private final ModelCuts cuts;
    private final SlicedFiles sliced;
    private final FileStore files;
    private final Shelf shelf;
    private final Workshop workshop;
    private final Settings settings;
    private final Jobs jobs;

    Workbench(
            ModelCuts cuts,
            SlicedFiles sliced,
            FileStore files,
            Shelf shelf,
            Workshop workshop,
            Settings settings,
            Jobs jobs) {
        this.cuts = cuts;
        this.sliced = sliced;
        this.files = files;
        this.shelf = shelf;
        this.workshop = workshop;
        this.settings = settings;
        this.jobs = jobs;
    }

    /** The plan with all its figures; empty if that takes longer than a click, and {@link #prepare} is due. */
    public Optional<Workpiece> open(PlanState plan) {
        Machine machine = workshop.get(plan.content().printer());
        boolean cutReady = plan.modelSize() <= QUICK || cuts.ready(plan.content());
        boolean fileReady = plan.gcode()
                .map(g -> size(g.hash()) <= QUICK
                        || sliced.ready(g.hash(), machine.printer().motion()).isPresent())
                .orElse(true);
        return cutReady && fileReady ? Optional.of(assemble(plan, machine, Progress.UNHEARD)) : Optional.empty();
    }

    /** As {@link #open}, for pages that cannot do without. */
    public Workpiece openNow(PlanState plan) {
        return assemble(plan, workshop.get(plan.content().printer()), Progress.UNHEARD);
    }

    /** Reads and cuts in the background, then goes to {@code page}. */
    public Job prepare(PlanState plan, String page) {
        return jobs.start("Opening " + plan.name(), progress -> {
            assemble(plan, workshop.get(plan.content().printer()), progress);
            return page;
        });
    }

    private Workpiece assemble(PlanState plan, Machine machine, Progress progress) {
        ColourPlan colours = plan.content().colours();
        Printer printer = machine.printer();
        ModelCuts.Cut cut = cuts.cut(plan.content(), progress);
        Colouring colouring = cuts.colouring(plan.content(), printer.lineWidth(), progress);
        LayerGrid grid = cut.model().grid();
        Map<SpoolId, Spool> spools = shelf.byId();
        Optional<SlicedFile> file = plan.gcode().map(g -> sliced.survey(g.hash(), printer.motion(), progress));
        Optional<GridMatch> match = file.flatMap(f -> match(f, grid));
        Envelope footprint = match.map(Workbench::footprint)
                .orElseGet(() -> centred(cut.model().footprint(), printer));
        BasePrint base = match.map(m -> BasePrint.from(m, printer.filament()))
                .orElseGet(() -> BasePrint.from(cut.model().sections(), grid, printer, PrintSettings.COMMON));
        PurgeModel purges = new PurgeModel(printer.deadVolume(), plan.content().purge(), machine.purges());
        Orders orders = orders(colouring, purges, spools, printer);
        PrintOrder order = match.filter(m -> m.file().changesTools()
                        && PrintOrder.highestTool(m) < colours.numbering().size())
                .map(m -> PrintOrder.sliced(m, colours.numbering()))
                .orElseGet(orders::chosen);
        Terms terms = new Terms(plan.content().copies(), settings.now().power(printer.watts()));
        Estimator estimator = new Estimator(machine.rig(), purges, footprint.centre(), terms);
        Ledger ledger = estimator.ledger(colours, order, grid, spools, base, match);
        Optional<Schedule> schedule = schedule(plan, ledger, printer);
        List<Tranche> tranches = colours.tranches(grid);
        List<String> names = names(plan);
        SwapWriter writer = new SwapWriter(plan.id(), machine.rig());
        String state = writer.state(ledger);
        PlanFacts facts = new PlanFacts(
                plan.id(),
                state,
                colouring,
                names,
                orders,
                order,
                tranches,
                footprint,
                machine.rig(),
                spools,
                ledger,
                file,
                match,
                schedule,
                plan.written());
        return new Workpiece(
                plan,
                cut,
                colouring,
                orders,
                order,
                base,
                estimator,
                names,
                spools,
                machine,
                tranches,
                ledger,
                schedule,
                Checks.run(facts),
                file,
                match,
                writer,
                state);
    }

    /** By the clock, if the plan has a start; one that has fallen into an hour that is skipped begins an hour later. */
    private Optional<Schedule> schedule(PlanState plan, Ledger ledger, Printer printer) {
        Settings.Current now = settings.now();
        return plan.content()
                .start()
                .map(local -> Schedule.of(ledger, local.atZone(now.zone()), printer.heaterLimit(), now.quiet()));
    }

    private static Orders orders(Colouring colouring, PurgeModel purges, Map<SpoolId, Spool> spools, Printer printer) {
        return new Orders(
                colouring,
                (out, in) -> {
                    Volume purge =
                            purges.between(spools.get(out), spools.get(in)).volume();
                    double grams = purge.grams(spools.get(in).density());
                    return new Toll(
                            purge.cubicMillimetres(),
                            grams * spools.get(in).pricePerKilogram().doubleValue() / 1000);
                },
                printer.lineWidth(),
                Height.ofMillimetres(printer.hotend().reach()));
    }

    /** What the parts are called: by their owner, or else by their files. */
    private List<String> names(PlanState plan) {
        List<Part> parts = cuts.model(plan.content().files(), Progress.UNHEARD).parts();
        return IntStream.range(0, parts.size())
                .mapToObj(i -> {
                    String own = plan.content().parts().of(i).name();
                    return own.isEmpty() ? parts.get(i).name() : own;
                })
                .toList();
    }

    private static Optional<GridMatch> match(SlicedFile file, LayerGrid grid) {
        try {
            return Optional.of(GridMatch.of(file, grid));
        } catch (Refusal said) {
            // The findings say it again, with the reason.
            return Optional.empty();
        }
    }

    /** Where the file prints the part: all layers but the first, which may have a skirt round it. */
    private static Envelope footprint(GridMatch match) {
        Envelope all = new Envelope();
        for (int layer = Math.min(2, match.grid().count());
                layer <= match.grid().count();
                layer++) {
            all.expandToInclude(match.layer(layer).extent());
        }
        return all;
    }

    private static Envelope centred(Envelope model, Printer printer) {
        Coordinate bed = printer.bed().bounds().centre();
        double w = model.getWidth() / 2;
        double d = model.getHeight() / 2;
        return new Envelope(bed.x - w, bed.x + w, bed.y - d, bed.y + d);
    }

    private long size(String hash) {
        try {
            return Files.size(files.path(hash));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
