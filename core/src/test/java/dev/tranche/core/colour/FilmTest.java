package dev.tranche.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** The checks that Kubelka and Munk's theory itself offers (J. Opt. Soc. Am. 38, 1948). */
class FilmTest {
    private static final LinearRgb BLACK = new LinearRgb(0, 0, 0);
    private static final LinearRgb WHITE = new LinearRgb(1, 1, 1);

    @Property(tries = 200)
    void very_thick_it_has_its_own_colour_on_anything(
            @ForAll @IntRange(min = 40, max = 240) int red,
            @ForAll @IntRange(min = 40, max = 240) int green,
            @ForAll @DoubleRange(min = 0, max = 1) double under) {
        Film film = Film.of(new Srgb(red, green, 120), 0.6);
        LinearRgb seen = film.over(new LinearRgb(under, under, under), 60);
        assertThat(seen.red()).isCloseTo(film.thick().red(), within(1e-9));
        assertThat(seen.green()).isCloseTo(film.thick().green(), within(1e-9));
    }

    @Property(tries = 200)
    void two_layers_are_one_of_twice_the_thickness(
            @ForAll @DoubleRange(min = 0.02, max = 1) double thickness,
            @ForAll @DoubleRange(min = 0, max = 1) double under) {
        Film film = Film.of(Srgb.parse("#3E7D3A"), 0.7);
        LinearRgb bed = new LinearRgb(under, under, under);
        LinearRgb twice = film.over(film.over(bed, thickness), thickness);
        assertThat(twice.blue()).isCloseTo(film.over(bed, 2 * thickness).blue(), within(1e-9));
        assertThat(twice.red()).isCloseTo(film.over(bed, 2 * thickness).red(), within(1e-9));
    }

    @Test
    void at_its_cover_depth_it_hides_as_the_standards_say() {
        for (String hex : new String[] {"#F4F1E8", "#1B1B1D", "#3E7D3A", "#D9B85C"}) {
            Film film = Film.of(Srgb.parse(hex), 0.6);
            assertThat(film.contrast(0.6)).as(hex).isCloseTo(0.98, within(1e-6));
            assertThat(film.contrast(0.3)).as(hex).isLessThan(0.98);
        }
    }

    @Test
    void without_thickness_one_sees_what_lies_beneath() {
        assertThat(Film.of(Srgb.parse("#D9B85C"), 1).over(WHITE, 0)).isEqualTo(WHITE);
    }

    /** One layer of white over black is grey, and two are needed: common practice. */
    @Test
    void one_layer_of_white_over_black_is_grey() {
        Film chalk = Film.of(Srgb.parse("#F4F1E8"), 0.5);
        Film soot = Film.of(Srgb.parse("#1B1B1D"), 0.5);
        assertThat(chalk.layersToHide(soot.thick(), 0.2, 2)).isEqualTo(2);
        assertThat(chalk.over(BLACK, 0.2).luminance())
                .isLessThan(0.95 * chalk.thick().luminance());
        assertThat(soot.layersToHide(soot.thick(), 0.2, 2)).isEqualTo(1);
    }
}
