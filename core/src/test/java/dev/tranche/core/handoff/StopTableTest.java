package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.StopTable.Choice;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class StopTableTest {
    /** A stop before layer 11, where the plan swaps, and one before layer 6, where it does not. */
    private static SmallGcode stopping(String there, String elsewhere) {
        SmallGcode gcode = new SmallGcode().grid(0.2, 0.2, 5);
        gcode.line(elsewhere).grid(1.2, 0.2, 5);
        return gcode.line(there).grid(2.2, 0.2, 5);
    }

    private static Bench bench(SmallGcode gcode) {
        return new Bench().start(2, Spools.CHALK).sliced(gcode);
    }

    private static StopTable table(Bench bench) {
        return bench.facts().stops().orElseThrow();
    }

    private static Bench choosing(Bench bench, Choice choice, Integer... stops) {
        bench.said = bench.said.stops(List.of(stops), Optional.of(choice));
        return bench;
    }

    private static String text(byte[] file) {
        return new String(file, StandardCharsets.ISO_8859_1);
    }

    @Test
    void every_stop_of_a_file_is_laid_beside_the_plan() {
        List<StopTable.Row> rows =
                table(bench(stopping("M600", "M0 look inside"))).rows();
        assertThat(rows).extracting(r -> r.stop().text()).containsExactly("M0 look inside", "M600");
        assertThat(rows).extracting(StopTable.Row::layer).containsExactly(6, 11);
        assertThat(rows).extracting(StopTable.Row::within).containsExactly(false, false);
        assertThat(rows.get(0).meets()).isEmpty();
        assertThat(rows.get(1).meets()).map(StopTable.Meeting::number).contains(1);
    }

    @Test
    void nothing_is_written_until_the_owner_has_said_what_they_are() {
        Bench bench = bench(stopping("M600", "M0"));
        Finding finding = bench.found("stops-in-file");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence()).contains("2 stops").contains("M0");
        choosing(bench, Choice.ADOPT, 1);
        assertThat(bench.found("stops-in-file").sentence()).contains("1 stop,");
        choosing(bench, Choice.REPLACE, 0);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("stops-in-file", "stops-left");
    }

    @Test
    void who_set_the_stops_when_slicing_plans_a_swap_at_each() {
        Bench bench = new Bench().sliced(stopping("M600", "M0"));
        Fix fix = bench.found("stops-in-file").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan a swap at each");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(bench.ledger().swaps()).extracting(Swap::in).containsExactly(Spools.CHALK, Spools.BURGUNDY);
        assertThat(table(bench).rows()).allMatch(r -> r.takes(Choice.ADOPT));
        assertThat(bench.found("stops-in-file").fix()).isEmpty();
        Bench two = new Bench().sliced(stopping("M600", "M0"));
        two.shelf.keySet().retainAll(Set.of(Spools.SOOT.id(), Spools.SKY.id()));
        two.plan = two.found("stops-in-file").fix().orElseThrow().colours().apply(two.plan);
        assertThat(two.ledger().swaps()).extracting(Swap::in).containsExactly(Spools.SKY, Spools.SOOT);
    }

    @Test
    void a_stop_inside_a_layer_is_no_swap_by_height_and_hinders_none() {
        SmallGcode halting = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            halting.line(layer == 8 ? "M600" : "; nothing").layers(0.2 * layer);
            if (layer == 4) {
                halting.line("M0 ; lay the nut in").dab(100, 100);
            }
        }
        Bench bench = new Bench().sliced(halting);
        Fix fix = bench.found("stops-in-file").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan a swap at each between layers");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(bench.ledger().swaps()).extracting(Swap::layer).containsExactly(8);
        assertThat(bench.found("stops-in-file").sentence()).contains("M0 ; lay the nut in");
    }

    @Test
    void where_a_stop_is_the_swap_nothing_is_added() throws IOException {
        byte[] original = stopping("M600", "; nothing").bytes();
        Bench bench = choosing(new Bench().start(2, Spools.CHALK).sliced(original), Choice.ADOPT, 0);
        assertThat(bench.reckoning().patch().applyTo(original)).isEqualTo(original);
    }

    @Test
    void a_stop_that_is_replaced_is_taken_out_and_comes_back() throws IOException {
        byte[] original = stopping("M600 X5 Y5 ; change", "M25").bytes();
        Bench bench = choosing(new Bench().start(2, Spools.CHALK).sliced(original), Choice.REPLACE, 0, 1);
        byte[] written = bench.reckoning().patch().applyTo(original);
        assertThat(text(written).lines()).doesNotContain("M600 X5 Y5 ; change", "M25");
        assertThat(text(written)).containsOnlyOnce("\nM0\n");
        bench.said = Said.NOTHING;
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().stopsWritten()).isEqualTo(1);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("stops-in-file", "stops-left");
        assertThat(bench.reckoning().patch().applyTo(written)).isEqualTo(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @Test
    void a_stop_that_is_left_stands_beside_the_plans_and_is_told_of() throws IOException {
        byte[] original = stopping("M600", "; nothing").bytes();
        Bench bench = choosing(new Bench().start(2, Spools.CHALK).sliced(original), Choice.LEAVE, 0);
        assertThat(text(bench.reckoning().patch().applyTo(original)).lines()).contains("M600", "M0");
        assertThat(bench.found("stops-left").severity()).isEqualTo(Severity.WARN);
        bench.said = Said.NOTHING;
        bench.said = Said.NOTHING.accepting(Set.of(bench.found("stops-in-file").word()));
        assertThat(bench.found("stops-in-file").severity()).isEqualTo(Severity.WARN);
        assertThat(text(bench.reckoning().patch().applyTo(original)).lines()).contains("M600", "M0");
    }

    @Test
    void each_swap_has_a_stop_of_its_own() {
        SmallGcode gcode = new SmallGcode().grid(0.2, 0.2, 5);
        gcode.line("M600").grid(1.2, 0.2, 5).line("M600").grid(2.2, 0.2, 5);
        Bench bench =
                new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY).sliced(gcode);
        choosing(bench, Choice.ADOPT, 1);
        choosing(bench, Choice.REPLACE, 0);
        List<Swap> swaps = bench.ledger().swaps();
        assertThat(table(bench).adopts(swaps.get(0))).isFalse();
        assertThat(table(bench).adopts(swaps.get(1))).isTrue();
        List<String> lines = text(written(bench, gcode.bytes())).lines().toList();
        assertThat(lines).filteredOn("M0"::equals).hasSize(1);
        assertThat(lines.indexOf("M0")).isLessThan(lines.indexOf("M600"));
    }

    private static byte[] written(Bench bench, byte[] original) {
        try {
            return bench.reckoning().patch().applyTo(original);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void where_the_plan_halts_and_swaps_at_once_the_stop_is_the_swap() {
        Bench bench = new Bench().start(2, Spools.CHALK).halt(2, "look").swapping(new Step.SelectExtruder());
        bench.rack = Optional.of(Rack.of(bench.printer, 2));
        bench.sliced(stopping("M600", "; nothing"));
        assertThat(bench.ledger().pauses()).singleElement().matches(p -> p.dryRun()
                .isPresent());
        assertThat(table(bench).rows().get(0).meets().orElseThrow().what()).isEqualTo(BlockStamp.What.SWAP);
    }

    @Test
    void a_swap_inside_a_layer_has_no_place_where_the_file_has_no_stop() {
        Bench bench = new Bench()
                .region(new Region(
                        "core", new Shape.Zone(new Outline.Disc(6), 10, 10, 0, false), Spools.CHALK.id(), Range.ALL));
        assertThat(bench.reckoning().layerWithoutPlace()).isEmpty();
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.layers(0.2 * layer);
            if (layer != 4) {
                gcode.line("M600").dab(95, 95);
            }
        }
        assertThat(bench.sliced(gcode).reckoning().layerWithoutPlace()).hasValue(4);
        assertThat(new Bench().start(2, Spools.CHALK).sliced(gcode).reckoning().layerWithoutPlace())
                .isEmpty();
    }

    @Test
    void what_is_no_stop_of_the_plan_cannot_be_one() {
        Bench bench = choosing(bench(stopping("; nothing", "M0")), Choice.ADOPT, 0);
        assertThat(table(bench).undecided()).hasSize(1);
    }

    @Test
    void a_halt_can_be_there_already() throws IOException {
        byte[] original = stopping("; nothing", "M0").bytes();
        Bench bench = new Bench().halt(1, "lay the nut in").sliced(original);
        choosing(bench, Choice.ADOPT, 0);
        assertThat(table(bench).undecided()).isEmpty();
        assertThat(bench.reckoning().patch().applyTo(original)).isEqualTo(original);
    }

    /** Common practice in open firmware, and two that only this printer's owner knows. */
    @ParameterizedTest
    @ValueSource(strings = {"M0", "M1 P5", "M25", "M226", "M600 B3", "M601", "pause  for=me", "G4 P600000 ; wait"})
    void all_that_stops_the_machine_is_found(String line) {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.printer = bench.printer.with(bench.printer
                .abilities()
                .reading(new Dialect(
                        Dialect.Counting.NOT_SAID,
                        List.of(new OwnLine("Pause"), new OwnLine("g4 p600000")),
                        List.of())));
        bench.sliced(stopping(line, "PAUSED"));
        assertThat(table(bench).rows()).extracting(r -> r.stop().text()).containsExactly(line);
    }

    @Test
    void stops_inside_a_layer_are_the_swaps_there_if_they_are_as_many() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.layers(0.2 * layer).line("M600").dab(95, 95);
        }
        byte[] original = gcode.bytes();
        Bench bench = new Bench()
                .region(new Region(
                        "core", new Shape.Zone(new Outline.Disc(6), 10, 10, 0, false), Spools.CHALK.id(), Range.ALL))
                .sliced(original);
        assertThat(table(bench).rows())
                .hasSize(15)
                .allMatch(StopTable.Row::within)
                .allMatch(r -> r.meets().isPresent());
        Integer[] all = IntStream.range(0, 15).boxed().toArray(Integer[]::new);
        choosing(bench, Choice.ADOPT, all);
        assertThat(bench.reckoning().patch().applyTo(original)).isEqualTo(original);
        choosing(bench, Choice.REPLACE, all);
        byte[] written = bench.reckoning().patch().applyTo(original);
        assertThat(text(written).lines().filter("M0"::equals)).hasSize(15);
        assertThat(text(written).lines()).doesNotContain("M600");
        bench.sliced(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @Test
    void stops_before_the_first_plastic_and_after_the_last_are_no_swaps() {
        Bench bench = bench(new SmallGcode().line("M0").grid(0.2, 0.2, 15).line("M0 ; done"));
        assertThat(table(bench).rows()).isEmpty();
    }

    @Test
    void more_stops_than_anybody_would_stand_by_are_refused() {
        SmallGcode gcode = new SmallGcode();
        for (int i = 0; i < 10_000; i++) {
            gcode.line("M0");
        }
        assertThatThrownBy(() -> bench(gcode.grid(0.2, 0.2, 15)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("stops the machine over 1000 times by line 1007");
    }

    @ParameterizedTest
    @CsvSource({"change_tool TOOL=#, CHANGE_TOOL tool=1 now=1", "M6 T#, M6 T1", "SWAP #, swap   1 ; blue"})
    void a_call_that_the_owner_names_changes_the_tool(String own, String line) throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.printer = bench.printer.with(bench.printer
                .abilities()
                .reading(new Dialect(Dialect.Counting.NOT_SAID, List.of(), List.of(new OwnLine(own)))));
        byte[] original =
                new SmallGcode().grid(0.2, 0.2, 10).line(line).grid(2.2, 0.2, 5).bytes();
        bench.sliced(original);
        assertThat(bench.facts().tools().orElseThrow().spool(1, 11)).contains(Spools.CHALK.id());
        byte[] written = bench.reckoning().patch().applyTo(original);
        assertThat(text(written).lines()).doesNotContain(line).contains("M0");
        bench.sliced(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @ParameterizedTest
    @ValueSource(strings = {"; comment", "  ", "#", "Schön", "(x)"})
    void a_line_of_ones_own_begins_like_a_command(String text) {
        assertThatThrownBy(() -> new OwnLine(text)).isInstanceOf(Refusal.class);
    }

    @Test
    void a_call_for_a_tool_says_where_its_number_stands() {
        assertThatThrownBy(() -> new Dialect(Dialect.Counting.NOT_SAID, List.of(), List.of(new OwnLine("CHANGE_TOOL"))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("CHANGE_TOOL");
    }
}
