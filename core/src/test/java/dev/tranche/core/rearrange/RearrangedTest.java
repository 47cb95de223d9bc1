package dev.tranche.core.rearrange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.Derivation;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.handoff.PlainMachine;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rearrange.TwoTools.Way;
import dev.tranche.core.sequence.Band;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Files that are printed in another order than they were sliced in. */
public class RearrangedTest {

    public static Bench bar(int layers, Ordering.Rule rule) {
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

    /** The file in another order, before any swap is written, and what comes of putting it back. */
    record Made(Rearranged rearranged, byte[] bytes, byte[] restored) {}

    private static Made rearrange(Bench bench, byte[] original) throws IOException {
        Rearranged made = bench.reckoning().brief().rearranging().made().orElseThrow();
        try (Source source = bench.source()) {
            byte[] bytes = made.open(source).readAllBytes();
            return new Made(made, bytes, restored(bytes));
        }
    }

    private static byte[] restored(byte[] bytes) throws IOException {
        ByteArrayOutputStream back = new ByteArrayOutputStream();
        try (Source source = new Bench().sliced(bytes).source()) {
            Restoring.copy(source, back);
        }
        return back.toByteArray();
    }

    @Test
    void a_bar_of_stripes_needs_one_swap_in_a_band_where_it_needed_one_a_layer() throws IOException {
        byte[] original = new TwoTools(EnumSet.noneOf(Way.class), 12).bytes();
        assertThat(bar(12, Ordering.Rule.NUMBERED).sliced(original).ledger().swaps())
                .hasSize(12);
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(original);
        assertThat(bench.ledger().swaps()).extracting(Swap::layer).containsExactly(1);
        assertThat(bench.findings()).extracting(Finding::severity).doesNotContain(Severity.STOP);
        // In one colour it takes as long as it was sliced; the ways over what stands are the colours'.
        assertThat(bench.ledger().plainSeconds())
                .isCloseTo(bench.file.orElseThrow().seconds(), within(1e-6));
        assertThat(bench.ledger().addedTime().value())
                .isCloseTo(bench.ledger().totalSeconds() - bench.ledger().plainSeconds(), within(1e-6));
        assertThat(bench.ledger().addedTime().parts())
                .extracting(Derivation::label)
                .contains("Ways in this order");
        byte[] written = bench.written();
        Proof.standsFree(written);
        assertThat(new String(written, StandardCharsets.US_ASCII).lines())
                .filteredOn(l -> l.startsWith("; tranche begin") && l.contains(" swap="))
                .hasSize(1);
        assertThat(restored(written)).isEqualTo(original);
    }

    /** A piece says itself how hot its plastic is: it is not heated for the tool that came before it in the file. */
    @Test
    void nothing_is_heated_between_two_pieces_of_one_tool() throws IOException {
        String text = new String(new TwoTools(EnumSet.noneOf(Way.class), 12).bytes(), StandardCharsets.US_ASCII);
        byte[] original = text.replaceAll("(?m)^T0(.*)$", "T0$1\nM109 S190")
                .replaceAll("(?m)^T1(.*)$", "T1$1\nM109 S230")
                .getBytes(StandardCharsets.US_ASCII);
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(original);
        assertThat(bench.ledger().swaps()).hasSize(1);
        Made made = rearrange(bench, original);
        assertThat(new String(made.bytes(), StandardCharsets.US_ASCII).lines())
                .filteredOn(l -> l.matches("M10[49] .*") && l.endsWith(BlockStamp.ADDED))
                .hasSizeLessThanOrEqualTo(2);
        assertThat(made.restored()).isEqualTo(original);
        assertThat(bench.ledger().plainSeconds())
                .isLessThanOrEqualTo(bench.file.orElseThrow().seconds());
    }

    /** What a way over plastic draws back is pushed out again before the next line, of the one filament that there is. */
    @ParameterizedTest
    @EnumSource(
            value = Way.class,
            names = {"ADDED", "HOPS", "TRIMS", "COUNTS_ANEW", "TOWER", "FROM_OUTSIDE"})
    void no_line_begins_with_filament_that_is_still_drawn_back(Way way) throws IOException {
        byte[] original = new TwoTools(EnumSet.of(way), 6).bytes();
        for (Ordering.Aim aim : Ordering.Aim.values()) {
            for (Ordering.Rule rule : List.of(Ordering.Rule.BANDS, Ordering.Rule.BEST)) {
                for (List<SpoolId> numbers : List.of(
                        List.of(Spools.SOOT.id(), Spools.CHALK.id()), List.of(Spools.CHALK.id(), Spools.SOOT.id()))) {
                    Bench bench = bar(6, rule);
                    bench.plan = bench.plan.with(new Ordering(rule, aim, numbers));
                    assertThat(dry(bench.sliced(original).written()))
                            .as("%s, %s, %s", aim, rule, numbers)
                            .isEmpty();
                }
            }
        }
    }

    /** As programs do that name no tool before the second, push out before they change, or leave the primed filament drawn back. */
    @ParameterizedTest
    @CsvSource({
        "true,true,true",
        "true,true,false",
        "true,false,true",
        "true,false,false",
        "false,true,true",
        "false,true,false",
        "false,false,true",
        "false,false,false"
    })
    void nor_the_first_where_another_tool_than_the_files_first_begins(boolean named, boolean pushed, boolean drawn)
            throws IOException {
        String text = new String(new TwoTools(EnumSet.of(Way.ADDED), 6).bytes(), StandardCharsets.US_ASCII);
        text = pushed ? text.replaceAll("\nT(\\d)\nG0", "\nG1 E1 F1800\nT$1\nG1 E-1 F1800\nG0") : text;
        text = drawn ? text.replaceFirst("T0\n", "G1 E-1 F1800\nT0\n") : text;
        text = named ? text : text.replaceFirst("T0\n", "");
        for (Ordering.Rule rule : Ordering.Rule.values()) {
            for (List<SpoolId> numbers : List.of(
                    List.of(Spools.SOOT.id(), Spools.CHALK.id()), List.of(Spools.CHALK.id(), Spools.SOOT.id()))) {
                Bench bench = bar(6, rule);
                bench.plan = bench.plan.with(new Ordering(rule, Ordering.Aim.SWAPS, numbers));
                assertThat(dry(bench.sliced(text.getBytes(StandardCharsets.US_ASCII))
                                .written()))
                        .as("%s %s", rule, numbers)
                        .isEmpty();
            }
        }
    }

    /**
     * Programs keep one retraction for all tools, or one for each; what is pushed before a tool's first line tells which. Drawn back
     * by the one and pushed by the other as far as on any way, or further, or not at all where the way is short.
     */
    @ParameterizedTest
    @CsvSource({"ADDED,1", "HOPS,1", "COUNTS_ANEW,1", "TRIMS,1", "CRLF,1", "INCHES,1", "ADDED,0", "ADDED,16"})
    void a_tool_begins_as_far_drawn_back_as_the_file_has_it_though_another_was_drawn_back_before(Way way, int far)
            throws IOException {
        String text = new String(new TwoTools(EnumSet.of(way), 6).bytes(), StandardCharsets.US_ASCII);
        if (far != 1) {
            String change = far == 0 ? "$1" : "\nG1 E-" + far + " F1800$1\nG1 E" + far + " F1800";
            int from = text.indexOf(far == 0 ? "; layer 3" : "; layer 1");
            text = text.substring(0, from)
                    + text.substring(from)
                            .replaceAll("\nG1 E-1 F1800((?:\n;)*\nT\\d(?:\n;)*\nG0.*)\nG1 E1 F1800", change);
        }
        byte[] original = text.getBytes(StandardCharsets.US_ASCII);
        for (Ordering.Rule rule : Ordering.Rule.values()) {
            for (List<SpoolId> numbers : List.of(
                    List.of(Spools.SOOT.id(), Spools.CHALK.id()), List.of(Spools.CHALK.id(), Spools.SOOT.id()))) {
                Bench bench = bar(6, rule);
                bench.plan = bench.plan.with(new Ordering(rule, Ordering.Aim.SWAPS, numbers));
                byte[] written = bench.sliced(original).written();
                assertThat(dry(written)).as("%s %s", rule, numbers).isEmpty();
                assertThat(flooded(written)).as("%s %s", rule, numbers).isLessThan(flooded(original) + 0.01);
            }
        }
    }

    /** Filament that comes out in one place, but by swaps, mm. */
    private static double flooded(byte[] written) throws IOException {
        double flooded = 0;
        Controller controller = new Controller(Dialect.COMMON);
        GcodeScanner line = new GcodeScanner(new ByteArrayInputStream(written));
        double tip = 0;
        boolean swaps = false;
        while (line.next()) {
            if (line.isComment()) {
                String said = line.comment();
                swaps = said.contains("tranche begin")
                        ? said.contains(" swap=")
                        : swaps && !said.contains("tranche end");
            } else if (controller.execute(line) == Controller.Effect.MOVE) {
                boolean stays = controller.dx() == 0 && controller.dy() == 0;
                flooded += swaps || !stays ? 0 : Math.max(0, tip + controller.de());
                tip = Math.min(0, tip + controller.de());
            }
        }
        return flooded;
    }

    /** Lines that print while the filament's tip is not at the nozzle's. */
    private static List<String> dry(byte[] written) throws IOException {
        List<String> dry = new ArrayList<>();
        Controller controller = new Controller(Dialect.COMMON);
        GcodeScanner line = new GcodeScanner(new ByteArrayInputStream(written));
        double tip = 0;
        while (line.next()) {
            if (line.isComment()) {
                continue;
            }
            // Whoever swaps puts the other filament in up to the nozzle's tip.
            tip = line.is('M', 0) ? 0 : tip;
            if (controller.execute(line) == Controller.Effect.MOVE) {
                if (tip < -0.01 && controller.de() > 0 && controller.length() > 0) {
                    dry.add(line.text());
                }
                tip = Math.min(0, tip + controller.de());
            }
        }
        return dry;
    }

    @Test
    void twelve_layers_with_a_reach_of_0_8_mm_need_three_swaps_and_forty_need_ten() throws IOException {
        // Bands of four layers, and the loaded spool begins each (common practice).
        for (int layers : List.of(12, 40)) {
            byte[] original = new TwoTools(EnumSet.of(Way.ADDED), layers).bytes();
            Bench bench = bar(layers, Ordering.Rule.BANDS);
            bench.printer = Printers.reaching(0.8);
            assertThat(bench.sliced(original).ledger().swaps()).hasSize(layers / 4);
            Proof.standsFree(bench.written());
        }
    }

    @Test
    void a_halt_parts_the_bands_and_comes_once() throws IOException {
        byte[] original = new TwoTools(EnumSet.of(Way.ADDED), 12).bytes();
        Bench bench = bar(12, Ordering.Rule.BANDS).halt(1.2, "embed a ring").sliced(original);
        assertThat(bench.ledger().swaps()).extracting(Swap::layer).containsExactly(1, 7);
        assertThat(bench.ledger().pauses()).extracting(Pause::layer).containsExactly(7);
        Proof.standsFree(bench.written());
    }

    @Test
    void a_tower_in_the_file_keeps_layers_apart_and_the_page_is_told_where() throws IOException {
        byte[] original = new TwoTools(EnumSet.of(Way.TOWER), 12).bytes();
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(original);
        assertThat(bench.ledger().swaps()).hasSizeGreaterThan(8);
        assertThat(bench.orders().bands().list())
                .filteredOn(b -> b.end() instanceof Band.End.File)
                .isNotEmpty();
        Proof.standsFree(bench.written());
        assertThat(restored(bench.written())).isEqualTo(original);
    }

    @Test
    void a_tower_that_leaves_nothing_but_the_files_own_order_is_the_reason_given() {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 12; layer++) {
            gcode.rise(0.2 * layer);
            // The tool that printed last goes on, and each lays its part of the tower over the other's.
            for (int tool : layer % 2 == 1 ? new int[] {0, 1} : new int[] {1, 0}) {
                gcode.line("T" + tool).dab(150, 100).outline(90 + 5 * tool, 90, 4, 4, 0.04);
            }
        }
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(gcode);
        assertThat(bench.found("not-rearranged").sentence()).contains("slice it without a tower");
    }

    @Test
    void a_file_that_homes_in_the_middle_stays_as_it_is_and_says_why() {
        byte[] original = new String(new TwoTools(EnumSet.of(Way.ADDED), 12).bytes(), StandardCharsets.US_ASCII)
                .replaceFirst("; layer 7\n", "; layer 7\nG28 X\n")
                .getBytes(StandardCharsets.US_ASCII);
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(original);
        long line = new String(original, StandardCharsets.US_ASCII)
                        .lines()
                        .takeWhile(l -> !l.equals("G28 X"))
                        .count()
                + 1;
        assertThat(bench.found("not-rearranged").sentence()).contains("Line " + line + " of the G-code", "“G28 X”");
        assertThat(bench.ledger().swaps()).hasSize(12);
        bench.plan = bench.found("not-rearranged").fix().orElseThrow().colours().apply(bench.plan);
        assertThat(bench.findings()).extracting(Finding::severity).doesNotContain(Severity.STOP);
    }

    @Test
    void a_written_file_that_comes_back_is_rearranged_from_what_it_was() throws IOException {
        byte[] original = new TwoTools(EnumSet.of(Way.ADDED, Way.CRLF), 12).bytes();
        byte[] written = bar(12, Ordering.Rule.BANDS).sliced(original).written();
        Bench back = bar(12, Ordering.Rule.BANDS).sliced(written);
        assertThat(back.file.orElseThrow().pieces()).isPositive();
        assertThat(restored(written)).isEqualTo(original);
        assertThat(bar(12, Ordering.Rule.BANDS).sliced(restored(written)).written())
                .isEqualTo(written);
    }

    @Test
    void a_file_that_holds_swaps_already_is_rearranged_as_if_it_held_none() throws IOException {
        byte[] original = new TwoTools(EnumSet.of(Way.HOPS, Way.CRLF), 12).bytes();
        byte[] written = bar(12, Ordering.Rule.NUMBERED).sliced(original).written();
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(written);
        assertThat(bench.ledger().swaps()).hasSize(1);
        assertThat(restored(bench.written())).isEqualTo(original);
        Proof.standsFree(bench.written());
    }

    @Test
    void a_way_along_an_arc_is_led_over_what_stands_though_its_ends_are_free() throws IOException {
        // From one outline of the left stripe to the one in it, round a middle 10 mm to the right: through the next
        // stripe.
        byte[] original = new String(new TwoTools(EnumSet.of(Way.ADDED), 6).bytes(), StandardCharsets.US_ASCII)
                .replace("G0 X62.2 Y62.2 F7200", "G3 X62.2 Y62.2 I10 J0 F7200")
                .getBytes(StandardCharsets.US_ASCII);
        Made made = rearrange(bar(6, Ordering.Rule.BANDS).sliced(original), original);
        assertThat(new String(made.bytes(), StandardCharsets.US_ASCII)).contains("; tranche took G3 X62.2");
        assertThat(made.restored()).isEqualTo(original);
    }

    @ParameterizedTest
    @CsvSource({"BANDS,in bands", "BEST,in the best order"})
    void lines_with_numbers_cannot_change_places(Ordering.Rule rule, String manner) {
        StringBuilder numbered = new StringBuilder();
        int number = 1;
        for (String line :
                new String(new TwoTools(EnumSet.of(Way.ADDED), 12).bytes(), StandardCharsets.US_ASCII).split("\n")) {
            numbered.append(line.startsWith(";") ? "" : "N" + number++ + " ")
                    .append(line)
                    .append('\n');
        }
        Bench bench = bar(12, rule);
        bench.plan = bench.plan.with(bench.plan.ordering().numbered(List.of(Spools.CHALK.id(), Spools.SOOT.id())));
        bench.sliced(numbered.toString().getBytes(StandardCharsets.US_ASCII));
        assertThat(bench.found("not-rearranged").sentence())
                .contains("prints " + manner + ", and", "numbers its lines");
    }

    @Test
    void what_was_said_of_a_stop_holds_in_any_order_of_the_file() throws IOException {
        String text = new String(new TwoTools(EnumSet.of(Way.ADDED), 12).bytes(), StandardCharsets.US_ASCII);
        byte[] original = text.replaceFirst("; layer 3\n", "; layer 3\nM0 third\n")
                .replaceFirst("T0\n; layer 9\n", "T0\n; layer 9\n")
                .replaceFirst("; layer 8\n", "; layer 8\nM0 eighth\n")
                .replaceFirst("; the end\n", "; the end\nM0 last\n")
                .getBytes(StandardCharsets.US_ASCII);
        for (Ordering.Rule rule : Ordering.Rule.values()) {
            Bench bench = bar(12, rule).sliced(original);
            assertThat(bench.match().orElseThrow().file().stops())
                    .extracting(SlicedFile.Stop::text)
                    .containsExactly("M0 third", "M0 eighth", "M0 last");
        }
    }

    @Test
    void a_layer_that_begins_without_a_travel_keeps_the_file_as_it_is() {
        byte[] original = new String(new TwoTools(EnumSet.of(Way.ADDED), 12).bytes(), StandardCharsets.US_ASCII)
                .replaceFirst("; layer 7\nG1 Z1.4 F600\nG0 X[^\n]*\nG1 E1[^\n]*\n", "; layer 7\nG1 X61 Y61 Z1.4 E0.1\n")
                .getBytes(StandardCharsets.US_ASCII);
        Bench bench = bar(12, Ordering.Rule.BANDS).sliced(original);
        assertThat(bench.found("not-rearranged").sentence()).contains("Layer 7 of the G-code begins without a travel");
    }

    @Property(tries = 60)
    void a_rearranged_file_that_lost_a_line_is_not_taken_for_whole(@ForAll @IntRange(max = 5000) int which)
            throws IOException {
        byte[] original = new TwoTools(EnumSet.of(Way.ADDED), 12).bytes();
        List<String> lines = new ArrayList<>(
                new String(bar(12, Ordering.Rule.BANDS).sliced(original).written(), StandardCharsets.US_ASCII)
                        .lines()
                        .toList());
        String lost = lines.remove(which % lines.size());
        byte[] damaged = (String.join("\n", lines) + "\n").getBytes(StandardCharsets.US_ASCII);
        try {
            // What was put in may be lost without harm.
            byte[] restored = restored(damaged);
            assertThat(restored.length == original.length).as(lost).isTrue();
            assertThat(restored).isEqualTo(original);
        } catch (Refusal said) {
            assertThat(said.getMessage()).contains("undamaged copy");
        }
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
        Made made = rearrange(bench.sliced(original), original);
        assertThat(made.rearranged().isChanged()).isTrue();
        Proof.holds(original, made.bytes());
        assertThat(made.restored()).isEqualTo(original);
    }

    @Property(tries = 60)
    void what_a_file_does_in_and_out_of_the_nozzle_is_left_to_the_swaps_in_any_order(
            @ForAll("ways") Set<Way> ways, @ForAll @IntRange(min = 2, max = 6) int layers, @ForAll boolean bands)
            throws IOException {
        Set<Way> all = EnumSet.of(Way.UNLOADS);
        all.addAll(ways);
        // A tool that is primed far from its turn is none that is loaded anew at each.
        all.removeAll(EnumSet.of(Way.PRIMES, Way.TOWER));
        byte[] original = new TwoTools(all, layers).bytes();
        Bench bench = bar(layers, bands ? Ordering.Rule.BANDS : Ordering.Rule.NUMBERED)
                .sliced(original);
        byte[] written = bench.written();
        all.remove(Way.UNLOADS);
        List<PlainMachine.Move> plain = laid(new TwoTools(all, layers).bytes());
        assertThat(laid(written)).hasSameSizeAs(plain);
        assertThat(laid(written)).allSatisfy(m -> assertThat(m.drawn()).isLessThan(0.01));
        assertThat(laid(written).stream()
                        .mapToDouble(PlainMachine.Move::filament)
                        .sum())
                .isCloseTo(
                        plain.stream().mapToDouble(PlainMachine.Move::filament).sum(), within(0.01));
        assertThat(PlainMachine.moves(written, false))
                .allSatisfy(m -> assertThat(m.filament()).isGreaterThan(-12));
        // Nor does anything push but the purges, each out of what is drawn back.
        double pushed = PlainMachine.moves(written, false).stream()
                .filter(m -> !m.lays() && m.filament() > 12)
                .mapToDouble(PlainMachine.Move::filament)
                .sum();
        double purged = bench.ledger().swaps().stream()
                .mapToDouble(s -> bench.printer.filament().length(s.purge().volume()))
                .sum();
        assertThat(pushed).isCloseTo(purged, within(3.1 * bench.ledger().swaps().size()));
        Bench back = new Bench().sliced(written);
        boolean changed = back.file.orElseThrow().pieces() > 0;
        assertThat(
                        changed
                                ? restored(written)
                                : Patch.removing(back.file.orElseThrow()).applyTo(written))
                .isEqualTo(original);
    }

    private static List<PlainMachine.Move> laid(byte[] file) {
        return PlainMachine.moves(file, false).stream()
                .filter(PlainMachine.Move::lays)
                .toList();
    }

    @Property(tries = 120)
    void any_stack_of_colours_is_printed_in_bands_and_nothing_before_what_lies_beneath(
            @ForAll("patchworks") Patchwork patchwork, @ForAll("reaches") double reach) throws IOException {
        byte[] original = patchwork.bytes();
        int before = patchwork
                .bench(Ordering.Rule.NUMBERED, reach)
                .sliced(original)
                .ledger()
                .swaps()
                .size();
        Bench bench = patchwork.bench(Ordering.Rule.BANDS, reach);
        proved(bench, original);
        assertThat(bench.ledger().swaps()).hasSizeLessThanOrEqualTo(before);
    }

    @Property(tries = 60)
    void the_best_order_inside_layers_is_printed_with_as_many_swaps_as_it_promised(
            @ForAll("patchworks") Patchwork patchwork) throws IOException {
        byte[] original = patchwork.bytes();
        Bench bench = patchwork.bench(Ordering.Rule.BEST, 3);
        int promised = bench.ledger().swaps().size();
        proved(bench, original);
        assertThat(bench.ledger().swaps()).hasSize(promised);
    }

    /** Where the order of the file is the plan's already, nothing is rearranged. */
    private static void proved(Bench bench, byte[] original) throws IOException {
        Rearranging rearranging = bench.sliced(original).reckoning().brief().rearranging();
        assertThat(rearranging.refusal()).isEmpty();
        if (rearranging.made().isPresent()) {
            Made made = rearrange(bench, original);
            Proof.holds(original, made.bytes());
            assertThat(made.restored()).isEqualTo(original);
        }
        Proof.standsFree(bench.written());
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
        return Arbitraries.of(EnumSet.complementOf(EnumSet.of(Way.UNLOADS))).set();
    }
}
