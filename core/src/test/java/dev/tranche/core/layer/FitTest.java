package dev.tranche.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class FitTest {
    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    private static List<Fit> fits(double model, double... borders) {
        List<Height> heights = Arrays.stream(borders).mapToObj(FitTest::h).toList();
        return Fit.candidates(heights, h(model), 0.4, Fit.FULL_STEP, 100);
    }

    @Test
    void heights_are_full_steps_or_twentieths_between_a_quarter_and_four_fifths_of_the_nozzle() {
        // 0.04 mm a full step; from memory. 0.4 mm nozzle: 0.10 to 0.32 mm.
        assertThat(fits(6, 3))
                .extracting(f -> f.layerHeight().micrometres())
                .containsOnly(100, 120, 150, 160, 200, 240, 250, 280, 300, 320);
        assertThat(fits(6, 3))
                .allMatch(f -> !f.layerHeight().isAbove(f.firstLayer())
                        && f.firstLayer().micrometres() <= 320);
        // 10 layer heights, each with the first layers from it upwards.
        assertThat(fits(6, 3)).hasSize(10 * 11 / 2);
    }

    @Test
    void a_quarter_of_a_millimetre_is_offered_where_it_is_exact() {
        assertThat(fits(8, 3.5, 5, 6.5))
                .filteredOn(f -> f.worst() == 0)
                .anyMatch(f -> f.firstLayer().equals(h(0.25)) && f.layerHeight().equals(h(0.25)));
    }

    @Test
    void the_layers_of_a_plan_are_a_fit_like_any_other() {
        Fit now = Fit.of(new LayerGrid(h(0.3), h(0.17), h(6)), List.of(h(3), h(7)));
        assertThat(now.layers()).isEqualTo(35);
        assertThat(now.snaps()).hasSize(1);
        // 0.3 + 16 · 0.17 = 3.02
        assertThat(now.worst()).isEqualTo(20);
    }

    @Test
    void a_border_that_can_fall_on_the_grid_does_and_with_the_fewest_layers() {
        // Common practice: h1 0.2 and h 0.12 end a base of 2.0 mm at 2.00; so do thicker ones, with fewer layers.
        Fit best = fits(6, 2.0).get(0);
        assertThat(best.worst()).isZero();
        assertThat(fits(6, 2.0)).filteredOn(f -> f.worst() == 0).allMatch(f -> f.layers() >= best.layers());
        assertThat(fits(6, 2.0))
                .anyMatch(f -> f.worst() == 0
                        && f.firstLayer().equals(h(0.2))
                        && f.layerHeight().equals(h(0.12)));
    }

    @Test
    void the_best_fit_of_several_borders_is_no_worse_than_any_other() {
        List<Fit> fits = fits(9.1, 1.64, 3.44, 4.95, 6.56);
        assertThat(fits).isSortedAccordingTo(Comparator.comparingInt(Fit::worst).thenComparingInt(Fit::layers));
        assertThat(fits.get(0).snaps()).hasSize(4);
    }

    @Test
    void a_border_above_the_print_does_not_count() {
        assertThat(fits(2, 1, 50).get(0).snaps()).hasSize(1);
        assertThat(fits(2).get(0).worst()).isZero();
        assertThatThrownBy(() -> Fit.candidates(List.of(), h(2), 0.4, Height.ZERO, 5))
                .isInstanceOf(Refusal.class);
    }

    @Property(tries = 200)
    void no_border_prints_further_off_than_half_a_layer(@ForAll @IntRange(min = 330, max = 9000) int border) {
        for (Fit fit : Fit.candidates(List.of(Height.ofMicrometres(border)), h(10), 0.4, Fit.FULL_STEP, 100)) {
            assertThat(2 * fit.worst()).isLessThanOrEqualTo(fit.layerHeight().micrometres());
        }
    }

    /** The other way round: a base of 4.95 with layers of 0.2 wants to be 5.00 (common practice). */
    @Test
    void the_dimensions_to_change_are_those_that_end_between_layers() {
        LayerGrid grid = new LayerGrid(h(0.2), h(0.2), h(6));
        assertThat(Fit.dimensions(grid, List.of(h(2), h(4.95))))
                .containsExactly(new Fit.Dimension(h(2), h(4.95), h(3)));
        assertThat(Fit.dimensions(grid, List.of(h(2), h(4.95))).get(0).change()).isEqualTo(50);
        assertThat(Fit.dimensions(grid, List.of(h(2), h(4)))).isEmpty();
    }

    @Test
    void a_scale_of_z_brings_a_border_onto_a_layer() {
        LayerGrid grid = new LayerGrid(h(0.2), h(0.2), h(6));
        double scale = Fit.scale(grid, List.of(h(4.95)));
        assertThat(grid.snap(h(4.95 * scale)).error()).isZero();
        assertThat(Math.abs(scale - 1)).isLessThan(0.011);
        assertThat(Fit.scale(grid, List.of(h(2), h(4)))).isEqualTo(1);
        // 4.9 / 4.99 puts it on a layer, too; the nearer to 1 is taken.
        assertThat(Fit.scale(new LayerGrid(h(0.1), h(0.1), h(6)), List.of(h(4.99))))
                .isEqualTo(5 / 4.99);
    }

    /** The scales tried are all at which one of the borders falls on a layer; none of them is better. */
    @Property(tries = 100)
    void no_scale_that_puts_a_border_on_a_layer_is_better(
            @ForAll @IntRange(min = 500, max = 5000) int low, @ForAll @IntRange(min = 500, max = 5000) int high) {
        LayerGrid grid = new LayerGrid(h(0.3), h(0.2), h(6));
        List<Height> borders = List.of(Height.ofMicrometres(low), Height.ofMicrometres(high));
        double taken = Fit.scale(grid, borders);
        assertThat(taken).isBetween(0.97, 1.03);
        for (Height border : borders) {
            for (int top = 300; top <= 5900; top += 200) {
                double other = top / (double) border.micrometres();
                if (other >= 0.97 && other <= 1.03) {
                    assertThat(off(borders, taken)).isLessThanOrEqualTo(off(borders, other) + 1);
                }
            }
        }
    }

    /** How far the worst of borders lies from layers that end at 0.3, 0.5, 0.7 mm and so on, µm. */
    private static double off(List<Height> borders, double scale) {
        return borders.stream()
                .mapToDouble(b -> Math.abs(Math.IEEEremainder(b.micrometres() * scale - 300, 200)))
                .max()
                .orElseThrow();
    }
}
