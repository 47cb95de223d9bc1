package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.estimate.FirstLoad;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** The first spool is loaded before anything is printed, above the bed and beside the print (common practice). */
class FirstLoadTest {
    private static Stream<Arguments> files() {
        SmallGcode raft = new SmallGcode().layers(0.3, 0.55, 0.8);
        return Stream.of(
                Arguments.of("plain", new SmallGcode().grid(0.2, 0.2, 15), "G1 X90.00000 Y90.00000 E"),
                Arguments.of("raft", raft.grid(1.0, 0.2, 15), "G1 X110.00000 Y90.00000 E"),
                Arguments.of("line", new SmallGcode().primed().grid(0.2, 0.2, 15), "E3.00000"),
                Arguments.of(
                        "standing prime",
                        new SmallGcode().line("G1 E20 F300").line("G92 E0").grid(0.2, 0.2, 15),
                        "G1 E20 F300"),
                Arguments.of(
                        "heated after the way there",
                        new SmallGcode()
                                .line("G1 X50 Y50 F6000")
                                .line("M109 S215")
                                .line("G1 X60 E5 Z0.3 F600")
                                .line("G92 E0")
                                .grid(0.2, 0.2, 15),
                        "G1 X60 E5"));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("files")
    void the_first_spool_is_loaded_before_the_first_plastic(String name, SmallGcode gcode, String plastic)
            throws IOException {
        Bench bench = new Bench().start(2, Spools.CHALK);
        // A macro that only asks, waits and primes.
        bench.macros = bench.macros.replace(
                1,
                Macro.of(
                        Event.FIRST_LOAD,
                        new Step.Message("Load {{in}}"),
                        new Step.WaitForPerson(Command.M0),
                        new Step.Prime(30, 4)));
        byte[] original = gcode.bytes();
        if (name.equals("raft")) {
            bench.plan = bench.plan.withLayers(bench.plan.layers().withRaft(Height.ofMillimetres(0.8)));
        }
        bench.sliced(original);
        FirstLoad load = bench.ledger().firstLoad().orElseThrow();
        assertThat(load.moment().entry())
                .isEqualTo(bench.file.orElseThrow().start().state());
        assertThat(load.duties(bench.rig())).hasSize(1);
        byte[] written = bench.reckoning().patch().applyTo(original);
        List<String> lines =
                new String(written, StandardCharsets.ISO_8859_1).lines().toList();
        int begin = lines.indexOf(
                lines.stream().filter(l -> l.endsWith(" load=1")).findFirst().orElseThrow());
        List<String> block = lines.subList(begin, lines.indexOf("; tranche end load=1"));
        assertThat(lines.subList(0, begin)).noneMatch(l -> l.contains(plastic));
        assertThat(lines.subList(begin, lines.size())).anyMatch(l -> l.contains(plastic));
        assertThat(lines.subList(0, begin)).contains("M109 S210", "G28 ; home");
        double z = bench.file.orElseThrow().start().state().z();
        int lift = block.indexOf("G1 Z5 F600");
        String spot =
                block.stream().filter(l -> l.startsWith("G1 X")).findFirst().orElseThrow();
        assertThat(spot).startsWith("G1 X%d Y%d ".formatted(5, 5));
        int park = block.indexOf(spot);
        int prime = block.indexOf("G1 E30 F240");
        assertThat(z).isLessThan(5);
        assertThat(List.of(lift, park, prime)).isSorted().doesNotContain(-1);
        assertThat(block.indexOf("M0")).isBetween(park, prime);
        assertThat(bench.ledger().firstLoad().orElseThrow().dryRun().faults()).isEmpty();
        bench.sliced(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }
}
