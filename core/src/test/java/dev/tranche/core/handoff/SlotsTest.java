package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.rig.Rig;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** More spools than a feeder has slots for. */
class SlotsTest {
    private static final List<Spool> FIVE =
            List.of(Spools.SOOT, Spools.CHALK, Spools.BURGUNDY, Spools.SKY, Spools.MUSTARD);

    /** Five colours from the bed up, and at the end the first again. */
    private static Bench feeder() {
        Rig rig = Beginning.FEEDER.rig("Feeder");
        Bench bench = new Bench();
        bench.printer = rig.printer();
        bench.macros = rig.macros();
        bench.rack = Optional.of(rig.rack());
        for (int i = 1; i <= 5; i++) {
            bench.start(0.4 * i, FIVE.get(i % 5));
        }
        return bench;
    }

    @Test
    void the_machine_stops_for_whoever_has_to_put_the_fifth_spool_into_a_slot() throws IOException {
        Bench bench = feeder();
        List<Pause> pauses = bench.ledger().pauses();
        // The fifth takes the place of one that is not needed again, and the first is still there at the end.
        assertThat(pauses).hasSize(1);
        assertThat(pauses.get(0).layer()).isEqualTo(9);
        assertThat(pauses.get(0).note()).matches("put E \\w+ in T\\d, where [BC] \\w+ is");
        assertThat(pauses.get(0).seconds()).isPositive();
        assertThat(pauses.get(0).moment().of()).isEqualTo(1);
        assertThat(pauses.get(0).duties(bench.rig())).isNotEmpty();

        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        bench.sliced(original);
        byte[] written = bench.reckoning().patch().applyTo(original);
        List<String> lines =
                new String(written, StandardCharsets.ISO_8859_1).lines().toList();
        List<String> slots = lines.stream().filter(l -> l.matches("T\\d+")).toList();
        assertThat(slots).hasSize(5).allMatch(t -> Integer.parseInt(t.substring(1)) < 4);
        assertThat(lines).filteredOn("M0"::equals).hasSize(1);
        int stop = lines.indexOf("M0");
        assertThat(stop).isBetween(lines.indexOf("; tranche end swap=3"), lines.indexOf("; tranche end swap=4"));
        bench.sliced(written);
        assertThat(bench.file.orElseThrow().stopsWritten()).isEqualTo(6);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    @Test
    void a_halt_of_the_plan_and_a_spool_to_be_put_in_are_one_stop() {
        Bench bench = feeder().halt(1.6, "lay the nut in");
        assertThat(bench.ledger().pauses()).hasSize(2).extracting(Pause::number).containsExactly(1, 2);
        assertThat(bench.ledger().pauses())
                .filteredOn(p -> p.dryRun().isEmpty())
                .allMatch(p -> p.duties(bench.rig()).isEmpty());
        assertThat(bench.ledger().pauses())
                .filteredOn(p -> p.dryRun().isPresent())
                .singleElement()
                .satisfies(p -> assertThat(p.note()).startsWith("put E"));
    }

    @Test
    void by_hand_nobody_is_called_twice() {
        Bench bench = new Bench();
        for (int i = 1; i <= 5; i++) {
            bench.start(0.4 * i, FIVE.get(i % 5));
        }
        assertThat(bench.ledger().pauses()).isEmpty();
    }
}
