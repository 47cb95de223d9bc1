package dev.tranche.benchmarks;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Terms;
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
import java.math.BigDecimal;
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

/** A plate of 30 copies of 400 layers, two colours on each and a tower, reckoned anew, beside its ledger alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx2g")
public class WaysBackBenchmark {
    private static final int COPIES = 30;
    private static final SpoolId DARK = new SpoolId(1);
    private static final SpoolId LIGHT = new SpoolId(2);

    private Brief brief;
    private Reckoning known;

    @Setup
    public void make() {
        Rig rig = Beginning.DIRECT_PAUSE.rig("Bench");
        Body body = new Body(Prism.of(Footprint.rectangle(24, 14).outline(), Height.ZERO, Height.ofMillimetres(80)), 0);
        LayerGrid grid = LayerSettings.COMMON.on(body.height());
        CutModel model = CutModel.of(body, grid, Progress.UNHEARD);
        ColourPlan plan = ColourPlan.of(LayerSettings.COMMON, DARK);
        plan = plan.with(plan.regions()
                .plus(new Region("half", new Shape.Zone(new Outline.Box(10, 14), 7, 0, 0, false), LIGHT, Range.ALL)));
        Colouring colouring = Colouring.of(plan, model, rig.printer().lineWidth(), Progress.UNHEARD);
        brief = new Brief(
                "bench",
                colouring,
                List.of("part"),
                PurgeSettings.USUAL.into(new PurgePlace.OnTower(30)),
                List.of(),
                rig,
                Map.of(DARK, spool(DARK, "#1B1B1D"), LIGHT, spool(LIGHT, "#F4F1E8")),
                Optional.empty(),
                Said.NOTHING,
                Rearranging.NONE,
                new Terms(COPIES, Optional.empty()),
                Plate.ONE.times(COPIES),
                Footprint.of(model),
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
        known = Reckoning.of(brief);
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
