package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Unloading;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Command;
import dev.tranche.core.plan.Spools;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files for machines that change filament by themselves: they draw it out of the nozzle and push the next one in. */
class UnloadsTest {
    /** As filament is counted in the file. */
    private static final class Feeder {
        final SmallGcode gcode = new SmallGcode();
        final boolean relative;
        double e;

        Feeder(boolean relative) {
            this.relative = relative;
            gcode.line(relative ? "M83" : "M82");
        }

        Feeder feed(String way, double mm) {
            e += mm;
            gcode.line("G1 %sE%.2f F1200".formatted(way, relative ? mm : e));
            return this;
        }

        Feeder square(double z) {
            gcode.line("G0 X90 Y90 Z%.2f F7200".formatted(z));
            feed("", 1);
            feed("X110 Y90 ", 0.75).feed("X110 Y110 ", 0.75).feed("X90 Y110 ", 0.75);
            return feed("X90 Y90 ", 0.75).feed("", -1);
        }
    }

    /** 1.6 mm with one tool and the rest with the other, with all that is done at a change; {@code change} goes without saying. */
    private static byte[] file(boolean relative, String change) {
        Feeder f = new Feeder(relative);
        for (int layer = 1; layer <= 15; layer++) {
            if (layer == 9) {
                f.gcode.line("G0 X130 Y90");
                f.feed("", 1).feed("X140 ", 1).feed("", -15).feed("", -30);
                // Back and forth in the cold, so that no thread is left.
                f.gcode.line("G1 X130");
                f.feed("X140 ", 5).feed("X130 ", -5).feed("", -20);
                f.gcode.line(change);
                f.feed("", 50).feed("X140 ", 14).feed("", 3);
                f.feed("X130 ", 0.5).feed("", -1);
            }
            f.square(0.2 * layer);
        }
        return f.gcode.bytes();
    }

    private static Bench bench(byte[] original) {
        return new Bench().start(1.6, Spools.CHALK).sliced(original);
    }

    @ParameterizedTest
    @CsvSource({"true,T1", "false,T1", "true,M0", "false,M0"})
    void what_is_done_in_and_out_of_the_nozzle_is_left_to_the_swap(boolean relative, String change) throws IOException {
        byte[] original = file(relative, change);
        Bench bench = bench(original);
        List<Unloading> found = bench.file.orElseThrow().unloadings();
        assertThat(found).hasSize(1);
        assertThat(found.get(0).length()).isCloseTo(65, within(1e-9));
        assertThat(found.get(0).before()).isZero();
        if (change.equals("M0")) {
            bench.said = Said.NOTHING.stops(List.of(0), Optional.of(StopTable.Choice.REPLACE));
        }
        byte[] written = bench.written();
        // Nothing draws further back than a retraction does, but the file's lines in both counts lay what they laid.
        assertThat(PlainMachine.moves(written, false))
                .allSatisfy(m -> assertThat(m.net()).isGreaterThan(-8));
        assertThat(PlainMachine.run(written, false))
                .zipSatisfy(printed(PlainMachine.run(original, false)), (is, was) -> assertThat(is.isAs(was))
                        .as("%s as %s", is, was)
                        .isTrue());
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().unloadings()).hasSize(1);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    /** Without what only moves filament where none is in the nozzle. */
    private static List<PlainMachine.Laid> printed(List<PlainMachine.Laid> laid) {
        return laid.stream().filter(l -> Math.abs(l.filament()) < 2).toList();
    }

    @Test
    void a_machine_that_has_tools_does_what_the_file_says_and_takes_its_time() throws IOException {
        byte[] original = file(true, "T1");
        Bench bench = bench(original);
        double byHand = bench.file.orElseThrow().seconds();
        bench.printer = bench.printer.with(bench.printer.abilities().understanding(Command.T));
        assertThat(new String(bench.written(), StandardCharsets.ISO_8859_1)).doesNotContain("feed=");
        // 30 and 20 mm out and 53 in, at 20 mm/s; the first 15 may still be a retraction.
        assertThat(bench.sliced(original).file.orElseThrow().seconds() - byHand).isCloseTo(103 / 20.0, within(0.3));
    }

    @Test
    void nothing_is_laid_by_filament_that_is_not_in_the_nozzle() throws IOException {
        SlicedFile file = bench(file(true, "T1")).file.orElseThrow();
        double laid = file.layers().stream().mapToDouble(l -> l.extruded()).sum();
        assertThat(laid).isCloseTo(15 * 3 + 1.5, within(1e-6));
        assertThat(file.layers()).hasSize(15);
    }

    @Test
    void retractions_and_filament_that_never_comes_back_are_no_unloading() throws IOException {
        Feeder f = new Feeder(true);
        f.square(0.2)
                .feed("", -11)
                .feed("", 11)
                .square(0.4)
                .feed("", -60)
                .square(0.6)
                .feed("", -60);
        assertThat(bench(f.gcode.bytes()).file.orElseThrow().unloadings()).isEmpty();
        assertThat(bench(f.gcode.bytes()).file.orElseThrow().layers()).hasSize(3);
    }
}
