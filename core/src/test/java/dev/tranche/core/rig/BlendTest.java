package dev.tranche.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import org.junit.jupiter.api.Test;

class BlendTest {
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
}
