package dev.tranche.core.check;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.QuietTime;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.SwapWriter;
import dev.tranche.core.job.Brief;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.job.Wish;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Looks;
import dev.tranche.core.machine.Command;
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
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.purge.MeasuredPurge;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.ZonedDateTime;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

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
    private byte[] bytes = {};
    public Said said = Said.NOTHING;
    public Optional<ZonedDateTime> start = Optional.empty();
    public List<QuietTime> quiet = List.of();
    public Optional<String> written = Optional.empty();
    public Optional<SpoolId> inNozzle = Optional.empty();
    public Optional<String> rehearsed = Optional.empty();
    public PurgeSettings purge = PurgeSettings.USUAL;
    public List<MeasuredPurge> measured = List.of();
    public Terms terms = Terms.ONE;
    public Optional<Plate> plate = Optional.empty();
    public LayerGrid grid = plan.layers().on(mesh.height());
    /** Taken instead of the mesh where a test wants several solids. */
    public Optional<Body> body = Optional.empty();

    private Optional<Reckoned> last = Optional.empty();

    /** What a reckoning came from, and what it came to; the same again comes to the same. */
    private record Reckoned(List<Object> from, Reckoning to) {}

    private List<Object> given() {
        return List.of(
                printer,
                macros,
                rack,
                Map.copyOf(shelf),
                plan,
                mesh,
                file,
                bytes,
                said,
                start,
                quiet,
                written,
                inNozzle,
                rehearsed,
                purge,
                measured,
                terms,
                plate,
                grid,
                body);
    }

    public Bench start(double height, Spool spool) {
        plan = plan.startAt(Height.ofMillimetres(height), spool.id(), grid);
        return this;
    }

    public Bench sliced(SmallGcode gcode) {
        return sliced(gcode.bytes());
    }

    public Bench sliced(byte[] bytes) {
        this.bytes = bytes;
        try {
            file = Optional.of(Survey.read(
                    new ByteArrayInputStream(bytes),
                    bytes.length,
                    Motion.COMMON,
                    printer.abilities().dialect(),
                    printer.abilities().understands(Command.T),
                    Progress.UNHEARD));
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
        return facts().match();
    }

    /** Takes the mend of the printer that a finding offers. */
    public void mendPrinter(String key) {
        macros = found(key).fix().orElseThrow().rig().orElseThrow().apply(rig()).macros();
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

    /** All of it reckoned, as pages and programs have it reckoned. */
    public Reckoning reckoning() {
        List<Object> given = given();
        if (last.filter(l -> l.from().equals(given)).isEmpty()) {
            Brief plain = brief();
            Brief brief = plain.with(Wish.of(plain, () -> plain(), Progress.UNHEARD)
                    .map(this::fulfil)
                    .orElse(Rearranging.NONE));
            // What an edit leaves as it was is taken over, as it is in pages.
            last = Optional.of(new Reckoned(
                    given,
                    Reckoning.of(
                            brief,
                            new Looks(brief.colouring(), brief.shelf()),
                            last.map(Reckoned::to),
                            Progress.UNHEARD)));
        }
        return last.orElseThrow().to();
    }

    private SlicedFile plain() {
        try (Source source = source();
                InputStream in = source.open()) {
            return Survey.read(
                    in,
                    source.size(),
                    Motion.COMMON,
                    printer.abilities().dialect(),
                    printer.abilities().understands(Command.T),
                    Progress.UNHEARD);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Rearranging fulfil(Wish wish) {
        try (Source source = source()) {
            return wish.fulfil(source, printer, Progress.UNHEARD);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The bytes of the sliced file as its program wrote it. */
    public Source source() throws IOException {
        Path kept = Files.createTempFile("sliced", ".gcode");
        Files.write(kept, bytes);
        return Source.of(
                FileChannel.open(kept, StandardOpenOption.READ, StandardOpenOption.DELETE_ON_CLOSE),
                file.orElseThrow());
    }

    /** The file as it will be printed, with the plan's stops in it. */
    public byte[] written() throws IOException {
        Reckoning reckoning = reckoning();
        try (Source source = source();
                InputStream in = reckoning
                        .brief()
                        .rearranging()
                        .made()
                        .map(m -> m.open(source))
                        .orElseGet(source::open)) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reckoning.patch().copy(in, out, Progress.UNHEARD);
            return out.toByteArray();
        }
    }

    private Brief brief() {
        Colouring colouring = colouring();
        return new Brief(
                "plan-1",
                colouring,
                IntStream.range(0, body().solids().size())
                        .mapToObj(i -> "part " + (i + 1))
                        .toList(),
                purge,
                measured,
                rig(),
                shelf,
                shelf.keySet().stream()
                        .sorted(Comparator.comparingLong(SpoolId::value))
                        .toList(),
                file,
                said,
                Rearranging.NONE,
                terms,
                plate.orElseGet(() -> Plate.ONE.times(terms.copies())),
                Footprint.of(colouring.model()),
                start,
                quiet,
                written,
                inNozzle,
                rehearsed);
    }

    public Ledger ledger() {
        return reckoning().facts().ledger();
    }

    public Orders orders() {
        return reckoning().facts().orders();
    }

    public SwapWriter writer() {
        return reckoning().writer();
    }

    public PlanFacts facts() {
        return reckoning().facts();
    }

    public List<Finding> findings() {
        return reckoning().findings();
    }

    /** The finding of that key. */
    public Finding found(String key) {
        return findings().stream().filter(f -> f.key().equals(key)).findFirst().orElseThrow();
    }
}
