package dev.tranche.benchmarks;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Outlook;
import dev.tranche.core.layer.Outlooks;
import dev.tranche.core.look.Looks;
import dev.tranche.core.look.Patch;
import dev.tranche.core.look.View;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Recipe;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Regions;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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

/** A piece looked at after an edit, next to the areas seen of each layer by JTS alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 3)
@Measurement(iterations = 4, time = 3)
@Fork(value = 1, jvmArgsAppend = "-Xmx2g")
public class LookBenchmark {
    private static final int TRIANGLES = 100_000;
    private static final int LAYERS = 300;
    private static final int REGIONS = 12;
    private static final int BARS = 30;
    private static final String[] COLOURS = {"#F4F1E8", "#1B1B1D", "#3E7D3A", "#B5653A", "#D9B85C"};

    private final Map<SpoolId, Spool> shelf = new HashMap<>();
    private CutModel ball;
    private Colouring colouring;
    private ColourPlan here;
    private ColourPlan nudged;
    private Colouring many;
    private ColourPlan manyHere;
    private ColourPlan manyNudged;
    private Colouring fading;
    private ColourPlan fadingHere;
    private ColourPlan fadingNudged;

    @Setup
    public void make() throws IOException {
        Path file = Inputs.ball(TRIANGLES);
        Body body;
        try (InputStream in = Files.newInputStream(file)) {
            body = ModelReader.read(in, Files.size(file), Progress.UNHEARD).body();
        }
        Height layer = Height.ofMicrometres(body.height().micrometres() / LAYERS);
        ball = CutModel.of(body, new LayerGrid(layer, layer, body.height()), Progress.UNHEARD);
        for (int i = 0; i < COLOURS.length; i++) {
            SpoolId id = new SpoolId(i + 1);
            Spool spool = new Spool(
                    id, "Spool " + i, Material.PLA, Srgb.parse(COLOURS[i]), 1.24, BigDecimal.TEN, 210, 205, 800);
            shelf.put(id, spool);
        }
        here = zones(0);
        nudged = zones(0.5);
        colouring = Colouring.of(here, ball, 0.45, Progress.UNHEARD);
        colouring.outlooks().from(true, Progress.UNHEARD);
        manyHere = bars(0);
        manyNudged = bars(0.5);
        many = colouring.with(manyHere, 0.45);
        fadingHere = fading(here);
        fadingNudged = fading(nudged);
        fading = colouring.with(fadingHere, 0.45);
    }

    private static ColourPlan zones(double nudge) {
        Regions regions = Regions.NONE;
        for (int i = 0; i < REGIONS; i++) {
            double x = 18 * Math.cos(i * Math.PI / 6) + (i == 6 ? nudge : 0);
            double y = 18 * Math.sin(i * Math.PI / 6);
            Shape disc = new Shape.Zone(new Outline.Disc(12), x, y, 0, false);
            regions = regions.plus(new Region("disc " + i, disc, new SpoolId(i % 5 + 1), Range.ALL));
        }
        return ColourPlan.of(LayerSettings.COMMON, new SpoolId(1)).with(regions);
    }

    @Benchmark
    public List<Patch> fromAboveAfterANudge() {
        return after(View.ABOVE);
    }

    @Benchmark
    public List<Patch> heldToLightAfterANudge() {
        return after(View.LIGHT);
    }

    private List<Patch> after(View view) {
        colouring = colouring.with(colouring.plan() == here ? nudged : here, 0.45);
        return new Looks(colouring, shelf).from(view, Progress.UNHEARD);
    }

    /** Thirty bars over one another, which begin and end on different layers. */
    @Benchmark
    public List<Patch> manyFromAboveAfterANudge() {
        many = many.with(many.plan() == manyHere ? manyNudged : manyHere, 0.45);
        return new Looks(many, shelf).from(View.ABOVE, Progress.UNHEARD);
    }

    private ColourPlan bars(double nudge) {
        Regions regions = Regions.NONE;
        for (int i = 0; i < BARS; i++) {
            double x = 16 * Math.cos(i) + (i == BARS / 2 ? nudge : 0);
            Shape bar = new Shape.Zone(new Outline.Box(20, 3), x, 16 * Math.sin(i), 7 * i, false);
            Range range = Range.ofLayers(ball.grid(), 1 + 4 * i, LAYERS - 3 * i);
            regions = regions.plus(new Region("bar " + i, bar, new SpoolId(i % 5 + 1), range));
        }
        return ColourPlan.of(LayerSettings.COMMON, new SpoolId(1)).with(regions);
    }

    /** The same where the colour by height is a fade, another one on each layer. */
    @Benchmark
    public List<Patch> fadingFromAboveAfterANudge() {
        fading = fading.with(fading.plan() == fadingHere ? fadingNudged : fadingHere, 0.45);
        return new Looks(fading, shelf).from(View.ABOVE, Progress.UNHEARD);
    }

    private ColourPlan fading(ColourPlan plan) {
        SpoolId fade = new SpoolId(-1);
        Height top = ball.grid().printedHeight();
        return plan.fading(
                new Mixture.Fade(fade, Recipe.of(new SpoolId(1)), Recipe.of(new SpoolId(4)), Height.ZERO, top),
                new SpoolId(4),
                ball.grid());
    }

    /** Once for a model, whatever its colours. */
    @Benchmark
    public Outlook outlook() {
        return new Outlooks(ball).from(true, Progress.UNHEARD);
    }

    /** The yardstick: what of each layer nothing above it covers, and nothing else. */
    @Benchmark
    public List<Geometry> overlayByJtsAlone() {
        List<Geometry> seen = new ArrayList<>();
        Geometry above = ball.section(LAYERS).outline();
        for (int layer = LAYERS - 1; layer >= 1; layer--) {
            Geometry outline = ball.section(layer).outline();
            seen.add(OverlayNGRobust.overlay(outline, above, OverlayNG.DIFFERENCE));
            above = OverlayNGRobust.overlay(above, outline, OverlayNG.UNION);
        }
        return seen;
    }
}
