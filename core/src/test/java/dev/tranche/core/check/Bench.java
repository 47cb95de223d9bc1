package dev.tranche.core.check;

import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.estimate.Estimator;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.PrintSettings;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.MacroBook;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.purge.PurgeModel;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.Toll;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Progress;
import dev.tranche.core.units.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/** A tile of 20 × 20 × 2 mm with an upper step to 3 mm, planned on a test printer; parts can be exchanged. */
public final class Bench {
    public Printer printer = Printers.plain();
    public MacroBook macros = SwapMethod.PAUSE_AND_PARK.ready();
    public Optional<Rack> rack = Optional.empty();
    public Map<SpoolId, Spool> shelf = new HashMap<>(Spools.SHELF);
    public ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, Spools.SOOT.id());
    public Mesh mesh =
            new Shapes().box(0, 0, 0, 20, 20, 2).box(5, 5, 2, 10, 10, 1).mesh();
    public Optional<SlicedFile> file = Optional.empty();
    public Optional<Schedule> schedule = Optional.empty();
    public Optional<String> written = Optional.empty();
    public PurgeSettings purge = PurgeSettings.USUAL;
    public Terms terms = Terms.ONE;
    public LayerGrid grid = plan.layers().on(mesh.height());
    /** Taken instead of the mesh where a test wants several solids. */
    public Optional<Body> body = Optional.empty();

    public Bench start(double height, Spool spool) {
        plan = plan.startAt(Height.ofMillimetres(height), spool.id(), grid);
        return this;
    }

    public Bench sliced(SmallGcode gcode) {
        return sliced(gcode.bytes());
    }

    public Bench sliced(byte[] bytes) {
        try {
            file = Optional.of(
                    Survey.read(new ByteArrayInputStream(bytes), bytes.length, Motion.COMMON, Progress.UNHEARD));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return this;
    }

    public Body body() {
        return body.orElseGet(() -> Body.of(mesh));
    }

    public Colouring colouring() {
        CutModel model = CutModel.of(body(), grid, Progress.UNHEARD);
        return Colouring.of(plan, model, printer.lineWidth(), Progress.UNHEARD);
    }

    public List<Section> sections() {
        return colouring().model().sections();
    }

    /** Another region, which wins over all there are. */
    public Bench region(Region region) {
        plan = plan.with(plan.regions().plus(region));
        return this;
    }

    public Optional<GridMatch> match() {
        try {
            return file.map(f -> GridMatch.of(f, grid));
        } catch (Refusal refusal) {
            return Optional.empty();
        }
    }

    public Rig rig() {
        return new Rig(printer, rack.orElseGet(() -> Rack.of(printer, 1)), macros);
    }

    public Bench halt(double height, String note) {
        plan = plan.haltAt(new Halt(Height.ofMillimetres(height), note), grid);
        return this;
    }

    /** The swap macro, of these steps alone. */
    public Bench swapping(Step... steps) {
        macros = macros.replace(0, Macro.of(Event.SWAP, steps));
        return this;
    }

    public Ledger ledger() {
        BasePrint base = match().map(m -> BasePrint.from(m, printer.filament()))
                .orElseGet(() -> BasePrint.from(sections(), grid, printer, PrintSettings.COMMON));
        return new Estimator(rig(), purges(), new Coordinate(110, 110), terms)
                .ledger(plan, order(), grid, shelf, base, match());
    }

    public PurgeModel purges() {
        return new PurgeModel(printer.deadVolume(), purge, List.of());
    }

    public Orders orders() {
        return new Orders(
                colouring(),
                (out, in) -> new Toll(
                        purges().between(shelf.get(out), shelf.get(in)).volume().cubicMillimetres(), 0),
                printer.lineWidth(),
                Height.ofMillimetres(printer.hotend().reach()));
    }

    public PrintOrder order() {
        return match().filter(m -> m.file().changesTools())
                .filter(m -> PrintOrder.highestTool(m) < plan.numbering().size())
                .map(m -> PrintOrder.sliced(m, plan.numbering()))
                .orElseGet(() -> orders().chosen());
    }

    public SwapWriter writer() {
        return new SwapWriter("plan-1", rig());
    }

    public PlanFacts facts() {
        Ledger ledger = ledger();
        return new PlanFacts(
                "plan-1",
                writer().state(ledger),
                colouring(),
                IntStream.range(0, body().solids().size())
                        .mapToObj(i -> "part " + (i + 1))
                        .toList(),
                orders(),
                order(),
                plan.tranches(grid),
                new Envelope(100, 120, 100, 120),
                rig(),
                shelf,
                ledger,
                file,
                match(),
                schedule,
                written);
    }

    public List<Finding> findings() {
        return Checks.run(facts());
    }
}
