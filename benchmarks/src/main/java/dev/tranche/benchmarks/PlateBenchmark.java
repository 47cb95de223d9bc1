package dev.tranche.benchmarks;

import dev.tranche.core.machine.Bed;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Spot;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Tags of 300 corners on a bed, arranged and by hand, beside the distances of all pairs by JTS alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(value = 1, jvmArgsAppend = "-Xmx1g")
public class PlateBenchmark {
    private static final Bed BED = new Bed.Rectangular(220, 220);
    private static final GeometryFactory PLANE = new GeometryFactory();

    private final Footprint tag = new Footprint(tag(300), new Coordinate());
    private final Plate many = new Plate(110, 2, List.of());
    private final Plate byHand =
            new Plate(30, 2, Layout.of(new Plate(30, 3, List.of()), tag, BED).spots());

    private static MultiPolygon tag(int corners) {
        Coordinate[] ring = new Coordinate[corners + 1];
        for (int i = 0; i < corners; i++) {
            double turn = 2 * Math.PI * i / corners;
            double wavy = 1 + 0.1 * Math.sin(12 * turn);
            ring[i] = new Coordinate(9 * wavy * Math.cos(turn), 7 * wavy * Math.sin(turn));
        }
        ring[corners] = ring[0];
        return PLANE.createMultiPolygon(new Polygon[] {PLANE.createPolygon(ring)});
    }

    @Benchmark
    public Layout arrange110() {
        return Layout.of(many, tag, BED);
    }

    @Benchmark
    public Layout look30ByHand() {
        return Layout.of(byHand, tag, BED);
    }

    /** The yardstick. */
    @Benchmark
    public double distancesOf30ByJts() {
        List<Geometry> copies = new ArrayList<>();
        for (Spot spot : byHand.byHand()) {
            copies.add(tag.at(spot));
        }
        double least = Double.MAX_VALUE;
        for (int i = 0; i < copies.size(); i++) {
            for (int j = i + 1; j < copies.size(); j++) {
                least = Math.min(least, copies.get(i).distance(copies.get(j)));
            }
        }
        return least;
    }
}
