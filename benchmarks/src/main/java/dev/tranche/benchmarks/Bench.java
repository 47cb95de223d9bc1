package dev.tranche.benchmarks;

import dev.tranche.core.format.StlReader;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.units.Progress;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** Runs the benchmarks and says what they mean: work per second, and multiples of the yardsticks. */
public final class Bench {
    private Bench() {}

    public static void main(String[] args) throws Exception {
        Map<String, Double> milliseconds = new HashMap<>();
        for (RunResult result : new Runner(new OptionsBuilder()
                        .include(CoreBenchmark.class.getSimpleName())
                        .build())
                .run()) {
            milliseconds.put(
                    result.getPrimaryResult().getLabel(),
                    result.getPrimaryResult().getScore());
        }
        Path ball = Inputs.ball(CoreBenchmark.TRIANGLES);
        double megabytes = Files.size(ball) / 1e6;
        long crossings = crossings(ball);
        double stl = milliseconds.get("readStl");
        double cut = milliseconds.get("cutLayers");
        double gcode = milliseconds.get("surveyGcode");
        say("");
        say(
                "Reading a binary STL of %,d triangles (%.0f MB): %.0f ms, %.0f MB/s;",
                CoreBenchmark.TRIANGLES, megabytes, stl, megabytes / stl * 1000);
        say(
                "  %.1f × reading the raw bytes, %.1f × reading and keeping them.",
                stl / milliseconds.get("readRawBytes"), stl / milliseconds.get("readRawBytesAndKeep"));
        say(
                "Cutting it into %d layers: %.0f ms, %,.0f triangle-layer crossings a second (%,d in all).",
                CoreBenchmark.LAYERS, cut, crossings / cut * 1000, crossings);
        say(
                "Reading %d MB of G-code with full motion: %.0f ms, %.0f MB/s; %.1f × counting its newlines.",
                CoreBenchmark.GCODE_MEGABYTES,
                gcode,
                CoreBenchmark.GCODE_MEGABYTES * 1.048576 / gcode * 1000,
                gcode / milliseconds.get("countNewlines"));
    }

    private static long crossings(Path ball) throws Exception {
        Mesh mesh;
        try (InputStream in = Files.newInputStream(ball)) {
            mesh = StlReader.read(in, Files.size(ball), Progress.UNHEARD);
        }
        int[] planes = CoreBenchmark.grid(mesh).middles();
        long sum = 0;
        for (int c = 0; c < 3 * mesh.triangles(); c += 3) {
            int low = 2 * Math.min(mesh.z(c), Math.min(mesh.z(c + 1), mesh.z(c + 2)));
            int high = 2 * Math.max(mesh.z(c), Math.max(mesh.z(c + 1), mesh.z(c + 2)));
            for (int plane : planes) {
                if (plane > low && plane <= high) {
                    sum++;
                }
            }
        }
        return sum;
    }

    private static void say(String format, Object... arguments) {
        System.out.println(String.format(Locale.ROOT, format, arguments));
    }
}
