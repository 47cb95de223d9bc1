package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.plan.Spools;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
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
}
