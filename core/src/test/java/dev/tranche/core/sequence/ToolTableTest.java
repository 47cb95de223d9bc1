package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Severity;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

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
    void a_tool_whose_spool_the_owner_said_takes_no_turns() {
        for (Spool said : List.of(Spools.CHALK, Spools.BURGUNDY)) {
            Bench bench = new Bench().start(1, Spools.CHALK).start(2, Spools.BURGUNDY);
            bench.said = Said.NOTHING.tool(1, Optional.of(said.id()));
            bench.sliced(byHeight(5, "T0", 10, "T1", 15, "T0"));
            assertThat(table(bench).tools().get(1).turns()).containsExactly(new ToolTable.Turn(6, said.id()));
            assertThat(table(bench).spool(0, 12)).contains(Spools.BURGUNDY.id());
        }
    }

    @Test
    void many_tools_in_any_order_are_told_apart() {
        Bench bench = new Bench();
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            Spool spool = Spools.spool(20 + layer % 14, "Spool " + layer, "#808080");
            bench.shelf.put(spool.id(), spool);
            bench.plan = layer == 1
                    ? bench.plan.recolour(0, spool.id())
                    : bench.plan.startAt(Height.ofMillimetres(0.2 * (layer - 1)), spool.id(), bench.grid);
            gcode.line("T" + (13 - layer % 14)).layers(0.2 * layer);
        }
        bench.sliced(gcode);
        assertThat(table(bench).agrees()).isTrue();
        assertThat(table(bench).tools())
                .hasSize(14)
                .allMatch(t -> t.spool(1).orElseThrow().value() == 33 - t.number());
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

    @Test
    void who_coloured_the_print_when_slicing_it_plans_it_as_the_file_prints() {
        Bench bench = new Bench().sliced(byHeight(5, "T0", 10, "T1", 12, "T0", 15, "T2"));
        Fix fix = bench.found("tool-without-spool").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan it as the file prints, T1 as Chalk, T2 as Burgundy");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(bench.plan.tranches(bench.grid))
                .extracting(t -> t.spool(), t -> t.firstLayer())
                .containsExactly(
                        tuple(Spools.SOOT.id(), 1),
                        tuple(Spools.CHALK.id(), 6),
                        tuple(Spools.SOOT.id(), 11),
                        tuple(Spools.BURGUNDY.id(), 13));
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
        assertThat(bench.ledger().swaps()).hasSize(3);
    }

    @Test
    void heights_that_were_changed_when_slicing_are_taken_into_the_plan() {
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(byHeight(7, "T0", 15, "T1"));
        Fix fix = bench.found("file-colours-differ").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan it as the file prints");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(bench.plan.starts().get(1).wished()).isEqualTo(Height.ofMillimetres(1.4));
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    @Test
    void a_skirt_that_primes_both_tools_keeps_nobody_from_planning_as_the_file_prints() {
        SmallGcode gcode = new SmallGcode().line("T1").rise(0.2).outline(85, 85, 30, 30, 0.04);
        gcode.line("T0").grid(0.2, 0.2, 10).line("T1").outline(20, 20, 12, 12, 0.04);
        Bench bench = new Bench().sliced(gcode.grid(2.2, 0.2, 5));
        bench.plan =
                bench.found("tool-without-spool").fix().orElseThrow().colours().apply(bench.plan);
        assertThat(bench.plan.tranches(bench.grid))
                .extracting(t -> t.spool(), t -> t.firstLayer())
                .containsExactly(tuple(Spools.SOOT.id(), 1), tuple(Spools.CHALK.id(), 11));
        assertThat(bench.found("file-colours-differ").sentence())
                .startsWith("On layer 1 and 1 other layer the G-code prints B Chalk beside the model");
        assertThat(bench.found("file-colours-differ").fix()).isEmpty();
    }

    @Test
    void a_brim_that_touches_the_model_is_no_skirt() {
        SmallGcode gcode = new SmallGcode().line("T1").rise(0.2).outline(89.8, 89.8, 20.4, 20.4, 0.04);
        Bench bench = new Bench()
                .start(2, Spools.CHALK)
                .sliced(gcode.line("T0").grid(0.2, 0.2, 10).line("T1").grid(2.2, 0.2, 5));
        assertThat(bench.found("file-colours-differ").sentence()).contains("which spool each tool stands for");
    }

    /** A tile with an inlay of 8 by 8 mm, 1 mm out of its middle, from bed to top. */
    private static Bench inlaid() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 20, 20, 3).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        bench.body = Optional.of(
                new Body(List.of(bench.mesh, new Shapes().box(5, 6, 0, 8, 8, 3).mesh()), 0));
        return bench;
    }

    /** Walls half a line of 0.4 mm inside what they are round, and that of the pocket half a line outside the inlay. */
    private static SmallGcode inlaid(int layers, String tile, String inlay, double... copies) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= layers; layer++) {
            gcode.line(tile).rise(0.2 * layer);
            for (double x : copies) {
                gcode.outline(x + 0.2, 90.2, 19.6, 19.6, 0.04).outline(x + 4.8, 95.8, 8.4, 8.4, 0.04);
            }
            gcode.line(inlay);
            for (double x : copies) {
                gcode.outline(x + 5.2, 96.2, 7.6, 7.6, 0.04);
            }
        }
        return gcode;
    }

    @Test
    void parts_that_were_given_tools_when_slicing_are_planned_in_their_colours() {
        for (double[] copies : new double[][] {{90}, {60, 90, 120}}) {
            Bench bench = inlaid().start(2, Spools.SKY).sliced(inlaid(15, "T0", "T2", copies));
            Fix fix = bench.found("file-colours-differ").fix().orElseThrow();
            bench.plan = fix.colours().apply(bench.plan);
            assertThat(bench.plan.tranches(bench.grid)).hasSize(1);
            Region inlay = bench.plan.regions().list().get(0);
            assertThat(inlay.shape()).isEqualTo(new Shape.Parts(List.of(1)));
            assertThat(inlay.name()).isEqualTo("part 2");
            assertThat(table(bench).spool(2, 1)).contains(inlay.spool());
            assertThat(table(bench).others()).isEmpty();
        }
    }

    @Test
    void parts_get_spools_of_the_shelf_for_tools_that_stand_for_none() {
        Bench bench = inlaid().sliced(inlaid(15, "T0", "T1", 90));
        Fix fix = bench.found("tool-without-spool").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan it as the file prints, T1 as Chalk");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(table(bench).spool(0, 1)).contains(Spools.SOOT.id());
        assertThat(bench.plan.regions().list()).extracting(Region::spool).containsExactly(Spools.CHALK.id());
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    private static MultiPolygon box(double x, double y, double width, double depth) {
        GeometryFactory factory = new GeometryFactory();
        return factory.createMultiPolygon(
                new Polygon[] {(Polygon) factory.toGeometry(new Envelope(x, x + width, y, y + depth))});
    }

    @Test
    void parts_that_begin_high_up_and_are_many_are_found_all_the_same() {
        int layers = 30;
        Bench bench = inlaid();
        bench.mesh = new Shapes().box(0, 0, 0, 20, 20, 0.2 * layers).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        List<Mesh> solids = new ArrayList<>(List.of(bench.mesh));
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= layers; layer++) {
            gcode.line("T0").rise(0.2 * layer);
            for (double inside : new double[] {0.2, 0.6}) {
                gcode.outline(90 + inside, 90 + inside, 20 - 2 * inside, 20 - 2 * inside, 0.04);
            }
            if (layer < 3) {
                gcode.line("T1").dab(20, 20);
            }
            for (int row = 0; layer > 20 && row < 12; row++) {
                gcode.line("T1").outline(92.2, 91.7 + 1.5 * row, 15.6 - row, 0.6, 0.04);
            }
        }
        for (int row = 0; row < 12; row++) {
            solids.addAll(Prism.of(
                    box(2, 1.5 + 1.5 * row, 16 - row, 1), Height.ofMillimetres(4), Height.ofMillimetres(0.2 * layers)));
        }
        bench.body = Optional.of(new Body(solids, 0));
        bench.sliced(gcode);
        bench.plan =
                bench.found("tool-without-spool").fix().orElseThrow().colours().apply(bench.plan);
        Region rows = bench.plan.regions().list().get(0);
        assertThat(((Shape.Parts) rows.shape()).numbers()).hasSize(12);
        assertThat(rows.name()).isEqualTo("part 2 and others");
        // What the file prints beside the parts is told, and nothing is to be planned for it.
        assertThat(bench.found("file-colours-differ").severity()).isEqualTo(Severity.WARN);
        bench.plan = bench.plan.with(bench.plan.regions().replace(0, rows.named("Rows")));
        assertThat(bench.found("file-colours-differ").fix()).isEmpty();
    }

    @Test
    void a_tower_or_skirt_of_the_file_changes_no_colour_of_the_print_and_stops_nobody() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.line(layer <= 10 ? "T1" : "T0")
                    .rise(0.2 * layer)
                    .outline(20, 20, 12, 12, 0.04)
                    .line(layer <= 10 ? "T0" : "T1")
                    .outline(90.2, 90.2, 19.6, 19.6, 0.04);
        }
        Bench bench = new Bench().start(2, Spools.CHALK).sliced(gcode);
        Finding tower = bench.found("file-colours-differ");
        assertThat(tower.severity()).isEqualTo(Severity.WARN);
        assertThat(tower.sentence())
                .startsWith("On layer 1 and 14 other layers the G-code prints A Soot and B Chalk beside the model")
                .doesNotContain("which spool");
        Bench skirted = new Bench()
                .start(2, Spools.CHALK)
                .sliced(new SmallGcode()
                        .line("T1")
                        .rise(0.2)
                        .outline(85, 85, 30, 30, 0.04)
                        .line("T0")
                        .grid(0.2, 0.2, 10)
                        .line("T1")
                        .grid(2.2, 0.2, 5));
        assertThat(skirted.found("file-colours-differ").sentence())
                .startsWith("On layer 1 the G-code prints B Chalk beside the model");
    }

    /** A bridge of 20 × 20 mm on two legs, and what holds its middle up between them. */
    private static Bench bridge(String legs, String support, String roof) {
        Bench bench = new Bench();
        bench.mesh = new Shapes()
                .box(0, 0, 0, 5, 20, 2)
                .box(15, 0, 0, 5, 20, 2)
                .box(0, 0, 2, 20, 20, 1)
                .mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).line(layer > 10 ? roof : legs);
            if (layer > 10) {
                gcode.outline(90.2, 90.2, 19.6, 19.6, 0.04);
                continue;
            }
            gcode.outline(90.2, 90.2, 4.6, 19.6, 0.04).outline(105.2, 90.2, 4.6, 19.6, 0.04);
            gcode.line(support).outline(95.8, 91, 8.4, 18, 0.04);
        }
        return bench.sliced(gcode);
    }

    @Test
    void supports_of_a_tool_of_their_own_get_a_spool_that_colours_nothing() {
        Bench bench = bridge("T0", "T1", "T0");
        Fix fix = bench.found("tool-without-spool").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan it as the file prints, T1 as Chalk");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(bench.plan.spools()).containsExactly(Spools.SOOT.id());
        Finding beside = bench.found("file-colours-differ");
        assertThat(beside.severity()).isEqualTo(Severity.WARN);
        assertThat(beside.sentence())
                .startsWith("On layer 1 and 9 other layers the G-code prints B Chalk beside the model");
        assertThat(beside.fix()).isEmpty();
        // In and out again on each layer.
        assertThat(bench.ledger().swaps()).hasSize(20);
    }

    @Test
    void supports_in_many_lines_are_supports_as_well() {
        Bench bench = new Bench();
        Shapes comb = new Shapes().box(0, 0, 2, 120, 20, 1);
        SmallGcode gcode = new SmallGcode();
        for (int rib = 0; rib < 40; rib++) {
            comb.box(3 * rib, 0, 0, 1.2, 20, 2);
        }
        bench.mesh = comb.mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).line("T0");
            if (layer > 10) {
                gcode.outline(60.2, 90.2, 119.6, 19.6, 0.04);
                continue;
            }
            for (int rib = 0; rib < 40; rib++) {
                gcode.outline(60.2 + 3 * rib, 90.2, 0.8, 19.6, 0.04);
            }
            gcode.line("T1");
            for (int gap = 0; gap < 39; gap++) {
                gcode.outline(61.8 + 3 * gap, 91, 0.6, 18, 0.04);
            }
        }
        bench.sliced(gcode);
        assertThat(bench.found("tool-without-spool").fix().orElseThrow().label())
                .isEqualTo("Plan it as the file prints, T1 as Chalk");
    }

    @Test
    void another_order_promises_the_swaps_that_supports_need_in_it() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 20, 3).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        bench.region(new Region(
                "half", new Shape.Zone(new Outline.Box(20, 20), 30, 10, 0, false), Spools.CHALK.id(), Range.ALL));
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            for (int half : layer % 2 == 1 ? new int[] {0, 1} : new int[] {1, 0}) {
                gcode.line("T" + half).outline(90.2 + 20 * half, 90.2, 19.6, 19.6, 0.04);
            }
            if (layer <= 3) {
                gcode.line("T2").outline(150, 90, 10, 10, 0.04);
            }
        }
        bench.sliced(gcode);
        bench.plan =
                bench.found("tool-without-spool").fix().orElseThrow().colours().apply(bench.plan);
        assertThat(table(bench).agrees()).isTrue();
        PrintOrder sliced = bench.reckoning().asSliced().orElseThrow();
        int promised = bench.reckoning()
                .ledger(bench.orders().banded().besides(sliced))
                .spoolSwaps();
        int own = bench.ledger().spoolSwaps();
        bench.plan = bench.plan.with(bench.plan.ordering().by(Ordering.Rule.BANDS));
        assertThat(bench.ledger().spoolSwaps()).isEqualTo(promised).isLessThan(own);
    }

    @Test
    void a_spool_that_colours_nothing_prints_no_part_of_the_model_unasked() {
        Bench bench = new Bench().sliced(byHeight(10, "T0", 15, "T1"));
        bench.plan = bench.plan.holding(List.of(Spools.CHALK.id()));
        assertThat(table(bench).spool(1, 15)).contains(Spools.CHALK.id());
        assertThat(bench.found("file-colours-differ").severity()).isEqualTo(Severity.STOP);
        assertThat(bench.found("file-colours-differ").fix().orElseThrow().label())
                .isEqualTo("Plan it as the file prints");
    }

    @Test
    void what_is_laid_beside_the_parts_with_a_tool_of_its_own_gets_a_spool_as_well() {
        Bench bench = inlaid().sliced(inlaid(15, "T0", "T0", 90).line("T1").dab(20, 20));
        assertThat(bench.found("tool-without-spool").fix().orElseThrow().label())
                .isEqualTo("Plan it as the file prints, T1 as Chalk");
    }

    @ParameterizedTest
    @CsvSource({"T2,T1,2", "T1,T2,1"})
    void a_spool_for_supports_is_found_beside_the_colours_of_the_model(String support, String roof, int number) {
        Bench bench = bridge("T0", support, roof);
        Fix fix = bench.found("tool-without-spool").fix().orElseThrow();
        assertThat(fix.label()).isEqualTo("Plan it as the file prints, T1 as Chalk, T2 as Burgundy");
        bench.plan = fix.colours().apply(bench.plan);
        assertThat(table(bench).spool(number, 1)).contains(number == 2 ? Spools.BURGUNDY.id() : Spools.CHALK.id());
        assertThat(bench.plan.tranches(bench.grid)).hasSize(2);
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    @Test
    void a_spot_in_the_model_is_no_tower() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.line("T1").rise(0.2 * layer).outline(20, 20, 12, 12, 0.04);
            if (layer == 15) {
                gcode.dab(100, 100);
            }
            gcode.line("T0").outline(90.2, 90.2, 19.6, 19.6, 0.04);
        }
        Bench bench = inlaid();
        bench.body = Optional.empty();
        bench.start(2.8, Spools.CHALK).sliced(gcode);
        assertThat(bench.found("file-colours-differ").sentence()).contains("which spool each tool stands for");
    }

    @Test
    void parts_that_several_tools_print_are_left_to_the_owner() {
        SmallGcode changing = inlaid(7, "T0", "T1", 90);
        for (int layer = 8; layer <= 15; layer++) {
            changing.line("T1")
                    .rise(0.2 * layer)
                    .outline(90.2, 90.2, 19.6, 19.6, 0.04)
                    .line("T0")
                    .outline(95.2, 96.2, 7.6, 7.6, 0.04);
        }
        assertThat(inlaid().sliced(changing).found("tool-without-spool").fix()).isEmpty();
        // Higher up the inlay is drawn without a wall round it, by whoever is there.
        SmallGcode resting = inlaid(9, "T0", "T1", 90).line("T0");
        for (int layer = 10; layer <= 15; layer++) {
            resting.rise(0.2 * layer)
                    .outline(90.2, 90.2, 19.6, 19.6, 0.04)
                    .outline(95.2, 96.2, 3.6, 7.6, 0.04)
                    .outline(99.2, 96.2, 3.6, 7.6, 0.04);
        }
        assertThat(inlaid().sliced(resting).found("tool-without-spool").fix()).isEmpty();
    }

    @Test
    void what_cannot_be_planned_by_height_or_with_what_is_on_the_shelf_is_left_to_the_owner() {
        Bench bench = new Bench().sliced(byHeight(5, "T0", 10, "T1", 15, "T2"));
        bench.shelf.keySet().retainAll(Set.of(Spools.SOOT.id(), Spools.SKY.id()));
        assertThat(bench.found("tool-without-spool").fix()).isEmpty();
        SmallGcode mixed = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            mixed.line("T0").layers(0.2 * layer).dab(100, 100).line("T1").dab(100, 100);
        }
        assertThat(new Bench().sliced(mixed).found("tool-without-spool").fix()).isEmpty();
    }

    @Test
    void a_plan_holds_no_more_heights_and_letters_than_it_can_whatever_the_file_changes() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 10, 10, 101).mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        Object[] stripes = IntStream.rangeClosed(1, 505)
                .boxed()
                .flatMap(layer -> Stream.of(layer, "T" + layer % 2))
                .toArray();
        assertThat(bench.sliced(byHeight(stripes)).found("tool-without-spool").fix())
                .isEmpty();
        Bench many = new Bench();
        IntStream.rangeClosed(1, 30)
                .mapToObj(i -> Spools.spool(i, "Spool " + i, "#336699"))
                .forEach(s -> many.shelf.put(s.id(), s));
        many.mesh = new Shapes().box(0, 0, 0, 10, 10, 6).mesh();
        many.grid = many.plan.layers().on(many.mesh.height());
        Object[] tools = IntStream.rangeClosed(1, 30)
                .boxed()
                .flatMap(layer -> Stream.of(layer, "T" + layer))
                .toArray();
        assertThat(many.sliced(byHeight(tools)).found("tool-without-spool").fix())
                .isEmpty();
    }
}
