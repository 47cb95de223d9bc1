package dev.tranche.benchmarks;

import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.job.Brief;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.rehearse.Deed;
import dev.tranche.core.rehearse.Device;
import dev.tranche.core.rehearse.Encounter;
import dev.tranche.core.rehearse.Rehearsal;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.rehearse.StandIn;
import dev.tranche.core.rehearse.StandInAtWire;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** A file of 60 MB and two tools a layer rehearsed over a local socket, judged line by line, beside reading it with motion. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 1, time = 2)
@Measurement(iterations = 3, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx512m")
public class RehearsalBenchmark {
    private static final int MEGABYTES = 60;
    private static final SpoolId DARK = new SpoolId(1);
    private static final SpoolId LIGHT = new SpoolId(2);
    private static final Rehearsal.Watcher NOBODY = new Rehearsal.Watcher() {
        @Override
        public void at(long bytes, String line, int layer, Controller at) {
            // Nobody looks on.
        }

        @Override
        public void meets(Encounter stop) {
            // Nobody looks on.
        }
    };

    private Path file;
    private PlanFacts facts;

    @Setup
    public void make() throws IOException {
        file = Inputs.twoTools(MEGABYTES);
        Rig rig = Beginning.FEEDER.rig("Bench");
        int layers = readWithMotion().layers().size();
        Body body = new Body(
                Prism.of(
                        Footprint.rectangle(130, 70).outline(),
                        Height.ZERO,
                        Height.ofMicrometres(200 * Math.max(1, layers))),
                0);
        LayerGrid grid = LayerSettings.COMMON.on(body.height());
        CutModel model = CutModel.of(body, grid, Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, DARK);
        plan = plan.with(plan.regions()
                .plus(new Region(
                        "half", new Shape.Zone(new Outline.Box(65, 70), 32.5, 0, 0, false), LIGHT, Range.ALL)));
        facts = Reckoning.of(new Brief(
                        "bench",
                        Colouring.of(plan, model, rig.printer().lineWidth(), Progress.UNHEARD),
                        List.of("part"),
                        PurgeSettings.USUAL,
                        List.of(),
                        rig,
                        Map.of(DARK, spool(DARK, "#1B1B1D"), LIGHT, spool(LIGHT, "#F4F1E8")),
                        List.of(),
                        Optional.empty(),
                        Said.NOTHING,
                        Rearranging.NONE,
                        new Terms(1, Optional.empty()),
                        new Plate(1, 4, List.of(new Spot(110, 110, 0))),
                        Footprint.of(model),
                        Optional.empty(),
                        List.of(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty()))
                .facts();
    }

    private static Spool spool(SpoolId id, String hex) {
        return new Spool(
                id,
                "spool " + id.value(),
                Material.PLA,
                Srgb.parse(hex),
                Material.PLA.density(),
                BigDecimal.TEN,
                210,
                205,
                1000);
    }

    /** The yardstick. */
    @Benchmark
    public SlicedFile readWithMotion() throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return Survey.read(in, Files.size(file), Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
        }
    }

    @Benchmark
    public Report rehearse() throws IOException {
        List<SpoolId> filaments = List.of(DARK, LIGHT);
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
                Socket near = new Socket(server.getInetAddress(), server.getLocalPort());
                Socket far = server.accept();
                InputStream in = Files.newInputStream(file)) {
            StandInAtWire printer = new StandInAtWire(
                    new StandIn(facts.printer(), filaments.size(), 0), far.getInputStream(), far.getOutputStream());
            Thread other = new Thread(() -> run(printer));
            other.setDaemon(true);
            other.start();
            Device device = new Device() {
                @Override
                public OutputStream lines() {
                    return stream(near::getOutputStream);
                }

                @Override
                public InputStream answers() {
                    return stream(near::getInputStream);
                }

                @Override
                public String hand(String does) throws IOException {
                    return printer.hand(does);
                }
            };
            return new Rehearsal(facts, filaments, 2, device, Deed::asPlanned, NOBODY).run(in);
        }
    }

    private static void run(StandInAtWire printer) {
        try {
            printer.run();
        } catch (IOException | InterruptedException over) {
            Thread.currentThread().interrupt();
        }
    }

    private interface Opens<T> {
        T open() throws IOException;
    }

    private static <T> T stream(Opens<T> opens) {
        try {
            return opens.open();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }
}
