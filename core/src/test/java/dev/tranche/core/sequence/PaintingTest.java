package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.coat.Patches.Patch;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Dialect.Counting;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Severity;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;

/** Models of one part that were painted in a slicing program. */
class PaintingTest {
    private static final double WIDTH = 0.45;
    private static final double FEED = 0.0374;

    /** A plate of 40 × 20 × 3 mm, nowhere near where the file has it. */
    private static Bench plate() {
        Bench bench = new Bench();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 20, 3).mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        return bench;
    }

    private static void walls(SmallGcode gcode, double x, double y, double width, double depth, int loops) {
        for (int i = 0; i < loops; i++) {
            double in = WIDTH / 2 + i * WIDTH;
            gcode.outline(100 + x + in, 50 + y + in, width - 2 * in, depth - 2 * in, FEED);
        }
    }

    private static SmallGcode painted(int alone) {
        return painted(alone, "T%d");
    }

    /** The plate with T0, its eastern fifteen millimetres with T1, and T1 alone from layer {@code alone} on; a tool is called by {@code call}. */
    private static SmallGcode painted(int alone, String call) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            if (layer >= alone) {
                gcode.line(call.formatted(1));
                walls(gcode, 0, 0, 40, 20, 3);
                continue;
            }
            gcode.line(call.formatted(0));
            walls(gcode, 0, 0, 25, 20, 20);
            gcode.line(call.formatted(1));
            // Two walls, and nothing but a bar within.
            walls(gcode, 25, 0, 15, 20, 2);
            gcode.outline(132, 60, 1, 0.1, FEED);
        }
        return gcode;
    }

    private static Painting of(Bench bench, SmallGcode gcode) throws IOException {
        bench.sliced(gcode);
        return Painting.of(
                bench.source(),
                bench.facts().surroundings(),
                bench.printer.abilities().dialect(),
                Progress.UNHEARD);
    }

    @Test
    void the_colours_of_a_painted_plate_are_drawn_from_the_lines_of_its_file() throws IOException {
        Bench bench = plate();
        Painting painting = of(bench, painted(12));
        assertThat(painting.base()).isZero();
        assertThat(painting.patches()).extracting(Patch::first).containsExactly(1, 12);
        assertThat(painting.patches()).extracting(Patch::last).containsExactly(11, 15);
        AsSliced sliced = bench.facts().painted(painting);
        assertThat(sliced.added()).containsOnlyKeys(1);
        bench.plan = sliced.plan();
        double other = bench.colouring().layer(4).tints().stream()
                .filter(t -> !t.spool().equals(Spools.SOOT.id()))
                .mapToDouble(Tint::squareMillimetres)
                .sum();
        // To half a square of its drawing along the border of 20 mm.
        assertThat(other).isCloseTo(15 * 20, within(20 * 0.15));
        assertThat(bench.colouring().layer(13).spools())
                .containsExactly(sliced.added().get(1));
        assertThat(bench.findings())
                .filteredOn(f -> f.severity() == Severity.STOP)
                .extracting(Finding::key)
                .isEmpty();
        assertThat(bench.ledger().swaps()).hasSize(21);
    }

    @ParameterizedTest
    @ValueSource(strings = {"M6 T%d", "CHANGE_TO %d", "T%d ; with a word"})
    void tools_are_chosen_by_whatever_chooses_them(String call) throws IOException {
        Bench bench = plate();
        bench.printer = bench.printer.with(bench.printer
                .abilities()
                .reading(new Dialect(Counting.NOT_SAID, List.of(), List.of(new OwnLine("CHANGE_TO #")))));
        assertThat(of(bench, painted(12, call)).patches())
                .extracting(Patch::first)
                .containsExactly(1, 12);
    }

    @Test
    void what_moves_from_layer_to_layer_is_drawn_layer_by_layer() throws IOException {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).line("T0");
            double border = 10 + layer;
            walls(gcode, 0, 0, border, 20, 6);
            gcode.line("T1");
            walls(gcode, border, 0, 40 - border, 20, 5);
        }
        Painting painting = of(plate(), gcode);
        assertThat(painting.patches()).hasSize(15);
        Geometry plate = new GeometryFactory().toGeometry(new Envelope(0, 40, 0, 20));
        for (Patch patch : painting.patches()) {
            assertThat(patch.area().intersection(plate).getArea())
                    .isCloseTo((30.0 - patch.first()) * 20, within(20 * 0.15));
        }
    }

    /** A border of two colours that wanders from layer to layer, as a pattern does that was painted on a figure. */
    private static SmallGcode wandering(int layers) {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= layers; layer++) {
            gcode.rise(0.2 * layer).line("T0");
            double border = border(layer);
            walls(gcode, 0, 0, border, 20, 6);
            if (layer % 50 != 0) {
                gcode.line("T1");
                walls(gcode, border, 0, 40 - border, 20, 5);
            }
        }
        return gcode;
    }

    private static double border(int layer) {
        return layer % 50 == 0 ? 40 : 10 + layer % 23;
    }

    @Test
    void a_colour_that_changes_on_every_layer_of_a_high_figure_is_one_region() throws IOException {
        Bench bench = plate();
        bench.mesh = new Shapes().box(0, 0, 0, 40, 20, 64).mesh();
        bench.grid = LayerSettings.COMMON.on(bench.mesh.height());
        Painting painting = of(bench, wandering(320));
        AsSliced sliced = bench.facts().painted(painting);
        bench.plan = sliced.plan();
        assertThat(bench.plan.regions().list()).singleElement().satisfies(r -> assertThat(r.name())
                .isEqualTo("T1"));
        Colouring colouring = bench.colouring();
        for (int layer = 1; layer <= 320; layer++) {
            double own = colouring.layer(layer).tints().stream()
                    .filter(t -> t.spool().equals(sliced.added().get(1)))
                    .mapToDouble(Tint::squareMillimetres)
                    .sum();
            assertThat(own).as("layer " + layer).isCloseTo((40 - border(layer)) * 20, within(20 * 0.15));
        }
        assertThat(bench.findings())
                .filteredOn(f -> f.severity() == Severity.STOP)
                .isEmpty();
    }

    @Test
    void colours_meet_where_their_lines_end_whichever_is_laid_first() throws IOException {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer);
            for (int turn : layer % 2 == 0 ? new int[] {0, 1} : new int[] {1, 0}) {
                gcode.line("T" + turn);
                for (double y = 50 + WIDTH / 2; y < 70; y += WIDTH) {
                    gcode.line("G1 X%.3f Y%.3f F7200".formatted(100 + 25.0 * turn, y));
                    gcode.line("G1 X%.3f E0.5 F1800".formatted(turn == 0 ? 125 : 140.0));
                }
            }
        }
        Painting painting = of(plate(), gcode);
        Geometry plate = new GeometryFactory().toGeometry(new Envelope(0, 40, 0, 20));
        assertThat(painting.patches()).singleElement().satisfies(patch -> assertThat(
                        patch.area().intersection(plate).getArea())
                .isCloseTo(15 * 20, within(20 * 0.1)));
    }

    @Test
    void a_line_shorter_than_wide_is_printed_by_the_plan_as_by_the_file() throws IOException {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).line("T0");
            walls(gcode, 0, 0, 40, 20, 22);
            gcode.line("T1").line("G1 X110.2 Y50.2 F7200").line("G1 X110.3 Y50.2 E0.004 F1800");
        }
        Bench bench = plate();
        Painting painting = of(bench, gcode);
        bench.plan = bench.facts().painted(painting).plan();
        assertThat(bench.colouring().layer(9).tints()).hasSize(2).allMatch(Tint::prints);
        assertThat(bench.findings()).extracting(Finding::key).doesNotContain("thin-B", "file-colours-differ");
    }

    @Test
    void of_two_copies_one_after_the_other_the_first_is_drawn() throws IOException {
        SmallGcode twice = new SmallGcode().relativeExtrusion();
        for (int object = 0; object < 2; object++) {
            for (int layer = 1; layer <= 15; layer++) {
                twice.rise(0.2 * layer).line("T" + object);
                walls(twice, 60 * object, 0, 40, 20, 2 + object);
            }
        }
        Painting painting = of(plate(), twice);
        assertThat(painting.base()).isOne();
        assertThat(painting.patches()).singleElement().satisfies(p -> {
            assertThat(p.label()).isZero();
            assertThat(p.first()).isOne();
            assertThat(p.last()).isEqualTo(15);
            assertThat(p.area().getArea()).isGreaterThan(40 * 20);
        });
    }

    @Test
    void a_file_that_is_none_of_the_model_is_refused() {
        SmallGcode other = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            other.rise(0.2 * layer).line("T" + layer % 2);
            walls(other, 0, 0, 20, 30, 2);
        }
        assertThatThrownBy(() -> of(plate(), other))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("prints the plan's model in layers, and this is none");
    }

    @Test
    void more_tools_than_a_plan_holds_spools_are_refused() {
        SmallGcode gcode = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            gcode.rise(0.2 * layer).line("T0");
            walls(gcode, 0, 0, 40, 20, 1);
            for (int tool = 0; tool < 30; tool++) {
                gcode.line("T" + tool).outline(100.2 + 1.25 * tool, 50.2, 1, 19.6, FEED);
            }
        }
        assertThatThrownBy(() -> of(plate(), gcode)).isInstanceOf(Refusal.class).hasMessageContaining("30 tools");
    }

    /** Each stripe some layers high before the next, over and over, as somebody's own order of the file has it. */
    @ParameterizedTest
    @ValueSource(ints = {1, 3, 5, 15})
    void the_same_is_drawn_from_a_file_that_prints_one_colour_layers_ahead(int high) throws IOException {
        SmallGcode layered = new SmallGcode().relativeExtrusion();
        for (int layer = 1; layer <= 15; layer++) {
            for (int tool = 0; tool < 2; tool++) {
                stripe(layered.line("T" + tool).rise(0.2 * layer), tool, layer);
            }
        }
        Painting painting = of(plate(), layered);
        assertThat(painting.patches()).hasSizeGreaterThan(2);
        Painting same = of(plate(), bands(high, false));
        assertThat(same.base()).isEqualTo(painting.base());
        assertThat(same.patches()).hasSameElementsAs(painting.patches());
    }

    @Test
    void what_comes_down_again_without_a_travel_is_refused() {
        assertThatThrownBy(() -> of(plate(), bands(5, true)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("what it prints at 0.40 mm begins without a travel");
    }

    /** @param climbs whether a line of plastic leads from one layer to the next */
    private static SmallGcode bands(int high, boolean climbs) {
        SmallGcode bands = new SmallGcode().relativeExtrusion();
        for (int from = 1; from <= 15; from += high) {
            for (int tool = 0; tool < 2; tool++) {
                // No file has to name the tool that it begins with.
                bands.line(from + tool == 1 ? ";" : "T" + tool);
                for (int layer = from; layer < from + high; layer++) {
                    if (climbs && layer > from) {
                        bands.line("G1 X%.1f Y51 Z%.1f E0.05 F900".formatted(101 + 25.0 * tool, 0.2 * layer));
                    } else {
                        bands.rise(0.2 * layer);
                    }
                    stripe(bands, tool, layer);
                }
            }
        }
        return bands;
    }

    /** Of the plate's eastern end, or of the rest; one above the other for some layers each tool is alone. */
    private static void stripe(SmallGcode gcode, int tool, int layer) {
        if (layer <= 10) {
            walls(gcode, 25 * tool, 0, tool == 0 ? 25 : 15, 20, 20);
        } else if (layer % 2 == tool) {
            walls(gcode, 0, 0, 40, 20, 3);
        }
    }
}
