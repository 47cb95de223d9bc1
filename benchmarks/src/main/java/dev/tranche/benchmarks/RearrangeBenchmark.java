package dev.tranche.benchmarks;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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

/** A file of two tools put into bands of four layers, beside reading it with motion. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx1g")
public class RearrangeBenchmark {
    static final int MEGABYTES = 200;
    private static final int BAND = 4;

    private Path file;
    private Rearranged bands;

    @Setup
    public void make() throws IOException {
        file = Inputs.twoTools(MEGABYTES);
        SlicedFile survey = readWithMotion();
        int layers = survey.layers().size();
        LayerGrid grid = new LayerGrid(Height.parse("0.2"), Height.parse("0.2"), Height.ofMicrometres(200 * layers));
        SpoolId[] spools = {new SpoolId(1), new SpoolId(2)};
        List<Pass> passes = new ArrayList<>();
        for (int first = 1; first <= layers; first += BAND) {
            for (int tool = 0; tool < 2; tool++) {
                for (int layer = first; layer < Math.min(first + BAND, layers + 1); layer++) {
                    passes.add(new Pass(layer, spools[tool], 0.5 * tool, 0.5 + 0.5 * tool, 0.5, Optional.empty()));
                }
            }
        }
        List<ToolTable.Tool> tools = new ArrayList<>();
        for (int tool = 0; tool < 2; tool++) {
            tools.add(new ToolTable.Tool(tool, 1, 1, layers, List.of(new ToolTable.Turn(1, spools[tool])), false));
        }
        try (Source source = source()) {
            bands = Rearranged.of(
                    source,
                    GridMatch.of(survey, grid),
                    new ToolTable(tools, 1, List.of()),
                    apart -> new PrintOrder(passes, true),
                    printer(),
                    Progress.UNHEARD);
        }
    }

    private static Printer printer() {
        return CoreBenchmark.RIG.printer();
    }

    private Source source() throws IOException {
        return Source.of(FileChannel.open(file));
    }

    /** The yardstick. */
    @Benchmark
    public SlicedFile readWithMotion() throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return Survey.read(in, Files.size(file), Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
        }
    }

    @Benchmark
    public long rearrange() throws IOException {
        try (Source source = source()) {
            return read(bands.open(source));
        }
    }

    @Benchmark
    public long readBytes() throws IOException {
        try (Source source = source()) {
            return read(source.open());
        }
    }

    private static long read(InputStream in) throws IOException {
        byte[] chunk = new byte[1 << 16];
        long sum = 0;
        for (int n = in.read(chunk); n >= 0; n = in.read(chunk)) {
            sum += n;
        }
        return sum;
    }
}
