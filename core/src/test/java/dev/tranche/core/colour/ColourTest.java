package dev.tranche.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Refusal;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ColourTest {
    /** The 34 pairs of Sharma, Wu and Dalal, Color Research & Application 30 (2005), table 1. */
    @ParameterizedTest
    @CsvFileSource(resources = "/ciede2000.csv")
    void colour_difference_agrees_with_the_published_pairs(
            double l1, double a1, double b1, double l2, double a2, double b2, double difference) {
        Lab one = new Lab(l1, a1, b1);
        Lab two = new Lab(l2, a2, b2);
        assertThat(one.differenceTo(two)).isCloseTo(difference, within(0.00005));
        assertThat(two.differenceTo(one)).isCloseTo(difference, within(0.00005));
    }

    @Test
    void white_grey_and_the_primaries_have_their_known_lab_values() {
        // sRGB primaries in L*a*b* (D65, 2°) as colour handbooks list them; from memory, to 0.1.
        assertLab("#FFFFFF", 100, 0, 0);
        assertLab("#000000", 0, 0, 0);
        assertLab("#808080", 53.6, 0, 0);
        assertLab("#FF0000", 53.2, 80.1, 67.2);
        assertLab("#00FF00", 87.7, -86.2, 83.2);
        assertLab("#0000FF", 32.3, 79.2, -107.9);
    }

    private static void assertLab(String hex, double l, double a, double b) {
        Lab lab = Srgb.parse(hex).lab();
        assertThat(lab.lightness()).isCloseTo(l, within(0.06));
        assertThat(lab.a()).isCloseTo(a, within(0.06));
        assertThat(lab.b()).isCloseTo(b, within(0.06));
    }

    /** Computed with culori 4.0.2, a general-purpose colour library from the npm registry (its lab65). */
    @ParameterizedTest
    @CsvSource({
        "#F4F1E8, 95.148,  -0.548,   4.693, #6E1F2B, 66.3196",
        "#6E1F2B, 25.168,  35.633,  12.225, #1B1B1D, 25.3294",
        "#1B1B1D,  9.842,   0.522,  -1.383, #8A8D8F, 39.5941",
        "#8A8D8F, 58.449,  -0.698,  -1.447, #3E7D3A, 27.1054",
        "#3E7D3A, 46.970, -34.722,  30.171, #2F6C8C, 37.7459",
        "#2F6C8C, 43.096,  -9.102, -23.394, #A4583A, 40.5027",
        "#A4583A, 45.878,  28.499,  30.998, #D9B85C, 35.0389"
    })
    void from_hex_to_difference_agrees_with_an_independent_library(
            String hex, double l, double a, double b, String other, double difference) {
        Lab lab = Srgb.parse(hex).lab();
        // The two round the matrix and the white point of the standards differently.
        assertThat(lab.lightness()).isCloseTo(l, within(0.02));
        assertThat(lab.a()).isCloseTo(a, within(0.02));
        assertThat(lab.b()).isCloseTo(b, within(0.02));
        assertThat(lab.differenceTo(Srgb.parse(other).lab())).isCloseTo(difference, within(0.02));
    }

    @Property
    void a_colour_survives_linear_light(
            @ForAll @IntRange(max = 255) int r,
            @ForAll @IntRange(max = 255) int g,
            @ForAll @IntRange(max = 255) int b) {
        Srgb colour = new Srgb(r, g, b);
        assertThat(Srgb.of(colour.linear())).isEqualTo(colour);
        assertThat(Srgb.parse(colour.hex())).isEqualTo(colour);
    }

    @Property
    void a_mix_lies_between_its_parts_and_nearer_the_darker(
            @ForAll @DoubleRange(min = 0.02, max = 0.95) double first,
            @ForAll @DoubleRange(min = 0.02, max = 0.95) double second,
            @ForAll @DoubleRange(min = 0, max = 1) double share) {
        double mixed = Melt.mix(grey(first), grey(second), share).red();
        assertThat(mixed).isBetween(Math.min(first, second) - 1e-9, Math.max(first, second) + 1e-9);
        assertThat(mixed).isLessThanOrEqualTo(share * first + (1 - share) * second + 1e-9);
    }

    private static LinearRgb grey(double reflectance) {
        return new LinearRgb(reflectance, reflectance, reflectance);
    }

    @ParameterizedTest
    @ValueSource(strings = {"reddish", "#12345", "#GGGGGG", "#1234567", "javascript:"})
    void what_is_no_colour_is_refused(String text) {
        assertThatThrownBy(() -> Srgb.parse(text)).isInstanceOf(Refusal.class).hasMessageContaining("#RRGGBB");
    }

    @Test
    void a_missing_colour_is_asked_for() {
        assertThatThrownBy(() -> Srgb.parse("")).isInstanceOf(Refusal.class).hasMessageContaining("needs a colour");
    }

    /** W3C, CSS Color Module Level 4, section 6.1: the values of these names. */
    @ParameterizedTest
    @CsvSource({
        "red, #FF0000",
        "Teal, #008080",
        "dark green, #006400",
        "RebeccaPurple, #663399",
        "light-goldenrod yellow, #FAFAD2",
        "slategrey, #708090",
        "#1ac, #11AACC"
    })
    void a_colour_may_be_called_by_its_name(String typed, String hex) {
        assertThat(Srgb.parse(typed).hex()).isEqualTo(hex);
    }

    @Test
    void a_colour_is_called_by_the_nearest_name_or_by_none() {
        assertThat(Srgb.parse("#D0208A").name()).contains("Mediumvioletred");
        assertThat(Srgb.parse("#FE0101").name()).contains("Red");
        assertThat(Srgb.parse("#3E7D3A").name()).isEmpty();
    }
}
