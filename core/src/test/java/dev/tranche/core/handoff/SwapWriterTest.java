package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Printers;
import dev.tranche.core.plan.Spools;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class SwapWriterTest {
    @Test
    void the_machine_stops_after_the_last_plastic_of_the_old_colour_and_before_the_new() throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        bench.sliced(original);
        byte[] written = bench.writer()
                .patch(bench.match().orElseThrow(), bench.ledger())
                .applyTo(original);
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
        byte[] written = bench.writer()
                .patch(bench.match().orElseThrow(), bench.ledger())
                .applyTo(original);
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
        byte[] written = bench.writer()
                .patch(bench.match().orElseThrow(), bench.ledger())
                .applyTo(original);
        List<String> lines =
                new String(written, StandardCharsets.ISO_8859_1).lines().toList();
        int change = lines.indexOf("T1");
        assertThat(lines.get(change - 1)).isEqualTo("; tranche end swap=1");
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().blocks()).hasSize(1);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }
}
