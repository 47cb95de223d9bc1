package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Pause;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Step;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Files that come down again: one object after another, or bands that somebody else made. */
class DownAgainTest {
    /** The tile of the bench, whose upper step begins at 2 mm: layers 1 to 10, and 11 to 15. */
    private static SmallGcode tile(SmallGcode file, double x, double y) {
        return file.centredAt(x, y)
                .sized(19.6, 19.6)
                .grid(0.2, 0.2, 10)
                .sized(9.6, 9.6)
                .grid(2.2, 0.2, 5);
    }

    private static SmallGcode twoTiles() {
        return tile(tile(new SmallGcode(), 60, 60), 120, 60);
    }

    @Test
    void two_tiles_one_after_another_need_three_swaps_where_side_by_side_they_need_one() {
        Bench bench = new Bench().start(2.0, Spools.CHALK).sliced(twoTiles());
        Ledger ledger = bench.ledger();
        assertThat(bench.match()).isPresent();
        assertThat(ledger.swaps()).extracting(Swap::layer).containsExactly(11, 1, 11);
        assertThat(ledger.swaps())
                .extracting(s -> s.in().id())
                .containsExactly(Spools.CHALK.id(), Spools.SOOT.id(), Spools.CHALK.id());
        // Each has a place of its own in the file, in the order in which they come.
        assertThat(ledger.swaps())
                .extracting(s -> s.door().orElseThrow().offset())
                .isSorted()
                .doesNotHaveDuplicates();
    }

    @Test
    void their_swaps_are_written_where_each_tile_changes_colour_and_taken_out_again() throws IOException {
        byte[] file = twoTiles().bytes();
        Bench bench = new Bench().start(2.0, Spools.CHALK).sliced(file);
        byte[] written = bench.reckoning().patch().applyTo(file);
        List<String> marks = new String(written, StandardCharsets.ISO_8859_1)
                .lines()
                .filter(l -> l.startsWith("; tranche begin") || l.startsWith(";LAYER"))
                .map(l -> l.replaceAll("; tranche begin .* ", ""))
                .toList();
        assertThat(marks).hasSize(33);
        assertThat(marks.get(11)).isEqualTo("swap=1");
        assertThat(marks.get(17)).isEqualTo("swap=2");
        assertThat(marks.get(28)).isEqualTo("swap=3");
        Bench back = new Bench().start(2.0, Spools.CHALK).sliced(written);
        assertThat(Patch.removing(back.file.orElseThrow()).applyTo(written)).isEqualTo(file);
        assertThat(PlainMachine.run(written, false)).hasSameSizeAs(PlainMachine.run(file, false));
    }

    @Test
    void the_time_of_a_layer_is_shared_by_its_visits_and_none_is_lost() {
        Bench bench = new Bench().sliced(twoTiles());
        GridMatch match = bench.match().orElseThrow();
        assertThat(match.visits()).hasSize(30);
        assertThat(match.layer(3).extruded())
                .isCloseTo(2 * match.visits().get(2).run().extruded(), within(1e-9));
        assertThat(bench.ledger().base().seconds()).isCloseTo(match.file().seconds(), within(1e-6));
    }

    @Test
    void no_swap_of_the_second_tile_leads_through_the_first_which_stands_higher() {
        Bench bench = new Bench()
                .start(2.0, Spools.CHALK)
                .swapping(new Step.Park(), new Step.WaitForPerson(Command.M0), new Step.Return())
                .sliced(twoTiles());
        List<Swap> swaps = bench.ledger().swaps();
        double tallest = bench.grid.printedHeight().millimetres();
        // Nothing stands higher than the first tile when it changes colour.
        assertThat(highest(swaps.get(0))).isCloseTo(2.0, within(1e-6));
        assertThat(highest(swaps.get(2))).isGreaterThan(tallest + 0.5);
        assertThat(swaps.get(2).dryRun().exit().z())
                .isEqualTo(swaps.get(2).moment().entry().z());
    }

    private static double highest(Swap swap) {
        return swap.dryRun().path().stream()
                .mapToDouble(l -> Math.max(l.fromZ(), l.toZ()))
                .max()
                .orElseThrow();
    }

    @Test
    void a_halt_to_embed_something_comes_once_for_each_tile() {
        Bench bench = new Bench().halt(1.0, "embed a nut").sliced(twoTiles());
        assertThat(bench.ledger().pauses()).extracting(Pause::layer).containsExactly(6, 6);
        assertThat(bench.ledger().pauses())
                .extracting(p -> p.moment().number() + " of " + p.moment().of())
                .containsExactly("1 of 2", "2 of 2");
    }

    @Test
    void bands_that_somebody_else_made_are_read_as_they_are() throws IOException {
        // Four layers of one tool, the same four of the other beside it, and on.
        SmallGcode file = new SmallGcode();
        for (int band = 0; band < 3; band++) {
            for (int tool = 0; tool < 2; tool++) {
                file.line("T" + tool);
                file.centredAt(50 + 20 * tool, 50).sized(19.6, 9.6).grid(0.2 + 0.8 * band, 0.2, 4);
            }
        }
        Bench bench = BesideEachOther.bench().sliced(file);
        assertThat(bench.ledger().swaps()).extracting(Swap::layer).containsExactly(1, 5, 5, 9, 9);
        assertThat(bench.findings()).extracting(Finding::severity).doesNotContain(Severity.STOP);
        byte[] written = bench.reckoning().patch().applyTo(file.bytes());
        assertThat(new String(written, StandardCharsets.ISO_8859_1)).contains("swap=5");
    }

    @Test
    void a_layer_of_two_colours_in_a_file_of_one_tool_has_no_place_for_them() {
        Bench bench = BesideEachOther.bench().sliced(tile12(tile12(new SmallGcode(), 50), 120));
        assertThatThrownBy(() -> bench.reckoning().patch())
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("inside layer 1");
    }

    private static SmallGcode tile12(SmallGcode file, double x) {
        return file.centredAt(x, 50).sized(39.6, 9.6).grid(0.2, 0.2, 12);
    }

    @Test
    void each_object_on_a_raft_of_its_own_is_lifted_by_it() {
        SmallGcode file = new SmallGcode();
        for (int x = 0; x < 2; x++) {
            file.centredAt(60 + 50 * x, 60).sized(22, 22).layers(0.3, 0.6);
            file.sized(19.6, 19.6).grid(0.8, 0.2, 10).sized(9.6, 9.6).grid(2.8, 0.2, 5);
        }
        Bench bench = new Bench().start(2.0, Spools.CHALK).sliced(file);
        GridMatch match = bench.match().orElseThrow();
        assertThat(match.raft().millimetres()).isEqualTo(0.6);
        assertThat(match.visits()).hasSize(30);
        assertThat(bench.ledger().swaps()).hasSize(3);
        assertThat(bench.ledger().base().seconds()).isCloseTo(match.file().seconds(), within(1e-6));
    }

    @Test
    void objects_of_other_layers_are_still_another_grid() {
        SmallGcode file = tile(new SmallGcode(), 60, 60).centredAt(120, 60).grid(0.3, 0.3, 10);
        Bench bench = new Bench().sliced(file);
        assertThat(bench.match()).isEmpty();
        assertThat(bench.findings()).extracting(Finding::severity).contains(Severity.STOP);
    }
}
