package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Severity;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Files of 15 layers of 0.2 mm, whose tools stand for the spools of a plan. */
class ToolTableTest {
    /** Layers up to each of these are printed by the tools named, in turn. */
    private static SmallGcode byHeight(Object... lastLayerAndTool) {
        SmallGcode gcode = new SmallGcode();
        int layer = 1;
        for (int i = 0; i < lastLayerAndTool.length; i += 2) {
            gcode.line((String) lastLayerAndTool[i + 1]);
            for (; layer <= (int) lastLayerAndTool[i]; layer++) {
                gcode.layers(0.2 * layer);
            }
        }
        return gcode;
    }

    private static List<Spool> swaps(Bench bench) {
        return bench.ledger().swaps().stream().map(Swap::in).toList();
    }

    private static ToolTable table(Bench bench) {
        return bench.facts().tools().orElseThrow();
    }

    @Test
    void a_first_spool_that_was_recoloured_away_has_no_number() {
        Bench bench = new Bench().start(2, Spools.BURGUNDY);
        SpoolId before = bench.plan.starts().get(0).spool();
        bench.plan = bench.plan.recolour(0, Spools.CHALK.id());
        bench.sliced(byHeight(10, "T0", 15, "T1"));
        assertThat(bench.plan.palette()).contains(before);
        assertThat(bench.plan.numbering()).doesNotContain(before);
        assertThat(table(bench).spool(0, 1)).contains(Spools.CHALK.id());
        assertThat(table(bench).spool(1, 15)).contains(Spools.BURGUNDY.id());
        assertThat(swaps(bench)).containsExactly(Spools.BURGUNDY);
        assertThat(bench.found("tools-are-swaps").sentence()).contains("T1 is").contains("Burgundy");
    }

    @Test
    void a_file_that_numbers_its_tools_otherwise_is_read_by_what_they_print() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(10, "T1", 15, "T0"));
        assertThat(table(bench).share()).isCloseTo(1, within(1e-9));
        assertThat(table(bench).spool(0, 12)).contains(Spools.CHALK.id());
        assertThat(swaps(bench)).containsExactly(Spools.CHALK);
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    @Test
    void one_tool_may_stand_for_several_spools_in_turn() {
        Bench bench = new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY);
        bench.sliced(byHeight(5, "T0", 10, "T1", 15, "T0"));
        assertThat(table(bench).tools().get(0).turns())
                .extracting(ToolTable.Turn::layer)
                .containsExactly(1, 11);
        assertThat(swaps(bench)).containsExactly(Spools.CHALK, Spools.BURGUNDY);
        assertThat(bench.found("tools-are-swaps").sentence())
                .contains(", then ")
                .contains("Burgundy");
    }

    @Test
    void side_by_side_the_larger_area_is_the_tool_that_lays_more() {
        Bench bench = new Bench();
        bench.region(new Region(
                "strip", new Shape.Zone(new Outline.Box(2, 20), 7, 10, 0, false), Spools.CHALK.id(), Range.ALL));
        SmallGcode file = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            file.line("T0").layers(0.2 * layer).dab(100, 100).line("T1").dab(100, 100);
        }
        bench.sliced(file);
        assertThat(table(bench).spool(1, 8)).contains(Spools.CHALK.id());
        assertThat(table(bench).agrees()).isTrue();
    }

    @Test
    void more_tools_than_spools_stop_the_hand_off() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(5, "T0", 10, "T1", 15, "T2"));
        Finding without = bench.found("tool-without-spool");
        assertThat(without.severity()).isEqualTo(Severity.STOP);
        assertThat(without.sentence()).contains("3 tools").contains("2 spools");
    }

    @Test
    void what_contradicts_the_plan_is_named_and_stops_the_hand_off_until_the_owner_says_otherwise() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(7, "T0", 15, "T1"));
        Finding differs = bench.found("file-colours-differ");
        assertThat(differs.severity()).isEqualTo(Severity.STOP);
        assertThat(differs.layer()).hasValue(8);
        assertThat(differs.sentence()).contains("and so on 2 other layers");
        assertThat(table(bench).share()).isCloseTo(12.0 / 15, within(0.001));
    }

    @Test
    void a_spool_that_undo_has_taken_out_of_the_plan_is_nobodys_choice_any_more() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(10, "T0", 15, "T1"));
        bench.said = Said.NOTHING.tool(0, Optional.of(new SpoolId(999)));
        assertThat(table(bench).tools().get(0).chosen()).isFalse();
        assertThat(table(bench).agrees()).isTrue();
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    @Test
    void what_the_owner_chose_is_kept_even_where_it_contradicts() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(10, "T0", 15, "T1"));
        bench.said = Said.NOTHING.tool(0, Optional.of(Spools.CHALK.id()));
        ToolTable table = table(bench);
        assertThat(table.spool(0, 1)).contains(Spools.CHALK.id());
        assertThat(table.tools().get(0).chosen()).isTrue();
        assertThat(table.agrees()).isFalse();
        assertThat(table.others()).hasSize(15);
    }
}
