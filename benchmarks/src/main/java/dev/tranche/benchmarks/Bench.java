package dev.tranche.benchmarks;

import dev.tranche.core.format.StlReader;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.util.Statistics;

/** Runs the benchmarks and says what they mean: work per second, and multiples of the yardsticks. */
public final class Bench {
    private Bench() {}

    public static void main(String[] args) throws Exception {
        Map<String, Statistics> samples = new HashMap<>();
        for (RunResult result : new Runner(new OptionsBuilder()
                        .include(CoreBenchmark.class.getSimpleName())
                        .include(RegionBenchmark.class.getSimpleName())
                        .include(OrderBenchmark.class.getSimpleName())
                        .include(SieveBenchmark.class.getSimpleName())
                        .output("benchmarks/target/harness.log")
                        .build())
                .run()) {
            samples.put(
                    result.getPrimaryResult().getLabel(),
                    result.getPrimaryResult().getStatistics());
        }
        Path ball = Inputs.ball(CoreBenchmark.TRIANGLES);
        double megabytes = Files.size(ball) / 1e6;
        long crossings = crossings(ball);
        double stl = best(samples, "readStl");
        double cut = best(samples, "cutLayers");
        double gcode = best(samples, "surveyGcode");
        say("");
        say("Best of the samples, which other work on the machine disturbs least; medians in brackets.");
        say("");
        say(
                "Reading a binary STL of %,d triangles (%.0f MB): %.0f ms (%.0f), %.0f MB/s;",
                CoreBenchmark.TRIANGLES, megabytes, stl, median(samples, "readStl"), megabytes / stl * 1000);
        say(
                "  %.1f × reading the raw bytes and dropping them (%.1f ms), %.1f × reading and keeping them (%.1f ms).",
                stl / best(samples, "readRawBytes"),
                best(samples, "readRawBytes"),
                stl / best(samples, "readRawBytesAndKeep"),
                best(samples, "readRawBytesAndKeep"));
        say(
                "Writing it as 3MF: %.0f ms (%.0f); %.1f × packing the same text alone (%.0f ms).",
                best(samples, "writeThreeMf"),
                median(samples, "writeThreeMf"),
                best(samples, "writeThreeMf") / best(samples, "packTextAlone"),
                best(samples, "packTextAlone"));
        say(
                "Cutting it into %d layers: %.0f ms (%.0f), %,.0f triangle-layer crossings a second (%,d in all); %.0f × as fast as JTS alone (%.0f ms).",
                CoreBenchmark.LAYERS,
                cut,
                median(samples, "cutLayers"),
                crossings / cut * 1000,
                crossings,
                best(samples, "cutByJtsAlone") / cut,
                best(samples, "cutByJtsAlone"));
        say(
                "Reading %d MB of G-code with full motion: %.0f ms (%.0f), %.0f MB/s; %.1f × counting its newlines (%.1f ms).",
                CoreBenchmark.GCODE_MEGABYTES,
                gcode,
                median(samples, "surveyGcode"),
                CoreBenchmark.GCODE_MEGABYTES * 1.048576 / gcode * 1000,
                gcode / best(samples, "countNewlines"),
                best(samples, "countNewlines"));
        say(
                "Best order of %,d layers, eight of 26 colours on each: %.1f ms (%.1f), %,.0f layers a second, %.0f × adding them up as they come (%.2f ms);",
                OrderBenchmark.LAYERS,
                best(samples, "bestOfAll"),
                median(samples, "bestOfAll"),
                OrderBenchmark.LAYERS / best(samples, "bestOfAll") * 1000,
                best(samples, "bestOfAll") / best(samples, "asTheyCome"),
                best(samples, "asTheyCome"));
        say(
                "  one to eight of eight colours: %.1f ms (%.1f).",
                best(samples, "bestOfFew"), median(samples, "bestOfFew"));
        say(
                "Dry run of a macro of 60 steps: %.2f ms (%.2f); %.1f × its lines through the bare interpreter (%.3f ms).",
                best(samples, "dryRunSixtySteps"),
                median(samples, "dryRunSixtySteps"),
                best(samples, "dryRunSixtySteps") / best(samples, "obeySixtySteps"),
                best(samples, "obeySixtySteps"));
        say(
                "Colours of %d parts (%,d triangles) on %d layers, cut and all: %.0f ms (%.0f); reading them into parts: %.0f ms (%.0f), %.1f × reading one mesh.",
                RegionBenchmark.PARTS,
                CoreBenchmark.TRIANGLES,
                RegionBenchmark.LAYERS,
                best(samples, "colourParts"),
                median(samples, "colourParts"),
                best(samples, "readParts"),
                median(samples, "readParts"),
                best(samples, "readParts") / stl);
        say(
                "One of %d regions nudged on %d layers: %.0f ms (%.0f), %.2f × the same areas by JTS alone (%.0f ms); all of them anew: %.0f ms (%.0f).",
                RegionBenchmark.REGIONS,
                RegionBenchmark.EDITED_LAYERS,
                best(samples, "nudgeOneOfTwelve"),
                median(samples, "nudgeOneOfTwelve"),
                best(samples, "nudgeOneOfTwelve") / best(samples, "overlayByJtsAlone"),
                best(samples, "overlayByJtsAlone"),
                best(samples, "colourTwelveAnew"),
                median(samples, "colourTwelveAnew"));
        say(
                "What is too thin of a plate of %,d holes: %.0f ms (%.0f) where none is, %.0f ms (%.0f) where all is; drawn in and let out by JTS alone: %.0f ms. Its skin: %.0f ms (%.0f).",
                SieveBenchmark.HOLES_A_SIDE * SieveBenchmark.HOLES_A_SIDE,
                best(samples, "tooThinBetweenBroadBars"),
                median(samples, "tooThinBetweenBroadBars"),
                best(samples, "tooThinBetweenNarrowBars"),
                median(samples, "tooThinBetweenNarrowBars"),
                best(samples, "openByJtsAlone"),
                best(samples, "skinOfASieve"),
                median(samples, "skinOfASieve"));
    }

    private static double best(Map<String, Statistics> samples, String name) {
        return samples.get(name).getMin();
    }

    private static double median(Map<String, Statistics> samples, String name) {
        return samples.get(name).getPercentile(50);
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
