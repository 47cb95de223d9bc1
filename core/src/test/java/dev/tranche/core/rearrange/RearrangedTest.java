package dev.tranche.core.rearrange;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rearrange.TwoTools.Way;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Progress;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** Files that are printed in another order than they were sliced in. */
class RearrangedTest {

    static Bench bar(int layers, Ordering.Rule rule) {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 10, 0.2 * layers).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        for (int stripe = 0; stripe < 2; stripe++) {
            bench.region(new Region(
                    "stripe " + stripe,
                    new Shape.Zone(new Outline.Box(10, 10), 15 + 20 * stripe, 5, 0, false),
                    Spools.CHALK.id(),
                    Range.ALL));
        }
        bench.plan = bench.plan.with(bench.plan.ordering().by(rule));
        return bench;
    }

    record Made(Rearranged rearranged, byte[] bytes, byte[] restored) {}

    static Made rearrange(Bench bench, byte[] original) throws IOException {
        bench.sliced(original);
        GridMatch match = bench.match().orElseThrow();
        Colouring colouring = bench.colouring();
        ToolTable tools = ToolTable.of(match, colouring, Map.of());
        Path file = Files.createTempFile("original", ".gcode");
        Path other = Files.createTempFile("rearranged", ".gcode");
        try {
            Files.write(file, original);
            try (FileChannel channel = FileChannel.open(file)) {
                Rearranged made = Rearranged.of(
                        channel,
                        match,
                        tools,
                        apart -> bench.orders().apart(apart).chosen(),
                        bench.printer,
                        Progress.UNHEARD);
                byte[] bytes = made.open(channel).readAllBytes();
                Files.write(other, bytes);
                ByteArrayOutputStream back = new ByteArrayOutputStream();
                try (FileChannel there = FileChannel.open(other)) {
                    Restoring.copy(there, back);
                }
                return new Made(made, bytes, back.toByteArray());
            }
        } finally {
            Files.delete(file);
            Files.delete(other);
        }
    }

    @Test
    void a_bar_of_stripes_needs_one_swap_in_a_band_where_it_needed_one_a_layer() throws IOException {
        byte[] original = new TwoTools(EnumSet.noneOf(Way.class), 12).bytes();
        Bench bench = bar(12, Ordering.Rule.BANDS);
        assertThat(bench.sliced(original).ledger().swaps()).hasSize(12);
        Made made = rearrange(bench, original);
        Proof.holds(original, made.bytes());
        assertThat(made.restored()).isEqualTo(original);
        assertThat(bar(12, Ordering.Rule.BANDS).sliced(made.bytes()).ledger().swaps())
                .hasSize(1);
    }

    @Test
    void with_a_reach_of_0_8_mm_bands_are_four_layers_high() throws IOException {
        // Forty layers: ten bands, and the loaded spool begins each (common practice).
        byte[] original = new TwoTools(EnumSet.of(Way.ADDED), 40).bytes();
        Bench bench = bar(40, Ordering.Rule.BANDS);
        bench.printer = Printers.reaching(0.8);
        Made made = rearrange(bench, original);
        bench.sliced(made.bytes());
        assertThat(bench.ledger().swaps()).hasSize(10);
        assertThat(made.restored()).isEqualTo(original);
    }

    @Property(tries = 150)
    void whatever_a_program_does_the_same_is_printed_and_no_way_leads_through_plastic(
            @ForAll("ways") Set<Way> ways, @ForAll @IntRange(min = 2, max = 6) int layers, @ForAll boolean tube)
            throws IOException {
        byte[] original = new TwoTools(ways, layers).bytes();
        Bench bench = bar(layers, Ordering.Rule.BANDS);
        if (tube) {
            bench.printer = Printers.withTube();
        }
        Made made = rearrange(bench, original);
        assertThat(made.rearranged().isChanged()).isTrue();
        Proof.holds(original, made.bytes());
        assertThat(made.restored()).isEqualTo(original);
    }

    @Property(tries = 120)
    void any_stack_of_colours_is_printed_in_bands_and_nothing_before_what_lies_beneath(
            @ForAll("patchworks") Patchwork patchwork, @ForAll("reaches") double reach) throws IOException {
        byte[] original = patchwork.bytes();
        Bench bench = patchwork.bench(Ordering.Rule.BANDS, reach);
        int before = bench.sliced(original).ledger().swaps().size();
        Made made = rearrange(bench, original);
        Proof.holds(original, made.bytes());
        assertThat(made.restored()).isEqualTo(original);
        assertThat(bench.sliced(made.bytes()).ledger().swaps()).hasSizeLessThanOrEqualTo(before);
        assertThat(bench.match()).isPresent();
    }

    @Property(tries = 60)
    void the_best_order_inside_layers_is_printed_with_as_many_swaps_as_it_promised(
            @ForAll("patchworks") Patchwork patchwork) throws IOException {
        byte[] original = patchwork.bytes();
        Bench bench = patchwork.bench(Ordering.Rule.BEST, 3);
        int promised = bench.ledger().swaps().size();
        Made made = rearrange(bench, original);
        Proof.holds(original, made.bytes());
        assertThat(made.restored()).isEqualTo(original);
        assertThat(bench.sliced(made.bytes()).ledger().swaps()).hasSize(promised);
    }

    @Provide
    Arbitrary<Patchwork> patchworks() {
        return Arbitraries.integers()
                .between(2, 5)
                .flatMap(colours -> Arbitraries.integers()
                        .between(0, colours - 1)
                        .list()
                        .ofSize(Patchwork.CELLS)
                        .list()
                        .ofMinSize(2)
                        .ofMaxSize(6))
                .map(Patchwork::new);
    }

    @Provide
    Arbitrary<Double> reaches() {
        return Arbitraries.of(0.4, 0.6, 0.8, 3.0);
    }

    @Provide
    Arbitrary<Set<Way>> ways() {
        return Arbitraries.of(Way.class).set();
    }
}
