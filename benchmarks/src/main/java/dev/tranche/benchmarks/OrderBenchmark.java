package dev.tranche.benchmarks;

import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Orders;
import dev.tranche.core.sequence.Toll;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
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

/** The best order of 2,000 layers with eight colours each, beside printing them as they come. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "-Xmx6g")
public class OrderBenchmark {
    static final int LAYERS = 2_000;
    private static final int ON_A_LAYER = 8;

    /** Nearly every layer holds another eight of 26 colours: the hardest there is. */
    private List<Set<SpoolId>> all;
    /** One to eight of eight colours. */
    private List<Set<SpoolId>> few;

    private double[][] purge;

    @Setup
    public void make() {
        Random random = new Random(7);
        all = layers(random, 26, ON_A_LAYER);
        few = layers(random, ON_A_LAYER, 1);
        purge = new double[26][26];
        for (double[] row : purge) {
            for (int i = 0; i < row.length; i++) {
                row[i] = 20 + random.nextInt(480);
            }
        }
    }

    private static List<Set<SpoolId>> layers(Random random, int palette, int least) {
        List<Set<SpoolId>> layers = new ArrayList<>();
        for (int i = 0; i < LAYERS; i++) {
            int size = least + random.nextInt(ON_A_LAYER - least + 1);
            Set<SpoolId> layer = new HashSet<>();
            while (layer.size() < size) {
                layer.add(new SpoolId(random.nextInt(palette)));
            }
            layers.add(layer);
        }
        return layers;
    }

    private Toll toll(SpoolId out, SpoolId in) {
        return new Toll(purge[(int) out.value()][(int) in.value()], 0);
    }

    @Benchmark
    public List<List<SpoolId>> bestOfAll() {
        return Orders.best(all, Aim.SWAPS, this::toll);
    }

    @Benchmark
    public List<List<SpoolId>> bestOfFew() {
        return Orders.best(few, Aim.SWAPS, this::toll);
    }

    /** The yardstick: the layers as they come, and what that costs. */
    @Benchmark
    public double asTheyCome() {
        double sum = 0;
        SpoolId loaded = null;
        for (Set<SpoolId> layer : all) {
            for (SpoolId next : layer) {
                sum += loaded == null || loaded.equals(next)
                        ? 0
                        : toll(loaded, next).purge();
                loaded = next;
            }
        }
        return sum;
    }
}
