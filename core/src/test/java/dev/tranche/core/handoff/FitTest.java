package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Dialect.Counting;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.speech.Severity;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;

class FitTest {
    /** Feeds a line 0.45 mm wide and 0.2 mm high: its area by that of a filament of 1.75 mm. */
    private static final double FEED = (0.45 - 0.2 * (1 - Math.PI / 4)) * 0.2 / (Math.PI * 1.75 * 1.75 / 4);

    private static final double WIDTH = 0.45;

    /** A plate of 40 × 20 × 3 mm. */
    private static Bench plate() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 20, 3).mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        return bench;
    }

    private static boolean isAnother(Bench bench, SmallGcode gcode) {
        return bench.sliced(gcode).findings().stream().anyMatch(f -> f.key().equals("another-model"));
    }

    /** The walls of a box of that size, {@code shrunk} on the first layer. */
    private static SmallGcode walls(double width, double depth, double shrunk) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            double in = (layer == 1 ? shrunk : 0) + WIDTH / 2;
            gcode.rise(0.2 * layer);
            // The inner wall first, as many programs have it.
            for (double more : new double[] {WIDTH, 0}) {
                double inset = in + more;
                gcode.outline(60 + inset, 70 + inset, width - 2 * inset, depth - 2 * inset, FEED);
            }
        }
        return gcode;
    }

    @Test
    void the_same_model_is_known_wherever_it_stands() {
        assertThat(isAnother(plate(), walls(40, 20, 0))).isFalse();
    }

    /** Its lines are added up, and its G90 comes after M83: to some firmwares it is nonsense. */
    private static SmallGcode added(boolean toSome) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion().line(toSome ? "G90" : "; nothing more");
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).outline(60 + WIDTH / 2, 70 + WIDTH / 2, 40 - WIDTH, 20 - WIDTH, FEED);
        }
        return gcode;
    }

    @Test
    void a_file_that_only_one_way_of_counting_filament_makes_lines_of_says_which_it_is() {
        Bench bench = plate();
        assertThat(isAnother(bench, added(true))).isFalse();
        Finding asks = bench.found("filament-readings");
        assertThat(asks.severity()).isEqualTo(Severity.STOP);
        assertThat(asks.sentence()).contains("M82 and M83 alone");
        bench.printer =
                asks.fix().orElseThrow().rig().orElseThrow().apply(bench.rig()).printer();
        assertThat(bench.printer.abilities().dialect().filament()).isEqualTo(Counting.BY_ITSELF);
        bench.sliced(added(true));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("filament-readings", "another-model");
    }

    @Test
    void a_printer_that_is_said_to_count_otherwise_would_print_nothing_of_it() {
        Bench bench = plate();
        bench.printer = bench.printer.with(bench.printer.abilities().reading(new Dialect(Counting.WITH_PLACES)));
        bench.sliced(added(true));
        assertThat(bench.found("filament-readings").sentence())
                .contains("M82 and M83 alone", "M82 and M83, and G90 and G91 too");
        bench.sliced(added(false));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("filament-readings");
    }

    @Test
    void a_hop_after_which_only_some_firmwares_count_anew_is_seen_through_as_well() {
        Bench bench = plate();
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.line("G91").line("G1 Z0.2 F600").line("G90");
            gcode.outline(60 + WIDTH / 2, 70 + WIDTH / 2, 40 - WIDTH, 20 - WIDTH, FEED);
        }
        bench.sliced(gcode);
        assertThat(bench.found("filament-readings").sentence()).contains("M82 and M83 alone");
        // And the other way about: numbers go up, and M83 stands at the top for a firmware that takes it back.
        SmallGcode counted = new SmallGcode().line("M83").line("G90");
        for (int layer = 1; layer <= 15; layer++) {
            counted.rise(0.2 * layer).outline(60 + WIDTH / 2, 70 + WIDTH / 2, 40 - WIDTH, 20 - WIDTH, FEED);
        }
        bench.sliced(counted);
        assertThat(bench.found("filament-readings").sentence()).contains("M82 and M83, and G90 and G91 too");
        bench.printer = bench.printer.with(bench.printer.abilities().reading(new Dialect(Counting.BY_ITSELF)));
        bench.sliced(counted);
        assertThat(bench.found("filament-readings").severity()).isEqualTo(Severity.STOP);
    }

    /** As many layers above so much air may be 0.2 mm each, and the first of them 0.3 mm. */
    @Test
    void what_lies_a_little_higher_above_a_raft_may_have_another_first_layer() {
        Bench bench = new Bench();
        bench.mesh = new Shapes()
                .box(0, 0, 0, 40, 20, 1.3)
                .box(10, 5, 1.3, 20, 10, 0.8)
                .mesh();
        bench.grid = bench.plan.layers().on(bench.mesh.height());
        SmallGcode file = new SmallGcode().sized(44, 24).layers(0.3, 0.55, 0.8);
        for (int layer = 1; layer <= 10; layer++) {
            double wide = layer <= 6 ? 40 : 20;
            file.rise(1.05 + 0.2 * layer)
                    .outline(
                            100 - wide / 2 + WIDTH / 2,
                            100 - wide / 4 + WIDTH / 2,
                            wide - WIDTH,
                            wide / 2 - WIDTH,
                            FEED);
        }
        bench.sliced(file);
        for (String key : List.of("another-model", "raft-differs")) {
            bench.plan = bench.found(key).fix().orElseThrow().colours().apply(bench.plan);
            bench.grid = bench.plan.layers().on(bench.mesh.height());
        }
        assertThat(bench.grid.firstLayer()).hasToString("0.30");
        assertThat(bench.plan.layers().raft()).hasToString("0.95");
        assertThat(bench.findings()).noneMatch(f -> f.severity() == Severity.STOP);
    }

    @ParameterizedTest
    @CsvSource({"44, 20", "40, 26", "30, 20", "20, 40", "15, 15", "90, 90"})
    void another_model_of_the_same_height_is_told(double width, double depth) {
        Bench bench = plate();
        assertThat(isAnother(bench, walls(width, depth, 0))).isTrue();
        Finding finding = bench.found("another-model");
        assertThat(finding.severity()).isEqualTo(Severity.STOP);
        assertThat(finding.sentence()).contains("On layer 1", "40.0 and 20.0 mm");
        bench.said = Said.NOTHING.accepting(Set.of(finding.word()));
        assertThat(bench.found("another-model").severity()).isEqualTo(Severity.WARN);
        // What was accepted was this difference, and not whatever comes.
        bench.sliced(walls(width + 3, depth, 0));
        assertThat(bench.found("another-model").severity()).isEqualTo(Severity.STOP);
    }

    /** Three bars alike, as rungs are, drawn for each place in an order of its own. */
    private static SmallGcode ladders(double... places) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            for (int nth = 0; nth < 3 * places.length; nth++) {
                int rung = nth % 3;
                double at = places[(nth / 3 + rung + layer) % places.length];
                gcode.outline(at + WIDTH / 2, 70 + 8 * rung + WIDTH / 2, 30 - WIDTH, 4 - WIDTH, FEED);
            }
        }
        return gcode;
    }

    @Test
    void rungs_of_one_model_that_are_alike_are_no_copies_of_it() {
        Bench bench = new Bench();
        bench.mesh = new Shapes()
                .box(0, 0, 0, 30, 4, 3)
                .box(0, 8, 0, 30, 4, 3)
                .box(0, 16, 0, 30, 4, 3)
                .mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        assertThat(bench.sliced(ladders(40)).facts().layout().copies()).hasSize(1);
        assertThat(bench.sliced(ladders(40, 90)).facts().layout().copies())
                .extracting(c -> Math.round(c.spot().x()))
                .containsExactly(55L, 105L);
    }

    @Test
    void forty_ribs_of_one_comb_are_no_two_combs() {
        Shapes comb = new Shapes();
        SmallGcode gcode = new SmallGcode();
        for (int rib = 0; rib < 40; rib++) {
            comb.box(4 * rib, 0, 0, 2, 60, 3);
        }
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            for (int rib = 0; rib < 40; rib++) {
                gcode.outline(10 + 4 * rib + WIDTH / 2, 10 + WIDTH / 2, 2 - WIDTH, 60 - WIDTH, FEED);
            }
        }
        Bench bench = plate();
        bench.mesh = comb.mesh();
        assertThat(bench.sliced(gcode).facts().layout().copies()).hasSize(1);
    }

    /** Of loose pegs, or of pegs on a tray, more than a layer's lines are kept of. */
    @ParameterizedTest
    @CsvSource({"false, 1", "false, 2", "true, 1", "true, 2"})
    void a_hundred_pegs_are_one_model_as_often_as_they_are_printed(boolean tray, int copies) {
        Shapes pegs = new Shapes();
        for (int peg = 0; peg < 100; peg++) {
            pegs.box(9 * (peg % 10), 9 * (peg / 10), tray ? 1 : 0, 4, 4, tray ? 4 : 5);
        }
        Bench bench = plate();
        bench.mesh = (tray ? pegs.box(-2, -2, 0, 89, 89, 1) : pegs).mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 25; layer++) {
            gcode.rise(0.2 * layer);
            for (int copy = 0; copy < copies; copy++) {
                double west = 20 + 120 * copy;
                if (tray && layer <= 5) {
                    gcode.outline(west - 2 + WIDTH / 2, 48 + WIDTH / 2, 89 - WIDTH, 89 - WIDTH, FEED);
                    continue;
                }
                for (int peg = 0; peg < 100; peg++) {
                    for (double in = WIDTH / 2; in < 1; in += WIDTH) {
                        gcode.outline(
                                west + 9 * (peg % 10) + in, 50 + 9 * (peg / 10) + in, 4 - 2 * in, 4 - 2 * in, FEED);
                    }
                }
            }
        }
        assertThat(bench.sliced(gcode).facts().fit().orElseThrow().copies())
                .extracting(c -> Math.round(c.x))
                .containsExactlyElementsOf(copies == 1 ? List.of(20L) : List.of(20L, 140L));
    }

    @Test
    void a_model_is_no_larger_for_being_printed_twice() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            for (double west : new double[] {5, 190}) {
                gcode.outline(west + WIDTH / 2, 50 + WIDTH / 2, 40 - WIDTH, 20 - WIDTH, FEED);
            }
        }
        Bench bench = plate();
        assertThat(bench.printer.bed().bounds().getWidth()).isBetween(45.0, 225.0);
        assertThat(bench.sliced(gcode).findings()).extracting(Finding::key).doesNotContain("too-wide");
        bench.mesh = new Shapes().box(0, 0, 0, 300, 20, 3).mesh();
        assertThat(bench.findings()).extracting(Finding::key).contains("too-wide");
    }

    @Test
    void skirts_towers_and_copies_are_put_aside() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            if (layer == 1) {
                gcode.outline(50, 60, 150, 80, FEED);
            }
            double in = WIDTH / 2;
            gcode.outline(60 + in, 70 + in, 40 - WIDTH, 20 - WIDTH, FEED);
            gcode.outline(60 + in, 100 + in, 40 - WIDTH, 20 - WIDTH, FEED);
            if (layer < 12) {
                gcode.outline(150, 70, 25, 25, FEED);
            }
        }
        assertThat(isAnother(plate(), gcode)).isFalse();
    }

    @Test
    void a_wall_round_the_print_on_every_layer_is_put_aside_though_the_model_is_drawn_in_halves() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).outline(54, 64, 52, 32, FEED);
            for (int half = 0; half < 2; half++) {
                gcode.outline(60 + 20 * half + WIDTH / 2, 70 + WIDTH / 2, 20 - WIDTH, 20 - WIDTH, FEED);
            }
        }
        assertThat(isAnother(plate(), gcode)).isFalse();
    }

    /** The skin of the eastern side has a tool of its own, and the lines of the other end before it. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 4})
    void a_painted_skin_does_not_move_the_model(int copies) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            double skin = layer % 3 == 1 ? 0.8 : 1.3;
            for (int tool = 0; tool < 2; tool++) {
                gcode.line("T" + tool);
                for (int copy = 0; copy < copies; copy++) {
                    double west = 60 + 50 * copy + (tool == 0 ? 0 : 40 - skin);
                    double wide = tool == 0 ? 40 - skin : skin;
                    for (double in = WIDTH / 2; in < wide / 2 && in < 4 * WIDTH; in += WIDTH) {
                        gcode.outline(west + in, 70 + in, wide - 2 * in, 20 - 2 * in, FEED);
                    }
                }
            }
        }
        assertThat(plate().sliced(gcode).facts().surroundings().copies())
                .hasSize(copies)
                .first()
                .satisfies(at -> assertThat(at.distance(new Coordinate(60, 70))).isLessThan(0.02));
    }

    @Test
    void walls_in_pieces_are_taken_together() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            double in = WIDTH / 2;
            gcode.outline(60 + in, 70 + in, 20 - WIDTH, 20 - WIDTH, FEED);
            gcode.outline(80 + in, 70 + in, 20 - WIDTH, 20 - WIDTH, FEED);
            gcode.outline(150, 70, 25, 25, FEED);
        }
        assertThat(isAnother(plate(), gcode)).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"0", "0.1", "0.2", "0.4"})
    void how_far_the_first_layer_is_drawn_in_is_measured(double shrink) {
        Bench bench = plate().sliced(walls(40, 20, shrink));
        assertThat(bench.facts().fit().orElseThrow().shrink()).hasValueCloseTo(shrink, within(0.001));
    }

    @Test
    void something_as_large_that_ends_lower_does_not_mislead() {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            double in = WIDTH / 2;
            gcode.rise(0.2 * layer);
            if (layer <= 6) {
                gcode.outline(130 + in, 20 + in, 40 - WIDTH, 20 - WIDTH, FEED);
            }
            gcode.outline(60 + in, 70 + in, 40 - WIDTH, 20 - WIDTH, FEED);
        }
        assertThat(isAnother(plate(), gcode)).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"15, false", "11, true"})
    void there_is_plastic_as_far_as_the_model_goes_on_every_layer(double width, boolean another) {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 15; layer++) {
            double in = WIDTH / 2;
            gcode.rise(0.2 * layer);
            if (layer <= 11) {
                gcode.outline(60 + in, 70 + in, 40 - WIDTH, 20 - WIDTH, FEED);
            } else {
                // Two pieces with a gap between, from end to end or not.
                gcode.outline(60 + in, 70 + in, 15 - WIDTH, 20 - WIDTH, FEED);
                gcode.outline(85 + in, 70 + in, width - WIDTH, 20 - WIDTH, FEED);
            }
        }
        Bench bench = plate();
        assertThat(isAnother(bench, gcode)).isEqualTo(another);
        if (another) {
            assertThat(bench.found("another-model").layer()).hasValue(12);
            assertThat(bench.found("another-model").sentence()).contains("14.6 mm wide and 19.6 mm deep");
        }
    }

    @Test
    void a_brim_is_no_wall() {
        SmallGcode gcode = new SmallGcode().rise(0.2);
        for (int i = 3; i >= 1; i--) {
            double out = i * WIDTH - WIDTH / 2 - 0.2;
            gcode.outline(60 - out, 70 - out, 40 + 2 * out, 20 + 2 * out, FEED);
        }
        for (int layer = 1; layer <= 15; layer++) {
            double in = WIDTH / 2 + (layer == 1 ? 0.2 : 0);
            gcode.rise(0.2 * layer).outline(60 + in, 70 + in, 40 - 2 * in, 20 - 2 * in, FEED);
        }
        Bench bench = plate().sliced(gcode);
        assertThat(bench.facts().fit().orElseThrow().shrink()).hasValueCloseTo(0.2, within(0.001));
    }

    @Test
    void the_gap_round_inlays_is_found_without_being_asked_for() {
        Bench bench = plate().region(new Region(
                "core", new Shape.Zone(new Outline.Disc(6), 10, 10, 0, false), Spools.CHALK.id(), Range.ALL));
        bench.sliced(walls(40, 20, 0.2));
        assertThat(bench.found("first-layer-gaps").sentence())
                .contains("drawn in by 0.20 mm in the G-code", "a gap of 0.40 mm along 19 mm");
        bench.sliced(walls(40, 20, 0.02));
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("first-layer-gaps");
    }
}
