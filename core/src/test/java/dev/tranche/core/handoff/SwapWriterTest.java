package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SwapWriterTest {
    @Test
    void the_machine_stops_after_the_last_plastic_of_the_old_colour_and_before_the_new() throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        bench.sliced(original);
        byte[] written = bench.reckoning().patch().applyTo(original);
        String text = new String(written, StandardCharsets.ISO_8859_1);
        int stop = text.indexOf("\nM0\n");
        assertThat(text.substring(0, stop)).contains("G1 Z2.00000").doesNotContain("G1 Z2.20000");
        assertThat(text.substring(stop)).contains("G1 Z2.20000").doesNotContain("G1 Z2.00000");
        assertThat(text).containsOnlyOnce("\nM0\n").contains("M117 Swap 1 of 1: load B Chalk");
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().seconds())
                .isEqualTo(new Bench().sliced(original).file.orElseThrow().seconds());
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @Test
    void the_state_changes_with_whatever_changes_the_file() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        String before = bench.facts().state();
        assertThat(new Bench().start(2, Spools.CHALK).facts().state()).isEqualTo(before);
        assertThat(new Bench().start(1.8, Spools.CHALK).facts().state()).isNotEqualTo(before);
        assertThat(new Bench().start(2, Spools.BURGUNDY).facts().state()).isNotEqualTo(before);
    }

    @Test
    void the_state_takes_no_notice_of_what_is_not_written() {
        Bench bench = new Bench().start(2, Spools.CHALK);
        String before = bench.facts().state();
        Motion m = bench.printer.motion();
        Printer p = bench.printer;
        bench.printer = new Printer(
                "Another name",
                p.bed(),
                p.travel(),
                p.maxHeight(),
                p.home(),
                p.hotend(),
                p.filament(),
                p.drive(),
                p.parkSpot(),
                p.selector(),
                new Motion(
                        m.travelSpeed(), 80, m.liftSpeed(), m.retractSpeed(), m.acceleration(), m.junctionDeviation()),
                p.abilities());
        assertThat(bench.facts().state()).isEqualTo(before);
        bench.printer = Printers.parkingAt(bench.printer, Optional.of(new Point(6, 6)));
        assertThat(bench.facts().state()).isNotEqualTo(before);
    }

    @Test
    void halts_and_the_first_load_are_written_beside_swaps_and_taken_out_with_them() throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK).halt(1, "lay the nut in");
        bench.macros = bench.macros.replace(1, bench.macros.macro(1).turned(true));
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        bench.sliced(original);
        byte[] written = bench.reckoning().patch().applyTo(original);
        String text = new String(written, StandardCharsets.ISO_8859_1);
        assertThat(text)
                .containsSubsequence(
                        "load=1", "Load A Soot", "halt=1", "Halt 1: lay the nut in", "swap=1", "load B Chalk");
        int halt = text.indexOf("M117 Halt 1");
        assertThat(text.substring(0, halt)).contains("G1 Z1.00000").doesNotContain("G1 Z1.20000");
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().blocks()).hasSize(3);
        assertThat(bench.findings()).noneMatch(f -> f.key().equals("older-than-plan"));
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @Test
    void swaps_of_a_file_that_changes_tools_stand_before_the_lines_that_change_them() throws IOException {
        Bench bench = new Bench().start(1.6, Spools.CHALK);
        SmallGcode gcode = new SmallGcode().line("T0");
        for (int layer = 1; layer <= 15; layer++) {
            if (layer == 9) {
                gcode.line("T1");
            }
            gcode.layers(0.2 * layer);
        }
        byte[] original = gcode.bytes();
        bench.sliced(original);
        byte[] written = bench.reckoning().patch().applyTo(original);
        List<String> lines =
                new String(written, StandardCharsets.ISO_8859_1).lines().toList();
        int change = lines.indexOf("; tranche took T1");
        assertThat(lines.get(change + 1)).isEqualTo("; tranche end swap=1");
        assertThat(lines.subList(lines.indexOf("M0"), change)).isNotEmpty();
        // A machine with one nozzle and no tools is told of none.
        assertThat(lines).doesNotContain("T0", "T1");
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().blocks()).hasSize(2);
        assertThat(bench.file.orElseThrow().stopsWritten()).isEqualTo(1);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    /** Layers 1 to 8 with T0 and the rest with T1, which is heated while the other prints, as programs do. */
    private static byte[] heatingByTool(boolean crlf) {
        SmallGcode gcode = new SmallGcode();
        if (crlf) {
            gcode.crlf();
        }
        gcode.line("M104 T0 S205 ; first").line("T0  ; first").line("M109 T0 S205");
        for (int layer = 1; layer <= 15; layer++) {
            if (layer == 8) {
                gcode.line("M104 T1 S190");
            }
            if (layer == 9) {
                gcode.line("M104 T0 S150 ; cool what rests").line("m6 t1").line("M109 T1 S190");
            }
            gcode.layers(0.2 * layer);
        }
        return gcode.line("M104 T0 S0").line("M104 S0").bytes();
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void what_is_said_to_tools_by_number_is_taken_out_and_comes_back_to_the_byte(boolean crlf) throws IOException {
        byte[] original = heatingByTool(crlf);
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(original);
        byte[] written = written(bench, original);
        List<String> obeyed = new String(written, StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> !l.startsWith(";"))
                .toList();
        assertThat(obeyed).noneMatch(l -> l.startsWith("T") || l.startsWith("m6"));
        // The one nozzle is neither cooled to 150 while it prints, nor switched off by what is said of the other.
        assertThat(obeyed)
                .doesNotContain("M104 T0 S150 ; cool what rests", "M104 T1 S190", "M104 T0 S0")
                .contains("M104 T0 S205 ; first", "M109 T0 S205", "M104 S0", "M0");
        bench.sliced(written);
        assertThat(bench.ledger().swaps()).hasSize(1);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
        assertThat(written(bench, written)).isEqualTo(written);
    }

    @Test
    void the_one_nozzle_is_heated_though_the_file_says_it_to_the_second_tool() throws IOException {
        byte[] original = heatingByTool(false);
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(original);
        List<String> lines = new String(written(bench, original), StandardCharsets.ISO_8859_1)
                .lines()
                .toList();
        assertThat(lines).containsSubsequence("; tranche end swap=1", "M109 S190", "; tranche took M109 T1 S190");
        // Sliced with the second tool alone, as whoever prints in one colour may have it.
        byte[] second = new SmallGcode()
                .line("N9 M104 T1 S205*12")
                .line("T1")
                .line("M109 T1 R205.5")
                .grid(0.2, 0.2, 15)
                .bytes();
        bench.sliced(second);
        byte[] once = written(bench, second);
        assertThat(new String(once, StandardCharsets.ISO_8859_1).lines().filter(l -> !l.startsWith(";")))
                .contains("M104 S205", "M109 R205.5")
                .noneMatch(l -> l.contains("T1"));
        bench.sliced(once);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(once)).isEqualTo(second);
    }

    @Test
    void heat_said_to_the_tool_that_rests_is_not_the_nozzles() {
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(heatingByTool(false));
        assertThat(bench.ledger().swaps().get(0).door().orElseThrow().state().nozzleTemperature())
                .isEqualTo(205);
        Bench one = new Bench().start(1.6, Spools.CHALK);
        one.sliced(new SmallGcode().line("M104 T0 S222").grid(0.2, 0.2, 15));
        assertThat(one.match()
                        .orElseThrow()
                        .layer(1)
                        .door()
                        .orElseThrow()
                        .state()
                        .nozzleTemperature())
                .isEqualTo(222);
    }

    /** What a firmware with a retraction of its own has drawn back at each line, 0 or 1 times its length. */
    private static List<Integer> drawn(List<String> lines) {
        List<Integer> drawn = new ArrayList<>();
        int now = 0;
        for (String line : lines) {
            now += line.startsWith("G10") ? 1 : line.startsWith("G11") ? -1 : 0;
            drawn.add(now);
        }
        return drawn;
    }

    @Test
    void what_the_firmware_drew_back_is_pushed_out_for_the_swap_and_drawn_back_for_the_file() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.layers(0.2 * layer).line("G10").line("G1 X50 Y50 F7200").line("G11");
        }
        byte[] original = gcode.bytes();
        Bench bench = new Bench().start(2, Spools.CHALK);
        bench.printer =
                bench.printer.with(Abilities.of("M0", "M104 S", "M109 S", "M300 SP", "M117", "M400", "G10", "G11"));
        bench.sliced(original);
        List<String> lines = new String(written(bench, original), StandardCharsets.ISO_8859_1)
                .lines()
                .toList();
        int begin = lines.indexOf(lines.stream()
                .filter(l -> l.contains("tranche begin"))
                .findFirst()
                .orElseThrow());
        assertThat(drawn(lines).get(begin - 1)).isEqualTo(1);
        assertThat(drawn(lines).get(lines.indexOf("M0"))).isZero();
        assertThat(drawn(lines)).allMatch(d -> d == 0 || d == 1).last().isEqualTo(0);
        assertThat(bench.ledger().swaps().get(0).dryRun().faults()).isEmpty();
        // A firmware that ignores G10 is told neither.
        bench.printer = bench.printer.with(Abilities.of("M0", "M104 S", "M109 S"));
        bench.sliced(original);
        assertThat(new String(written(bench, original), StandardCharsets.ISO_8859_1)
                        .lines()
                        .filter("G10"::equals))
                .hasSize(15);
    }

    @Test
    void a_file_that_draws_back_by_the_firmware_asks_whether_the_firmware_knows_how() throws IOException {
        SmallGcode gcode = new SmallGcode().line("T0");
        gcode.grid(0.2, 0.2, 8).line("G10").line("T1").grid(1.8, 0.2, 7);
        Bench bench = new Bench().start(1.6, Spools.CHALK);
        bench.printer = bench.printer.with(Abilities.of("M0", "M104 S", "M109 S"));
        bench.sliced(gcode);
        assertThat(bench.ledger().swaps().get(0).dryRun().faults())
                .isNotEmpty()
                .noneMatch(f -> f.severity() == Severity.STOP);
        Finding asks = bench.found("draws-by-firmware");
        assertThat(asks.severity()).isEqualTo(Severity.WARN);
        bench.printer =
                asks.fix().orElseThrow().rig().orElseThrow().apply(bench.rig()).printer();
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("draws-by-firmware");
        assertThat(bench.ledger().swaps().get(0).dryRun().faults())
                .noneMatch(f -> f.sentence().contains("G1"));
        assertThat(drawn(new String(written(bench, gcode.bytes()), StandardCharsets.ISO_8859_1)
                        .lines()
                        .toList()))
                .last()
                .isEqualTo(0);
    }

    private static byte[] written(Bench bench, byte[] file) throws IOException {
        return bench.reckoning().patch().applyTo(file);
    }

    @Test
    void a_firmware_with_tools_is_told_the_slot_in_which_the_spool_really_is() throws IOException {
        byte[] original = heatingByTool(false);
        Bench bench = new Bench().start(1.6, Spools.CHALK).sliced(original);
        bench.printer = bench.printer.with(Abilities.of("M0", "M104 S", "M109 S", "T"));
        // The rack has them the other way round.
        Rack rack = Rack.of(bench.printer, 2);
        bench.rack = Optional.of(rack.replace(0, rack.extruder(0).with(Spools.CHALK))
                .replace(1, rack.extruder(1).with(Spools.SOOT)));
        List<String> obeyed = new String(written(bench, original), StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> l.startsWith("T"))
                .toList();
        assertThat(obeyed).containsExactly("T1", "T0");
    }

    @Test
    void own_lines_that_look_like_marks_pass_for_none() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(original);
        bench.swapping(
                new Step.WaitForPerson(Command.M0),
                new Step.Raw("; tranche end swap=1\n; tranche took G28\nM400\n (x) ; tranche end swap=1"));
        byte[] written = written(bench, original);
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().blocks()).hasSize(1);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }
}
