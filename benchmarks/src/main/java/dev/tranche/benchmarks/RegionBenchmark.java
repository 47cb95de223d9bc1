package dev.tranche.benchmarks;

import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
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

/** Colours per layer, next to the same areas by JTS alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 3)
@Measurement(iterations = 4, time = 3)
@Fork(value = 1, jvmArgsAppend = "-Xmx6g")
public class RegionBenchmark {
    static final int PARTS = 40;
    static final int LAYERS = 300;
    static final int EDITED_LAYERS = 400;
    static final int REGIONS = 12;
    private static final int BALL = 100_000;
    private static final double LINE = 0.45;

    private Path partsFile;
    private PartedModel parts;
    private ColourPlan byPart;
    private CutModel ball;
    private Colouring colouring;
    private ColourPlan here;
    private ColourPlan nudged;

    @Setup
    public void make() throws IOException {
        partsFile = Inputs.balls(PARTS, CoreBenchmark.TRIANGLES / PARTS);
        parts = readParts();
        Regions regions = Regions.NONE;
        for (int part = 1; part < PARTS; part++) {
            regions = regions.plus(
                    new Region("part " + part, new Shape.Parts(List.of(part)), new SpoolId(part % 6 + 1), Range.ALL));
        }
        byPart = ColourPlan.of(LayerSettings.COMMON, new SpoolId(1)).with(regions);
        Body body;
        Path file = Inputs.ball(BALL);
        try (InputStream in = Files.newInputStream(file)) {
            body = ModelReader.read(in, Files.size(file), Progress.UNHEARD).body();
        }
        ball = CutModel.of(body, grid(body, EDITED_LAYERS), Progress.UNHEARD);
        here = zones(0);
        nudged = zones(0.5);
        colouring = Colouring.of(here, ball, LINE, Progress.UNHEARD);
    }

    private static LayerGrid grid(Body body, int layers) {
        Height layer = Height.ofMicrometres(body.height().micrometres() / layers);
        return new LayerGrid(layer, layer, body.height());
    }

    /** Twelve discs that overlap, through all layers; the seventh nudged. */
    private ColourPlan zones(double nudge) {
        Regions regions = Regions.NONE;
        for (int i = 0; i < REGIONS; i++) {
            double x = 18 * Math.cos(i * Math.PI / 6) + (i == 6 ? nudge : 0);
            double y = 18 * Math.sin(i * Math.PI / 6);
            regions = regions.plus(new Region(
                    "disc " + i,
                    new Shape.Zone(new Outline.Disc(12), x, y, 0, false),
                    new SpoolId(i % 5 + 1),
                    Range.ALL));
        }
        return ColourPlan.of(LayerSettings.COMMON, new SpoolId(1)).with(regions);
    }

    @Benchmark
    public PartedModel readParts() throws IOException {
        try (InputStream in = Files.newInputStream(partsFile)) {
            return ModelReader.read(in, Files.size(partsFile), Progress.UNHEARD);
        }
    }

    /** From the mesh to the colours of every layer, and the order of printing. */
    @Benchmark
    public PrintOrder colourParts() {
        CutModel cut = CutModel.of(parts.body(), grid(parts.body(), LAYERS), Progress.UNHEARD);
        return PrintOrder.numbered(Colouring.of(byPart, cut, LINE, Progress.UNHEARD), byPart.numbering());
    }

    @Benchmark
    public Colouring nudgeOneOfTwelve() {
        colouring = colouring.with(colouring.plan() == here ? nudged : here, LINE);
        return colouring;
    }

    @Benchmark
    public Colouring colourTwelveAnew() {
        return Colouring.of(here, ball, LINE, Progress.UNHEARD);
    }

    /** The yardstick: the same areas, layer by layer and region by region, and nothing kept. */
    @Benchmark
    public List<Geometry> overlayByJtsAlone() {
        List<Geometry> areas = new ArrayList<>();
        for (int layer = 1; layer <= EDITED_LAYERS; layer++) {
            Geometry left = ball.section(layer).outline();
            for (int r = REGIONS - 1; r >= 0; r--) {
                Geometry zone = ((Shape.Zone) here.regions().get(r).shape()).area();
                areas.add(OverlayNGRobust.overlay(left, zone, OverlayNG.INTERSECTION));
                left = OverlayNGRobust.overlay(left, zone, OverlayNG.DIFFERENCE);
            }
            areas.add(left);
        }
        return areas;
    }
}
