package dev.tranche.benchmarks;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.StlReader;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.SectionSweep;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.polygonize.Polygonizer;
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

/** Each reading of the core next to its yardstick on the same bytes. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx6g")
public class CoreBenchmark {
    static final int TRIANGLES = 1_000_000;
    static final int LAYERS = 300;
    static final int GCODE_MEGABYTES = 64;

    private Path stl;
    private Mesh mesh;
    private int[] middles;
    private byte[] gcode;
    private byte[] text;

    @Setup
    public void make() throws IOException {
        stl = Inputs.ball(TRIANGLES);
        mesh = readStl();
        middles = grid(mesh).middles();
        gcode = Inputs.gcode(GCODE_MEGABYTES);
        text = longestEntry(threeMf());
    }

    static LayerGrid grid(Mesh mesh) {
        Height layer = Height.ofMicrometres(mesh.height().micrometres() / LAYERS);
        return new LayerGrid(layer, layer, mesh.height());
    }

    static final Rig RIG = Beginning.SELECTOR.rig("Bench");
    private static final Macro SIXTY = sixty();
    private static final byte[] SIXTY_LINES = String.join(
                    "\n", RenderedLine.texts(RIG.tryOut(SIXTY, 1).lines()))
            .getBytes(java.nio.charset.StandardCharsets.US_ASCII);

    /** The yardstick of reading models: all bytes of the file, block by block, and nothing done with them. */
    @Benchmark
    public long readRawBytes() throws IOException {
        byte[] block = new byte[4096 * 50];
        long sum = 0;
        try (InputStream in = Files.newInputStream(stl)) {
            for (int read = in.readNBytes(block, 0, block.length);
                    read > 0;
                    read = in.readNBytes(block, 0, block.length)) {
                sum += read + block[0];
            }
        }
        return sum;
    }

    /** A second yardstick: all bytes into one array, which is the least a reader has to keep. */
    @Benchmark
    public byte[] readRawBytesAndKeep() throws IOException {
        return Files.readAllBytes(stl);
    }

    @Benchmark
    public Mesh readStl() throws IOException {
        try (InputStream in = Files.newInputStream(stl)) {
            return StlReader.read(in, Files.size(stl), Progress.UNHEARD);
        }
    }

    @Benchmark
    public int writeThreeMf() throws IOException {
        return threeMf().length;
    }

    private byte[] threeMf() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ThreeMfWriter.write(
                "Ball", List.of(new ThreeMfWriter.Thing("ball", "Chalk", Srgb.parse("#F0EBDC"), List.of(mesh))), out);
        return out.toByteArray();
    }

    /** The yardstick of writing models: the text that was written, packed in one go. */
    @Benchmark
    public int packTextAlone() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("text"));
            zip.write(text);
        }
        return out.size();
    }

    private static byte[] longestEntry(byte[] archive) throws IOException {
        byte[] longest = {};
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            while (zip.getNextEntry() != null) {
                byte[] entry = zip.readAllBytes();
                longest = entry.length > longest.length ? entry : longest;
            }
        }
        return longest;
    }

    @Benchmark
    public List<Section> cutLayers() {
        return SectionSweep.cut(mesh, middles, Progress.UNHEARD);
    }

    /** The yardstick of cutting: each triangle's segment handed to JTS, which makes polygons of them, layer by layer. */
    @Benchmark
    public double cutByJtsAlone() {
        GeometryFactory plane = new GeometryFactory();
        List<Polygonizer> layers = new ArrayList<>();
        for (int i = 0; i < middles.length; i++) {
            layers.add(new Polygonizer());
        }
        for (int corner = 0; corner < 3 * mesh.triangles(); corner += 3) {
            int low = 2 * Math.min(mesh.z(corner), Math.min(mesh.z(corner + 1), mesh.z(corner + 2)));
            int high = 2 * Math.max(mesh.z(corner), Math.max(mesh.z(corner + 1), mesh.z(corner + 2)));
            int first = Arrays.binarySearch(middles, low + 1);
            for (int i = first < 0 ? -first - 1 : first; i < middles.length && middles[i] <= high; i++) {
                layers.get(i).add(plane.createLineString(segment(corner, middles[i])));
            }
        }
        double area = 0;
        for (Polygonizer layer : layers) {
            for (Object polygon : layer.getPolygons()) {
                area += ((Polygon) polygon).getArea();
            }
        }
        return area;
    }

    private Coordinate[] segment(int corner, int middle) {
        Coordinate[] ends = new Coordinate[2];
        for (int e = 0, found = 0; e < 3 && found < 2; e++) {
            int p = corner + e;
            int q = corner + (e + 1) % 3;
            if (2 * mesh.z(p) < middle != 2 * mesh.z(q) < middle) {
                int below = 2 * mesh.z(p) < middle ? p : q;
                int above = below == p ? q : p;
                double t = (middle - 2.0 * mesh.z(below)) / (2.0 * mesh.z(above) - 2.0 * mesh.z(below));
                ends[found++] = new Coordinate(
                        mesh.x(below) + t * (mesh.x(above) - mesh.x(below)),
                        mesh.y(below) + t * (mesh.y(above) - mesh.y(below)));
            }
        }
        return ends;
    }

    /** The yardstick of reading G-code. */
    @Benchmark
    public int countNewlines() {
        int lines = 0;
        for (byte b : gcode) {
            if (b == '\n') {
                lines++;
            }
        }
        return lines;
    }

    @Benchmark
    public SlicedFile surveyGcode() throws IOException {
        return Survey.read(
                new ByteArrayInputStream(gcode), gcode.length, Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
    }

    /** A macro of 60 steps, rendered, run and looked at for faults. */
    @Benchmark
    public DryRun dryRunSixtySteps() {
        return RIG.tryOut(SIXTY, 1);
    }

    /** The yardstick of dry runs: the same lines through the bare interpreter. */
    @Benchmark
    public ControllerState obeySixtySteps() throws IOException {
        GcodeScanner line = new GcodeScanner(new ByteArrayInputStream(SIXTY_LINES));
        Controller controller = new Controller(RIG.typical(Event.SWAP, 1).entry(), Dialect.COMMON);
        while (line.next()) {
            controller.execute(line);
        }
        return controller.state();
    }

    private static Macro sixty() {
        Macro ready = RIG.macros().answer(Event.SWAP).orElseThrow();
        Macro sixty = ready;
        while (sixty.steps().size() < 60) {
            sixty = sixty.insert(
                    sixty.steps().size(),
                    ready.steps().get(sixty.steps().size() % ready.steps().size()));
        }
        return sixty;
    }
}
