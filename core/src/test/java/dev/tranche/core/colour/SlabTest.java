package dev.tranche.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** Stacks of thin plastics, by P. Kubelka (J. Opt. Soc. Am. 44, 1954), against figures computed independently. */
class SlabTest {
    private static final Film POND = Film.of(Srgb.parse("#2F6C8C"), 0.8);
    private static final Film CHALK = Film.of(Srgb.parse("#F4F1E8"), 0.5);
    private static final LinearRgb WHITE = new LinearRgb(1, 1, 1);

    @Test
    void pond_on_chalk_is_the_light_blue_computed_elsewhere() {
        Srgb seen = Srgb.of(POND.slab(0.2).on(CHALK.slab(1.0)).over(WHITE));
        assertThat(seen.red()).isCloseTo(0x2F, within(1));
        assertThat(seen.green()).isCloseTo(0x93, within(1));
        assertThat(seen.blue()).isCloseTo(0xBB, within(1));
    }

    @Test
    void pond_held_to_light_lets_through_what_was_computed_elsewhere() {
        isClose(POND.slab(0.2).through(), new LinearRgb(0.009, 0.412, 0.596), 0.001);
        isClose(POND.slab(0.4).through(), new LinearRgb(0.000, 0.172, 0.365), 0.001);
    }

    /** Common practice: two thin layers of a colour are darker than one, and another colour beneath gives another hue. */
    @Test
    void two_layers_are_darker_than_one_and_another_beneath_gives_another_hue() {
        Film plum = Film.of(Srgb.parse("#6B3A5B"), 0.8);
        LinearRgb one = POND.slab(0.2).through();
        LinearRgb two = POND.slab(0.2).on(POND.slab(0.2)).through();
        LinearRgb mixed = POND.slab(0.2).on(plum.slab(0.2)).through();
        assertThat(two.luminance()).isLessThan(one.luminance());
        assertThat(mixed.green() / mixed.blue()).isLessThan(0.9 * two.green() / two.blue());
    }

    @Property(tries = 300)
    void a_stack_agrees_with_sending_light_to_and_fro_until_none_is_left(
            @ForAll @IntRange(min = 0, max = 255) int red,
            @ForAll @IntRange(min = 0, max = 255) int green,
            @ForAll @DoubleRange(min = 0.02, max = 1.2) double first,
            @ForAll @DoubleRange(min = 0.02, max = 1.2) double second,
            @ForAll @DoubleRange(min = 0, max = 1) double ground) {
        List<Slab> plies = List.of(
                Film.of(new Srgb(red, 90, 200), 0.6).slab(first),
                Film.of(new Srgb(40, green, 120), 1.1).slab(second),
                POND.slab(0.1));
        Slab stack = plies.get(0).on(plies.get(1)).on(plies.get(2));
        double[] there = bounce(plies, ground);
        assertThat(stack.over(new LinearRgb(ground, ground, ground)).green()).isCloseTo(there[0], within(1e-9));
    }

    @Property(tries = 200)
    void as_much_comes_through_from_either_side(
            @ForAll @IntRange(min = 0, max = 255) int red, @ForAll @DoubleRange(min = 0.02, max = 2) double thickness) {
        Slab film = Film.of(new Srgb(red, 90, 200), 0.6).slab(thickness);
        Slab down = film.on(POND.slab(0.3));
        Slab up = POND.slab(0.3).on(film);
        isClose(down.through(), up.through(), 1e-12);
        isClose(down.beneath(), up.above(), 1e-12);
    }

    @Property(tries = 200)
    void slabs_of_one_plastic_add_up(
            @ForAll @DoubleRange(min = 0.02, max = 1) double first,
            @ForAll @DoubleRange(min = 0.02, max = 1) double second) {
        Slab two = POND.slab(first).on(POND.slab(second));
        Slab one = POND.slab(first + second);
        isClose(two.through(), one.through(), 1e-9);
        isClose(two.above(), one.above(), 1e-9);
        isClose(two.over(WHITE), POND.over(WHITE, first + second), 1e-9);
    }

    @Test
    void it_hides_when_it_is_thick_and_not_when_it_is_thin() {
        assertThat(POND.slab(0.2).hides(0.5)).isFalse();
        assertThat(POND.slab(4).hides(0.5)).isTrue();
        assertThat(Slab.NOTHING.hides(0.5)).isFalse();
    }

    /** Light through the green channel of plies on a ground, followed up and down between them; what comes back. */
    private static double[] bounce(List<Slab> plies, double ground) {
        int n = plies.size();
        double[] down = new double[n + 1];
        double[] up = new double[n + 1];
        down[0] = 1;
        for (int i = 0; i < 20_000; i++) {
            double[] d = new double[n + 1];
            double[] u = new double[n + 1];
            d[0] = 1;
            for (int k = 0; k < n; k++) {
                double r = plies.get(k).above().green();
                double t = plies.get(k).through().green();
                u[k] = r * down[k] + t * up[k + 1];
                d[k + 1] = t * down[k] + r * up[k + 1];
            }
            u[n] = ground * down[n];
            down = d;
            up = u;
        }
        return up;
    }

    private static void isClose(LinearRgb is, LinearRgb wanted, double by) {
        assertThat(is.red()).isCloseTo(wanted.red(), within(by));
        assertThat(is.green()).isCloseTo(wanted.green(), within(by));
        assertThat(is.blue()).isCloseTo(wanted.blue(), within(by));
    }
}
