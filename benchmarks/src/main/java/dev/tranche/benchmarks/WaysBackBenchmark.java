package dev.tranche.benchmarks;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Terms;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.job.Brief;
import dev.tranche.core.job.Reckoning;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
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
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.returns.ReturnPaths;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
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
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * A plate of copies of 300 or 400 layers, two colours on each and a tower, reckoned anew, beside its ledger alone: 30 that stand
 * upright, or one whose walls lean and bulge, so that every layer is seen from above.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx2g")
public class WaysBackBenchmark {
    private static final int COPIES = 30;
    private static final int TRIANGLES = 50_000;
    private static final SpoolId DARK = new SpoolId(1);
    private static final SpoolId LIGHT = new SpoolId(2);

    @Param({"upright", "ball"})
    public String model;

    private Brief brief;
    private Reckoning known;

    @Setup
    public void make() throws IOException {
        Rig rig = Beginning.DIRECT_PAUSE.rig("Bench");
        boolean leans = model.equals("ball");
        int copies = leans ? 1 : COPIES;
        Body body = leans
                ? ball()
                : new Body(Prism.of(Footprint.rectangle(24, 14).outline(), Height.ZERO, Height.ofMillimetres(80)), 0);
        LayerGrid grid = LayerSettings.COMMON.on(body.height());
        CutModel cut = CutModel.of(body, grid, Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, DARK);
        plan = plan.with(plan.regions()
                .plus(new Region(
                        "half",
                        new Shape.Zone(new Outline.Box(leans ? 40 : 10, leans ? 80 : 14), leans ? 20 : 7, 0, 0, false),
                        LIGHT,
                        Range.ALL)));
        Colouring colouring = Colouring.of(plan, cut, rig.printer().lineWidth(), Progress.UNHEARD);
        brief = new Brief(
                "bench",
                colouring,
                List.of("part"),
                PurgeSettings.USUAL.into(new PurgePlace.OnTower(30)),
                List.of(),
                rig,
                Map.of(DARK, spool(DARK, "#1B1B1D"), LIGHT, spool(LIGHT, "#F4F1E8")),
                List.of(),
                Optional.empty(),
                Said.NOTHING,
                Rearranging.NONE,
                new Terms(copies, Optional.empty()),
                Plate.ONE.times(copies),
                Footprint.of(cut),
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
        known = Reckoning.of(brief);
    }

    private static Body ball() throws IOException {
        Path file = Inputs.ball(TRIANGLES);
        try (InputStream in = Files.newInputStream(file)) {
            return ModelReader.read(in, Files.size(file), Progress.UNHEARD).body();
        }
    }

    private static Spool spool(SpoolId id, String hex) {
        return new Spool(
                id,
                "spool " + id.value(),
                Material.PLA,
                Srgb.parse(hex),
                Material.PLA.density(),
                BigDecimal.valueOf(20),
                210,
                205,
                800);
    }

    @Benchmark
    public Reckoning all() {
        return Reckoning.of(brief);
    }

    @Benchmark
    public ReturnPaths waysBack() {
        return ReturnPaths.of(
                known.facts().order(),
                known.facts().ledger(),
                brief.colouring(),
                known.facts().orders()::things,
                brief.footprint(),
                known.facts().layout());
    }

    /** The yardstick. */
    @Benchmark
    public Ledger ledger() {
        return known.ledger(known.facts().order());
    }
}
