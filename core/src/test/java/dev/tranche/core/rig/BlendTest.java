package dev.tranche.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class BlendTest {
    private static final Rack RACK = Beginning.BLENDING.rig("Blender").rack();
    private static final LayerGrid GRID = new LayerGrid(h(0.2), h(0.2), h(10));
    private static final Abilities STEPS = Abilities.of("M163 SP", "M164 S");

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    @Test
    void weights_must_sum_to_one_within_a_thousandth() {
        assertThat(new Blend(List.of(0.333, 0.333, 0.333)).weights()).hasSize(3);
        assertThatThrownBy(() -> new Blend(List.of(0.7, 0.2)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("sum to 0.9 and must sum to 1; change one of them by 0.1");
        assertThatThrownBy(() -> new Blend(List.of(1.5, -0.5)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("0 to 1");
        assertThatThrownBy(() -> new Blend(List.of(1.0))).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Blend(List.of(Double.NaN, 1.0))).isInstanceOf(Refusal.class);
    }

    @Test
    void a_blend_is_defined_by_a_weight_for_each_input_and_a_place_to_keep_it() {
        // M163 and M164 as open firmware has them (common practice).
        assertThat(new Blend(List.of(0.7, 0.3)).definition(3))
                .containsExactly("M163 S0 P0.7", "M163 S1 P0.3", "M164 S3");
    }

    @Test
    void all_of_one_input_looks_like_it_and_a_mix_lies_between() {
        List<Srgb> inputs = List.of(Srgb.parse("#3E7D3A"), Srgb.parse("#D9B85C"));
        assertThat(Blend.only(1, 2)
                        .colour(inputs)
                        .lab()
                        .differenceTo(inputs.get(1).lab()))
                .isLessThan(0.5);
        double green = inputs.get(0).lab().lightness();
        double straw = inputs.get(1).lab().lightness();
        assertThat(new Blend(List.of(0.5, 0.5)).colour(inputs).lab().lightness())
                .isBetween(green, straw);
    }

    @Test
    void equal_parts_of_white_and_black_are_far_darker_than_half_way() {
        // Kubelka and Munk (1931): K/S adds up, so a little black takes much white.
        Srgb grey = new Blend(List.of(0.5, 0.5)).colour(List.of(Srgb.parse("#FFFFFF"), Srgb.parse("#000000")));
        // By hand: K/S of 0.95 is 0.001316, of 0.02 is 24.01; half of each is 12.0057, R = 0.03851.
        assertThat(grey.linear().luminance()).isCloseTo(0.0385, within(0.002));
    }

    @Test
    void a_gradient_is_one_line_where_the_firmware_can() {
        Gradient gradient = new Gradient(h(2), h(8), 0, 1);
        assertThat(gradient.commands(RACK, GRID, Abilities.of("M166 AZIJS"), 3))
                .containsExactly(new Gradient.LayerLines(1, List.of("M166 A2.00 Z8.00 I0 J1 S1")));
    }

    @Test
    void a_gradient_is_steps_at_layers_where_it_cannot() {
        Gradient gradient = new Gradient(h(2), h(8), 0, 1);
        List<Gradient.LayerLines> steps = gradient.commands(RACK, GRID, STEPS, 3);
        // Below 2 mm all of input 1, from layer 1; layer 11 is the first above; layer 40 ends at 8 mm.
        assertThat(steps.get(0)).isEqualTo(new Gradient.LayerLines(1, List.of("M163 S0 P1", "M163 S1 P0", "M164 S3")));
        assertThat(steps.get(1).layer()).isEqualTo(11);
        assertThat(steps).hasSize(1 + 30 + 1);
        assertThat(steps.get(steps.size() - 1))
                .isEqualTo(new Gradient.LayerLines(41, List.of("M163 S0 P0", "M163 S1 P1", "M164 S3")));
        // Half way up, at 5 mm, between layers 25 and 26.
        assertThat(gradient.at(h(5), RACK).weights()).containsExactly(0.5, 0.5);
    }

    @Test
    void a_gradient_that_cannot_be_is_refused() {
        assertThatThrownBy(() -> new Gradient(h(8), h(2), 0, 1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not rise");
        assertThatThrownBy(() -> new Gradient(h(2), h(8), 1, 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Gradient(h(2), h(12), 0, 1).commands(RACK, GRID, STEPS, 3))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("the print at 10.00 mm");
        assertThatThrownBy(() -> new Gradient(h(2), h(8), 0, 1).commands(RACK, GRID, Abilities.of("M166 AZ"), 3))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cannot fade");
        Rack plain = Beginning.FEEDER.rig("Feeder").rack();
        assertThatThrownBy(() -> new Gradient(h(2), h(8), 0, 1).commands(plain, GRID, STEPS, 3))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no blend");
    }

    @Property(tries = 300)
    void whatever_the_height_the_weights_of_a_gradient_sum_to_one(@ForAll @DoubleRange(min = 0, max = 20) double mm) {
        Blend blend = new Gradient(h(2), h(8), 2, 3).at(h(mm), RACK);
        assertThat(blend.weights().stream().mapToDouble(Double::doubleValue).sum())
                .isCloseTo(1, within(1e-9));
        assertThat(blend.weights().get(0)).isBetween(0.33 - 1e-9, 0.67 + 1e-9);
    }
}
