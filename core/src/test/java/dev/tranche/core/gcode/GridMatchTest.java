package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The layers of sliced files beside those of plans. */
class GridMatchTest {
    private static LayerGrid grid(double first, double layer, double model) {
        return new LayerGrid(Height.ofMillimetres(first), Height.ofMillimetres(layer), Height.ofMillimetres(model));
    }

    @Test
    void a_file_sliced_on_the_plans_grid_matches_layer_for_layer() throws IOException {
        GridMatch match = GridMatch.of(SurveyTest.survey(new SmallGcode().grid(0.3, 0.2, 10)), grid(0.3, 0.2, 2.1));
        assertThat(match.layer(3).z()).hasToString("0.70");
        assertThat(match.raft()).isEqualTo(Height.ZERO);
        assertThat(match.markerOf(3)).contains("2");
    }

    @Test
    void walls_set_off_by_half_a_layer_are_told_for_what_they_are() throws IOException {
        SmallGcode gcode = new SmallGcode();
        for (int layer = 1; layer <= 10; layer++) {
            gcode.layers(0.2 * layer, 0.2 * layer + 0.1, 0.2 * layer);
        }
        SlicedFile file = SurveyTest.survey(gcode);
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.2, 0.2, 2)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("others between")
                .hasMessageContaining("half a layer");
    }

    @Test
    void a_priming_line_is_passed_over() throws IOException {
        GridMatch match =
                GridMatch.of(SurveyTest.survey(new SmallGcode().primed().grid(0.2, 0.2, 10)), grid(0.2, 0.2, 2));
        assertThat(match.before()).isEqualTo(1);
        assertThat(match.layer(1).z()).hasToString("0.20");
        assertThat(match.markerOf(1)).contains("0");
    }

    @Test
    void a_raft_lifts_every_layer() throws IOException {
        // Common practice: nozzle Z 1.693 at the first layer above the raft, h 0.25, means a raft of 1.443.
        double[] tops = new double[7];
        tops[0] = 0.4;
        tops[1] = 0.9;
        for (int i = 0; i < 5; i++) {
            tops[2 + i] = 1.693 + 0.25 * i;
        }
        GridMatch match = GridMatch.of(SurveyTest.survey(new SmallGcode().layers(tops)), grid(0.25, 0.25, 1.25));
        assertThat(match.raft()).hasToString("1.443");
        assertThat(match.before()).isEqualTo(2);
    }

    @Test
    void other_layers_are_refused_with_the_first_that_differs() throws IOException {
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.3, 0.2, 10));
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.2, 0.2, 2)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Layer 1 ends at 0.30 mm in the G-code and at 0.20 mm in the plan");
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.3, 0.2, 2.3)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("10 layers and the plan 11");
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.3, 0.2, 1.3)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("10 layers and the plan 6");
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.3, 0.25, 2.56)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Layer 2 ends at 0.50 mm");
    }

    @Test
    void a_shift_of_a_layer_is_no_raft() throws IOException {
        // 30 layers of 0.2 mm are not 29 on 0.3 mm, nor 29 above a raft of 0.1 mm.
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.2, 0.2, 30));
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.3, 0.2, 6)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("30 layers and the plan 29")
                .hasMessageContaining("layer 1 ends at 0.20 mm in the G-code and at 0.30 mm in the plan")
                .hasMessageContaining("set the plan's layers to the file's");
        assertThat(GridMatch.layersOf(file, Height.parse("6")))
                .hasValue(List.of(Height.parse("0.2"), Height.parse("0.2")));
    }

    @Test
    void many_more_layers_are_no_raft() throws IOException {
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.3, 0.15, 60));
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.2, 0.2, 9)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(
                        "60 layers and the plan 45: layer 1 ends at 0.30 mm in the G-code and at 0.20 mm in the plan");
    }

    @Test
    void layers_are_found_above_a_line_to_prime_on_and_a_raft() throws IOException {
        // A line at 0.3 mm, rafts that end at 0.4 and at 0.7, a first layer of 0.25 and fourteen of 0.2.
        SmallGcode lifted = new SmallGcode().primed().layers(0.4, 0.7).grid(0.95, 0.2, 15);
        SlicedFile file = SurveyTest.survey(lifted);
        List<Height> layers = GridMatch.layersOf(file, Height.parse("3")).orElseThrow();
        assertThat(layers).containsExactly(Height.parse("0.25"), Height.parse("0.2"));
        assertThat(GridMatch.of(file, new LayerGrid(layers.get(0), layers.get(1), Height.parse("3")))
                        .raft())
                .isEqualTo(Height.parse("0.7"));
        // Rafts may begin as high as the plan does.
        SmallGcode alike = new SmallGcode().layers(0.3, 0.6, 0.8).grid(1.1, 0.2, 15);
        assertThat(GridMatch.of(SurveyTest.survey(alike), grid(0.3, 0.2, 3.1)).raft())
                .isEqualTo(Height.parse("0.8"));
        SmallGcode low = new SmallGcode().primed().grid(0.2, 0.15, 20);
        assertThat(GridMatch.layersOf(SurveyTest.survey(low), Height.parse("3")))
                .hasValue(List.of(Height.parse("0.2"), Height.parse("0.15")));
    }

    /** A raft leaves some air, so that it comes off; common practice. */
    @ParameterizedTest
    @CsvSource({"0.3,0.25,0.15,7.3", "0.3,0.3,0.1,5.1", "0.12,0.12,0.25,2.04", "0.2,0.2,0.2,3", "0.25,0.25,0.15,2.5"})
    void layers_are_found_above_the_air_that_a_raft_leaves(double first, double each, double air, double model)
            throws IOException {
        int count = (int) Math.round((model - first) / each) + 1;
        SlicedFile file =
                SurveyTest.survey(new SmallGcode().layers(0.3, 0.55, 0.8).grid(0.8 + air + first, each, count));
        List<Height> layers =
                GridMatch.layersOf(file, Height.ofMillimetres(model)).orElseThrow();
        assertThat(layers).containsExactly(Height.ofMillimetres(first), Height.ofMillimetres(each));
        assertThat(GridMatch.of(file, grid(first, each, model)).raft()).isEqualTo(Height.ofMillimetres(0.8 + air));
    }

    @Test
    void a_layer_is_none_of_less_than_half_its_height_and_as_thick_as_the_others_where_it_may_be() throws IOException {
        SmallGcode thick = new SmallGcode().layers(0.3, 0.55, 0.8).grid(1.1, 0.3, 15);
        assertThat(GridMatch.layersOf(SurveyTest.survey(thick), Height.parse("4.37")))
                .hasValue(List.of(Height.parse("0.3"), Height.parse("0.3")));
        SmallGcode other = new SmallGcode().layers(0.3, 0.55, 0.8).grid(1.25, 0.2, 15);
        assertThat(GridMatch.layersOf(SurveyTest.survey(other), Height.parse("2.85")))
                .hasValue(List.of(Height.parse("0.2"), Height.parse("0.2")));
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void layers_are_found_in_a_file_that_comes_down_again(boolean primed) throws IOException {
        SmallGcode gcode = primed ? new SmallGcode().primed() : new SmallGcode();
        SlicedFile file =
                SurveyTest.survey(gcode.layers(0.25, 0.5, 0.75, 1, 0.75, 1).layers(1.25, 1.5, 1.25, 1.5));
        assertThat(file.order()).isEqualTo(SlicedFile.Order.SEVERAL_TIMES);
        assertThat(GridMatch.otherLayers(file, grid(0.2, 0.2, 1.5)))
                .hasValue(List.of(Height.parse("0.25"), Height.parse("0.25")));
        assertThat(GridMatch.otherLayers(file, grid(0.25, 0.25, 1.5))).isEmpty();
        assertThat(GridMatch.of(file, grid(0.25, 0.25, 1.5)).before()).isEqualTo(primed ? 1 : 0);
    }

    /** Supports may have layers of their own, as thick as they need; common practice. */
    @Test
    void supports_in_layers_of_their_own_lie_in_the_plans() throws IOException {
        SmallGcode gcode = new SmallGcode();
        int level = 0;
        for (double z : new double[] {0.2, 0.4, 0.5, 0.6, 0.75, 0.8, 1.0}) {
            gcode.line("; level " + level++).rise(z).outline(60, 60, 20, 20, 0.04);
        }
        GridMatch match = GridMatch.of(SurveyTest.survey(gcode), grid(0.2, 0.2, 1));
        assertThat(match.layers())
                .extracting(l -> l.z().toString())
                .containsExactly("0.20", "0.40", "0.60", "0.80", "1.00");
        assertThat(match.visits()).extracting(GridMatch.Visit::layer).containsExactly(1, 2, 3, 3, 4, 4, 5);
        assertThat(match.between()).isEqualTo(2);
        // A swap comes before all that lies in its layer, and the file counts its own layers.
        assertThat(match.layer(3).door().orElseThrow().state().z()).isCloseTo(0.4, within(1e-9));
        assertThat(match.markerOf(3)).contains("3");
        // Half as high is not that, but another grid, and what rises above the model is no support.
        SlicedFile halves = SurveyTest.survey(new SmallGcode().grid(0.1, 0.1, 10));
        assertThatThrownBy(() -> GridMatch.of(halves, grid(0.2, 0.2, 1)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("set the plan's layers to the file's");
        SlicedFile higher = SurveyTest.survey(gcode.rise(1.15).dab(60, 60));
        assertThatThrownBy(() -> GridMatch.of(higher, grid(0.2, 0.2, 1))).isInstanceOf(Refusal.class);
    }

    @Test
    void layers_of_several_heights_are_called_that() throws IOException {
        SlicedFile file = SurveyTest.survey(
                new SmallGcode().layers(0.3, 0.5, 0.7, 0.9, 1.1, 1.25, 1.4, 1.55, 1.7, 1.8, 1.9, 2.0, 2.1, 2.2, 2.3));
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.3, 0.2, 2.3)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("layer 6 ends at 1.25 mm in the G-code and at 1.30 mm in the plan")
                .hasMessageContaining("several heights")
                .message()
                .doesNotContain("set the plan's layers");
    }

    @Test
    void a_layer_more_at_the_top_says_so_and_nobody_is_told_to_slice_as_he_did() throws IOException {
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.2, 0.2, 31));
        assertThatThrownBy(() -> GridMatch.of(file, grid(0.2, 0.2, 6)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(
                        "31 layers and the plan 30: its layer 31 ends at 6.20 mm, and the model at 6.00 mm")
                .message()
                .doesNotContain("a first layer of");
    }

    @Test
    void what_comes_down_again_prints_its_layers_once_more() throws IOException {
        SmallGcode gcode = new SmallGcode().primed().centredAt(60, 60).layers(0.2, 0.4, 0.6);
        SlicedFile file = SurveyTest.survey(gcode.centredAt(140, 90).layers(0.2, 0.415, 0.6));
        GridMatch match = GridMatch.of(file, grid(0.2, 0.2, 0.6));
        assertThat(match.before()).isEqualTo(1);
        assertThat(match.beneath()).hasSize(1);
        assertThat(match.visits()).extracting(GridMatch.Visit::layer).containsExactly(1, 2, 3, 1, 2, 3);
        assertThat(match.layer(2).extruded()).isCloseTo(8 * 0.66, within(1e-6));
        assertThat(match.between()).isZero();
        assertThat(match.part().getMinX()).isCloseTo(50, within(1e-6));
        assertThat(match.part().getMaxY()).isCloseTo(100, within(1e-6));
        for (int index = 0; index < 7; index++) {
            assertThat(match.layerOf(index)).as("run " + index).isEqualTo(index == 0 ? 0 : (index - 1) % 3 + 1);
        }
        assertThat(match.layerOf(-1)).isZero();
        assertThat(match.layerOf(7)).isEqualTo(4);
        // Lines to prime on are none of the heights that a drawing of the file shows twice.
        assertThat(file.levels())
                .extracting(l -> l.z().toString())
                .containsExactly("0.20", "0.30", "0.40", "0.415", "0.60");
        assertThat(file.levels().get(4).extruded()).isCloseTo(8 * 0.66, within(1e-6));
    }

    @Test
    void the_place_of_a_part_of_one_layer_is_that_layers() throws IOException {
        GridMatch match = GridMatch.of(SurveyTest.survey(new SmallGcode().layers(0.2)), grid(0.2, 0.2, 0.2));
        assertThat(match.part().getWidth()).isCloseTo(20, within(1e-6));
        assertThat(match.file().levels()).isEqualTo(match.file().layers());
    }

    @Test
    void a_first_layer_is_no_thicker_than_three_of_the_others_above_something_else() throws IOException {
        // Above one run that ends at 0.3 mm: 0.6 mm more is a first layer, 0.7 mm is not.
        assertThat(GridMatch.layersOf(
                        SurveyTest.survey(new SmallGcode().layers(0.3, 0.4).grid(1.0, 0.2, 12)), Height.parse("2.8")))
                .hasValue(List.of(Height.parse("0.6"), Height.parse("0.2")));
        assertThat(GridMatch.layersOf(
                        SurveyTest.survey(new SmallGcode().layers(0.3, 0.4).grid(1.1, 0.2, 12)), Height.parse("2.9")))
                .isEmpty();
    }
}
