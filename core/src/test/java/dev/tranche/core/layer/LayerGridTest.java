package dev.tranche.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LayerGridTest {
    private static LayerGrid grid(double first, double layer, double model) {
        return new LayerGrid(Height.ofMillimetres(first), Height.ofMillimetres(layer), Height.ofMillimetres(model));
    }

    private static LayerGrid inMicrometres(int first, int layer, int model) {
        return new LayerGrid(Height.ofMicrometres(first), Height.ofMicrometres(layer), Height.ofMicrometres(model));
    }

    /** 29 instead of 30 is the "missing layer" people ask about: common practice. */
    @ParameterizedTest
    @CsvSource({
        "0.2,0.2,6.0,30",
        "0.3,0.2,6.0,29",
        "0.2,0.2,0.1,1",
        "0.2,0.2,0.2,1",
        "0.2,0.2,0.3,1",
        "0.2,0.2,0.301,2",
        "0.1,0.1,0.3,3"
    })
    void a_model_has_as_many_layers_as_have_their_middle_inside(double first, double layer, double model, int count) {
        assertThat(grid(first, layer, model).count()).isEqualTo(count);
    }

    @Test
    void lettering_on_a_base_of_three_millimetres_starts_on_layer_sixteen() {
        // Common practice: base is layers 1–15; programs that count from 0 show 15.
        Snap snap = grid(0.2, 0.2, 5).snap(Height.ofMillimetres(3));
        assertThat(snap.layer()).isEqualTo(16);
        assertThat(snap.error()).isZero();
    }

    @Test
    void on_a_grid_of_0_12_over_0_2_a_border_at_two_millimetres_ends_a_layer() {
        // Common practice: last base layer ends at 2.00, the next colour's first at 2.12.
        LayerGrid grid = grid(0.2, 0.12, 5);
        Snap snap = grid.snap(Height.ofMillimetres(2));
        assertThat(snap.actual()).hasToString("2.00");
        assertThat(grid.top(snap.layer())).hasToString("2.12");
    }

    @Test
    void on_the_same_grid_a_border_at_two_and_a_half_snaps_down_by_two_hundredths() {
        LayerGrid grid = grid(0.2, 0.12, 5);
        Snap snap = grid.snap(Height.ofMillimetres(2.5));
        assertThat(grid.top(snap.layer())).hasToString("2.60");
        assertThat(snap.error()).isEqualTo(-20);
    }

    @Test
    void half_of_three_millimetres_falls_on_layers_of_0_3_and_half_of_two_does_not() {
        assertThat(grid(0.3, 0.3, 3).snap(Height.ofMillimetres(1.5)).error()).isZero();
        assertThat(grid(0.3, 0.3, 2).snap(Height.ofMillimetres(1)).error()).isNotZero();
    }

    @Property
    void a_height_snaps_to_the_lowest_layer_whose_middle_is_above_it(
            @ForAll @IntRange(min = 50, max = 600) int first,
            @ForAll @IntRange(min = 50, max = 400) int layer,
            @ForAll @IntRange(min = 100, max = 60_000) int model,
            @ForAll @IntRange(min = 0, max = 60_000) int wished) {
        LayerGrid grid = inMicrometres(first, layer, model);
        int expected = 1;
        while (expected <= grid.count() && grid.middles()[expected - 1] <= 2 * wished) {
            expected++;
        }
        if (expected > grid.count()) {
            assertThatThrownBy(() -> grid.snap(Height.ofMicrometres(wished))).isInstanceOf(Refusal.class);
        } else {
            Snap snap = grid.snap(Height.ofMicrometres(wished));
            assertThat(snap.layer()).isEqualTo(expected);
            int half = Math.max(first, layer);
            assertThat(2 * Math.abs(snap.error())).isLessThanOrEqualTo(half);
        }
    }

    @Property
    void the_last_layer_is_the_last_whose_middle_is_inside_the_model(
            @ForAll @IntRange(min = 50, max = 600) int first,
            @ForAll @IntRange(min = 50, max = 400) int layer,
            @ForAll @IntRange(min = 100, max = 60_000) int model) {
        LayerGrid grid = inMicrometres(first, layer, model);
        int[] middles = grid.middles();
        int next = middles[middles.length - 1] + (middles.length == 1 ? first + layer : 2 * layer);
        assertThat(next).isGreaterThanOrEqualTo(2 * model);
        assertThat(middles.length == 1 || middles[middles.length - 1] < 2 * model)
                .isTrue();
    }

    /** Layer by layer, without a division. */
    @Property(tries = 60)
    void every_height_lies_in_one_layer_and_a_colour_begins_on_the_lowest_whose_middle_is_above_it(
            @ForAll @IntRange(min = 10, max = 400) int first,
            @ForAll @IntRange(min = 10, max = 400) int layer,
            @ForAll @IntRange(min = 1, max = 2500) int model) {
        LayerGrid grid = inMicrometres(first, layer, model);
        int top = 0;
        for (int n = 1; n <= grid.count(); n++) {
            int bottom = top;
            top += n == 1 ? first : layer;
            assertThat(grid.bottom(n).micrometres()).isEqualTo(bottom);
            assertThat(grid.top(n).micrometres()).isEqualTo(top);
            assertThat(grid.thickness(n).micrometres()).isEqualTo(top - bottom);
            assertThat(grid.middle(n).micrometres()).isEqualTo((bottom + top) / 2);
            int beyond = n == grid.count() ? top + 1000 : top;
            for (int at : new int[] {bottom, (bottom + top) / 2, beyond - 1}) {
                assertThat(grid.layerAt(Height.ofMicrometres(at))).isEqualTo(n);
            }
            for (int at : new int[] {bottom, (bottom + top - 1) / 2, (bottom + top + 1) / 2, top}) {
                Height height = Height.ofMicrometres(at);
                int starts = 2 * at < bottom + top ? n : n + 1;
                assertThat(grid.firstAbove(height)).isEqualTo(starts);
                assertThat(grid.goesAbove(height)).isEqualTo(starts <= grid.count());
            }
        }
        assertThat(grid.printedHeight().micrometres()).isEqualTo(top);
    }

    @Test
    void a_start_is_typed_in_millimetres_or_as_a_layer() {
        LayerGrid grid = grid(0.2, 0.2, 6);
        assertThat(grid.startFrom("3.2 mm")).hasToString("3.20");
        assertThat(grid.startFrom("layer 16")).hasToString("3.00");
        assertThat(grid.startFrom(" L16 ")).hasToString("3.00");
        assertThat(grid.startFrom("L1")).isEqualTo(Height.ZERO);
        assertThat(grid.startFrom("L30")).hasToString("5.80");
        assertThat(grid.endAt("L30")).hasToString("6.00");
        assertThatThrownBy(() -> grid.startFrom("L0")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> grid.startFrom("L31"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("1 to 30");
        assertThatThrownBy(() -> grid.startFrom("layer"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("not a height");
    }

    @Test
    void layers_that_cannot_be_printed_are_refused() {
        assertThatThrownBy(() -> grid(0, 0.2, 6))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("first-layer height");
        assertThat(grid(0.01, 5, 6).count()).isEqualTo(2);
        assertThatThrownBy(() -> grid(0.009, 0.2, 6)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> grid(0.2, 5.001, 6)).isInstanceOf(Refusal.class);
        assertThat(grid(0.01, 0.01, 200).count()).isEqualTo(20_000);
        assertThatThrownBy(() -> grid(0.01, 0.01, 200.01)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> grid(0.2, 9, 6)).isInstanceOf(Refusal.class).hasMessageContaining("layer height");
        assertThatThrownBy(() -> grid(0.2, 0.01, 5000))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("thicker");
    }

    @Test
    void tops_floors_and_undersides_are_found_lowest_first() {
        Body mesh = new Shapes().box(0, 0, 0, 20, 10, 3).box(2, 2, 3.4, 6, 6, 2).body();
        Stream<String> found = Surfaces.find(mesh, Height.ofMillimetres(0.2), 200).stream()
                .map(s -> s.height() + " " + s.kind().word() + " " + Math.round(s.area()));
        assertThat(found).containsExactly("3.00 floor 200", "3.40 underside 36", "5.40 top 36");
    }

    /** Within a quarter of a layer, 0.05 mm: at the height that holds most of them, with the area of both. */
    @Test
    void flats_that_all_but_lie_at_one_height_are_one() {
        Body near = new Shapes()
                .box(0, 0, 0, 10, 10, 3)
                .box(20, 0, 0, 10, 5, 3.05)
                .box(40, 0, 0, 1, 4, 9)
                .body();
        assertThat(Surfaces.find(near, Height.ofMillimetres(0.2), 1600))
                .extracting(s -> s.height() + " " + s.kind() + " " + s.area())
                .containsExactly("3.00 FLOOR 150.0", "9.00 TOP 4.0");
        Body apart =
                new Shapes().box(0, 0, 0, 10, 10, 3).box(20, 0, 0, 10, 5, 3.051).body();
        assertThat(Surfaces.find(apart, Height.ofMillimetres(0.2), 1600))
                .extracting(s -> s.height().micrometres())
                .containsExactly(3000, 3051);
        assertThat(Surfaces.find(apart, Height.ofMillimetres(0.2), 1600))
                .extracting(Surface::kind)
                .containsExactly(Surface.Kind.FLOOR, Surface.Kind.TOP);
    }

    @ParameterizedTest
    @CsvSource({"0.9,0,1", "0,0.9,1", "0.8,0.8,0", "1.1,0,0", "0,1.1,0"})
    void within_one_degree_of_level_is_flat(double alongX, double alongY, int flats) {
        double x = 30 * Math.tan(Math.toRadians(alongX));
        double y = 30 * Math.tan(Math.toRadians(alongY));
        Body tilted = new Shapes()
                .triangle(new double[] {0, 0, 5}, new double[] {30, 0, 5 + x}, new double[] {0, 30, 5 + y})
                .body();
        assertThat(Surfaces.find(tilted, Height.ofMillimetres(0.2), 900)).hasSize(flats);
    }

    /** 0.5 % of the largest section, if that is less than 4 mm². */
    @Test
    void on_a_small_model_small_flats_count() {
        Body pin = new Shapes().box(0, 0, 0, 10, 10, 3).box(20, 0, 0, 1, 0.5, 4).body();
        assertThat(Surfaces.find(pin, Height.ofMillimetres(0.2), 100)).hasSize(2);
        assertThat(Surfaces.find(pin, Height.ofMillimetres(0.2), 101)).hasSize(1);
    }

    @Test
    void slopes_and_specks_are_no_surfaces() {
        assertThat(Surfaces.find(new Shapes().cone(10, 20, 60).body(), Height.ofMillimetres(0.2), 314))
                .isEmpty();
        Body speck = new Shapes().box(0, 0, 0, 40, 40, 3).box(1, 1, 3, 1, 1, 1).body();
        assertThat(Surfaces.find(speck, Height.ofMillimetres(0.2), 1600)).hasSize(1);
    }
}
