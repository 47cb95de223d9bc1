package dev.tranche.benchmarks;

import dev.tranche.core.coat.Coating;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
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

/** A ball with a stripe that winds round it, painted on its faces, next to cutting it into the same layers. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 3, time = 5)
@Fork(value = 1, jvmArgsAppend = "-Xmx2g")
public class CoatBenchmark {
    private static final int TRIANGLES = 100_000;
    private static final int LAYERS = 300;

    private PartedModel model;
    private LayerGrid grid;
    private CutModel cut;

    @Setup
    public void make() throws IOException {
        Path file = Inputs.ball(TRIANGLES);
        Mesh ball;
        try (InputStream in = Files.newInputStream(file)) {
            ball = ModelReader.read(in, Files.size(file), Progress.UNHEARD)
                    .body()
                    .solids()
                    .get(0);
        }
        byte[] painted = painted(ball);
        model = ModelReader.read(new ByteArrayInputStream(painted), painted.length, Progress.UNHEARD);
        Height layer = Height.ofMicrometres(ball.height().micrometres() / LAYERS);
        grid = new LayerGrid(layer, layer, ball.height());
        cut = cutting();
    }

    /** Each triangle with corners of its own, in the colour of its place. */
    private static byte[] painted(Mesh ball) {
        StringBuilder obj = new StringBuilder();
        double x0 = ball.footprint().centre().x;
        double y0 = ball.footprint().centre().y;
        for (int t = 0; t < ball.triangles(); t++) {
            double turn = Math.atan2(ball.y(3 * t) - y0, ball.x(3 * t) - x0) / (2 * Math.PI);
            double wound = turn + 3.0 * ball.z(3 * t) / ball.height().micrometres();
            String tint = wound - Math.floor(wound) < 0.25 ? " 0.8 0.1 0.1\n" : " 0.9 0.9 0.9\n";
            for (int c = 3 * t; c < 3 * t + 3; c++) {
                obj.append("v ").append(ball.x(c)).append(' ').append(ball.y(c));
                obj.append(' ').append(ball.z(c) / 1000.0).append(tint);
            }
            obj.append("f -3 -2 -1\n");
        }
        return obj.toString().getBytes(StandardCharsets.US_ASCII);
    }

    @Benchmark
    public List<Region> painting() {
        return Coating.regions(cut, model.coats(), hue -> spool(hue.colour().orElseThrow()), 0.45, Progress.UNHEARD);
    }

    /** The yardstick. */
    @Benchmark
    public CutModel cutting() {
        return CutModel.of(model.body(), grid, Progress.UNHEARD);
    }

    private static Spool spool(Srgb colour) {
        return new Spool(
                new SpoolId(colour.green() < 128 ? 1 : 2),
                colour.hex(),
                Material.PLA,
                colour,
                1.24,
                BigDecimal.valueOf(20),
                210,
                205,
                1000);
    }
}
