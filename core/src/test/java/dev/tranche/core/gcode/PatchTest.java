package dev.tranche.core.gcode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PatchTest {
    private static List<Patch.Insertion> before(SlicedFile file, String state, List<Integer> layers) {
        List<Patch.Insertion> insertions = new ArrayList<>();
        for (int layer : layers) {
            insertions.add(new Patch.Insertion(
                    file.layers().get(layer).door().orElseThrow(),
                    new BlockStamp("plan-1", state, BlockStamp.What.SWAP, insertions.size() + 1),
                    List.of("M600", "M117 Load B")));
        }
        return insertions;
    }

    @Property(tries = 100)
    void taking_out_what_was_put_in_gives_the_file_byte_for_byte(
            @ForAll @IntRange(min = 2, max = 30) int layers,
            @ForAll boolean crlf,
            @ForAll @Size(min = 1, max = 5) List<@IntRange(min = 1, max = 29) Integer> swaps)
            throws IOException {
        SmallGcode gcode = crlf ? new SmallGcode().crlf() : new SmallGcode();
        byte[] original = gcode.grid(0.2, 0.2, layers).bytes();
        List<Integer> at =
                swaps.stream().filter(s -> s < layers).distinct().sorted().toList();
        SlicedFile file = SurveyTest.survey(original);
        byte[] written = Patch.writing(file, before(file, "a", at)).applyTo(original);
        SlicedFile again = SurveyTest.survey(written);
        assertThat(again.blocks()).hasSameSizeAs(at);
        assertThat(again.layers()).hasSameSizeAs(file.layers());
        assertThat(again.stops()).isEmpty();
        assertThat(Patch.removing(again).applyTo(written)).isEqualTo(original);
    }

    @Test
    void writing_again_replaces() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 6).bytes();
        SlicedFile file = SurveyTest.survey(original);
        byte[] once = Patch.writing(file, before(file, "a", List.of(2, 4))).applyTo(original);
        SlicedFile surveyed = SurveyTest.survey(once);
        byte[] twice =
                Patch.writing(surveyed, before(surveyed, "a", List.of(2, 4))).applyTo(once);
        assertThat(twice).isEqualTo(once);
        byte[] moved =
                Patch.writing(surveyed, before(surveyed, "b", List.of(3))).applyTo(once);
        assertThat(SurveyTest.survey(moved).blocks())
                .extracting(b -> b.stamp().state())
                .containsExactly("b");
        assertThat(moved)
                .isEqualTo(Patch.writing(file, before(file, "b", List.of(3))).applyTo(original));
    }

    @Test
    void a_file_damaged_inside_a_block_is_refused() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 3).bytes();
        SlicedFile file = SurveyTest.survey(original);
        String written =
                new String(Patch.writing(file, before(file, "a", List.of(2))).applyTo(original));
        byte[] damaged = written.replace("; tranche end", "; gone").getBytes();
        assertThatThrownBy(() -> SurveyTest.survey(damaged))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("swap 1");
    }

    @Test
    void line_breaks_cannot_be_smuggled_into_a_block() throws IOException {
        SlicedFile file = SurveyTest.survey(new SmallGcode().grid(0.2, 0.2, 3));
        SlicedLayer.Door door = file.layers().get(1).door().orElseThrow();
        assertThatThrownBy(() -> new Patch.Insertion(
                        door, new BlockStamp("p", "s", BlockStamp.What.HALT, 1), List.of("M117 x\nM104 S300")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new BlockStamp("p\nM112", "s", BlockStamp.What.LOAD, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

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

    private static String twoSwaps() throws IOException {
        byte[] original = new SmallGcode().grid(0.2, 0.2, 15).bytes();
        SlicedFile file = SurveyTest.survey(original);
        List<Patch.Insertion> swaps = List.of(insertion(file, 4, 1), insertion(file, 9, 2));
        return new String(Patch.writing(file, swaps).applyTo(original), StandardCharsets.ISO_8859_1);
    }

    private static Patch.Insertion insertion(SlicedFile file, int run, int number) {
        return new Patch.Insertion(
                file.layers().get(run).door().orElseThrow(),
                new BlockStamp("plan", "state", BlockStamp.What.SWAP, number),
                List.of("M0"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"; tranche end swap=1\n", "; tranche begin plan=plan state=state swap=2\n"})
    void a_file_that_has_lost_a_mark_is_refused_with_the_line_and_not_taken_apart(String lost) throws IOException {
        String written = twoSwaps();
        assertThat(written).contains(lost);
        byte[] damaged = written.replace(lost, "").getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> SurveyTest.survey(damaged))
                .isInstanceOf(Refusal.class)
                .hasMessageMatching("Line \\d+ of the G-code is “; tranche (begin|end).*undamaged copy of the file\\.");
    }

    @Test
    void a_space_behind_a_mark_hides_nothing() throws IOException {
        String written = twoSwaps();
        byte[] spaced = written.replaceAll("(?m)(; tranche .*)$", "$1 \t").getBytes(StandardCharsets.ISO_8859_1);
        SlicedFile file = SurveyTest.survey(spaced);
        assertThat(file.blocks()).hasSize(2);
        assertThat(Patch.removing(file).applyTo(spaced))
                .isEqualTo(new SmallGcode().grid(0.2, 0.2, 15).bytes());
    }
}
