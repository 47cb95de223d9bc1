package dev.tranche.benchmarks;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Skin;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
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

/** A plate of many square holes, next to what JTS alone takes to draw it in and let it out. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 1, time = 3)
@Measurement(iterations = 3, time = 5)
@Fork(value = 1, jvmArgsAppend = "-Xmx2g")
public class SieveBenchmark {
    static final int HOLES_A_SIDE = 100;
    private static final double PITCH = 2;
    private static final double LINE = 0.45;
    private static final double BROAD = 1.2;
    private static final double NARROW = 0.4;
    private static final int MOST = 500;
    private static final GeometryFactory PLANE = new GeometryFactory();
    private static final SpoolId SPOOL = new SpoolId(1);

    private MultiPolygon broad;
    private MultiPolygon narrow;
    private Colouring colouring;
    private Paints paints;

    @Setup
    public void make() {
        broad = sieve(BROAD);
        narrow = sieve(NARROW);
        Body body = new Body(Prism.of(broad, Height.parse("0"), Height.parse("3")), 0);
        Height layer = Height.parse("0.2");
        LayerGrid grid = new LayerGrid(layer, layer, body.height());
        CutModel cut = CutModel.of(body, grid, Progress.UNHEARD);
        colouring = Colouring.of(ColourPlan.of(LayerSettings.COMMON, SPOOL), cut, LINE, Progress.UNHEARD);
        Spool spool =
                new Spool(SPOOL, "Leaf", Material.PLA, Srgb.parse("#3E7D3A"), 1.24, BigDecimal.TEN, 210, 205, 800);
        paints = new Paints(Map.of(SPOOL, spool), Mixtures.NONE, grid);
    }

    /** @param bar how wide the plastic is between two holes, mm */
    private static MultiPolygon sieve(double bar) {
        double side = HOLES_A_SIDE * PITCH + bar;
        LinearRing[] holes = IntStream.range(0, HOLES_A_SIDE * HOLES_A_SIDE)
                .mapToObj(i -> square(bar + PITCH * (i % HOLES_A_SIDE), bar + PITCH * (i / HOLES_A_SIDE), PITCH - bar))
                .toArray(LinearRing[]::new);
        return Areas.of(PLANE.createPolygon(square(0, 0, side), holes));
    }

    private static LinearRing square(double x, double y, double side) {
        return ((Polygon) PLANE.toGeometry(new Envelope(x, x + side, y, y + side))).getExteriorRing();
    }

    @Benchmark
    public List<Thin> tooThinBetweenBroadBars() {
        return Thin.of(broad, LINE, MOST);
    }

    @Benchmark
    public List<Thin> tooThinBetweenNarrowBars() {
        return Thin.of(narrow, LINE, MOST);
    }

    @Benchmark
    public Skin skinOfASieve() {
        return Skin.of(colouring, paints, Progress.UNHEARD);
    }

    /** The yardstick: an opening of the whole at once. */
    @Benchmark
    public Geometry openByJtsAlone() {
        return broad.buffer(-LINE / 2).buffer(LINE / 2);
    }
}
