package dev.tranche.core.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Shelves at a post, of 50 layers: the post (X 0–10) through all, the upper shelf (10–20) on layers 31 to 35, the lower (20–30) on
 * 11 to 13, and on the bed beneath them a sill (10–16) of five layers. All are 20 mm deep.
 */
class OutlookTest {
    private static final Outlooks SHELVES = outlooks(
            10,
            new Shapes()
                    .box(0, 0, 0, 10, 20, 10)
                    .box(10, 0, 6, 10, 20, 1)
                    .box(20, 0, 2, 10, 20, 0.6)
                    .box(10, 0, 0, 6, 20, 1));

    private static final Outlook ABOVE = SHELVES.from(true, Progress.UNHEARD);
    private static final Outlook BENEATH = SHELVES.from(false, Progress.UNHEARD);

    private static Outlooks outlooks(double height, Shapes shapes) {
        Height layer = Height.ofMillimetres(0.2);
        LayerGrid grid = new LayerGrid(layer, layer, Height.ofMillimetres(height));
        return new Outlooks(CutModel.of(shapes.body(), grid, Progress.UNHEARD));
    }

    private static double area(Shaft shaft) {
        return shaft.area().getArea();
    }

    @Test
    void what_is_seen_from_above_is_what_nothing_higher_covers() {
        assertThat(ABOVE.layer(0)).isEqualTo(50);
        assertThat(area(ABOVE.shaft(0))).isEqualTo(200);
        assertThat(area(ABOVE.shaft(1))).isZero();
        assertThat(area(ABOVE.shaft(50 - 35))).isEqualTo(200);
        assertThat(area(ABOVE.shaft(50 - 13))).isEqualTo(200);
        assertThat(area(ABOVE.shaft(50 - 5)))
                .as("the sill lies under the shelf")
                .isZero();
        assertThat(ABOVE.shadow(14).getArea()).isEqualTo(200);
        assertThat(ABOVE.shadow(15).getArea()).isEqualTo(400);
        assertThat(ABOVE.shadow(49).getArea()).isEqualTo(600);
        assertThat(ABOVE.shadow(-1).isEmpty()).isTrue();
    }

    @Test
    void from_beneath_it_is_what_nothing_lower_covers() {
        assertThat(BENEATH.layer(0)).isEqualTo(1);
        assertThat(area(BENEATH.shaft(0))).isEqualTo(320);
        assertThat(area(BENEATH.shaft(10))).isEqualTo(200);
        assertThat(area(BENEATH.shaft(30))).as("but for the sill").isEqualTo(80);
    }

    @ParameterizedTest
    @CsvSource({"15, 4, 0", "15, 5, 200", "37, 2, 0", "37, 3, 200", "0, 49, 0", "15, 30, 200"})
    void seen_from_above_a_shelf_is_thin_where_it_is_of_so_many_layers_or_fewer(int depth, int layers, double square) {
        assertThat(area(ABOVE.thin(depth, layers))).isCloseTo(square, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"30, 4, 0", "30, 5, 80", "10, 2, 0", "10, 3, 200", "0, 4, 0", "0, 5, 120"})
    void seen_from_beneath_likewise(int depth, int layers, double square) {
        assertThat(area(BENEATH.thin(depth, layers))).isCloseTo(square, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"0, 37, 2, 600", "0, 37, 3, 400", "0, 37, 5, 200", "15, 37, 5, 0", "15, 37, 4, 200", "15, 15, 4, 200"})
    void over_several_depths_what_is_thick_is_the_rest(int from, int to, int layers, double square) {
        assertThat(area(ABOVE.thick(from, to, layers))).isCloseTo(square, within(1e-6));
    }

    @Test
    void what_was_asked_last_is_kept_and_something_else_is_not_taken_for_it() {
        assertThat(ABOVE.thick(0, 15, 5)).isSameAs(ABOVE.thick(0, 15, 5));
        assertThat(area(ABOVE.thick(0, 15, 4))).isEqualTo(400);
        assertThat(area(ABOVE.thick(0, 37, 4))).isEqualTo(400);
        assertThat(area(ABOVE.thick(0, 0, 4))).isEqualTo(200);
    }

    @Test
    void a_shaft_is_followed_through_plastic_and_air_down_to_the_bed() {
        Shaft shelf = ABOVE.shaft(15);
        assertThat(shelf.isSolid()).isTrue();
        assertThat(shelf.at(15)).containsExactly(shelf);
        assertThat(shelf.at(19)).as("the lowest of its five layers").containsExactly(shelf);
        List<Shaft> air = shelf.at(20);
        assertThat(air).singleElement().satisfies(a -> {
            assertThat(a.isSolid()).isFalse();
            assertThat(area(a)).isEqualTo(200);
        });
        assertThat(shelf.at(44)).containsExactlyElementsOf(air);
        for (int depth : new int[] {49, 45}) {
            List<Shaft> down = shelf.at(depth);
            assertThat(down).hasSize(2);
            assertThat(down.get(0).isSolid()).as("the sill").isTrue();
            assertThat(area(down.get(0))).isEqualTo(120);
            assertThat(down.get(1).isSolid()).isFalse();
            assertThat(area(down.get(1))).isEqualTo(80);
        }
        assertThat(ABOVE.shaft(15).at(49)).as("kept").isEqualTo(shelf.at(49));
    }

    @Test
    void what_it_costs_grows_with_the_corners_of_layers_that_are_not_as_the_one_below() {
        // Five points a rectangle, its first among them twice, and fifty for the layer.
        assertThat(outlooks(2, new Shapes().box(0, 0, 0, 20, 20, 2)).corners()).isEqualTo(55);
        assertThat(outlooks(4, new Shapes().box(0, 0, 0, 20, 20, 2).box(5, 5, 2, 5, 5, 2))
                        .corners())
                .isEqualTo(110);
    }

    @Test
    void both_sides_are_known_once_both_were_asked_for() {
        Outlooks block = outlooks(2, new Shapes().box(0, 0, 0, 20, 20, 2));
        assertThat(block.known()).isFalse();
        block.from(true, Progress.UNHEARD);
        assertThat(block.known()).isFalse();
        block.from(false, Progress.UNHEARD);
        assertThat(block.known()).isTrue();
    }

    @Test
    void working_it_out_can_be_cancelled() {
        Outlooks block = outlooks(2, new Shapes().box(0, 0, 0, 20, 20, 2));
        assertThatThrownBy(() -> block.from(true, (done, all) -> {
                    if (done == 3) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(block.from(true, Progress.UNHEARD).layers()).isEqualTo(10);
    }

    /** A line of plastic bulges farther than a twentieth of a millimetre: common practice. */
    @ParameterizedTest
    @CsvSource({"0.04, 3, 60", "0.06, 3, 61.2", "0.04, 0.04, 0", "0.06, 0, 1.2"})
    void a_step_narrower_than_a_twentieth_of_a_millimetre_is_none(double left, double right, double square) {
        Height layer = Height.ofMillimetres(0.2);
        LayerGrid grid = new LayerGrid(layer, layer, Height.ofMillimetres(4));
        Steps up = new Steps(CutModel.of(
                        new Shapes()
                                .box(0, 0, 0, 20, 20, 2)
                                .box(left, 0, 2, 20 - left - right, 20, 2)
                                .body(),
                        grid,
                        Progress.UNHEARD)
                .sections());
        assertThat(up.ledge(10).getArea()).isCloseTo(square, within(1e-4));
        assertThat(up.overhang(10).isEmpty()).isTrue();
        Steps down = new Steps(CutModel.of(
                        new Shapes()
                                .box(left, 0, 0, 20 - left - right, 20, 2)
                                .box(0, 0, 2, 20, 20, 2)
                                .body(),
                        grid,
                        Progress.UNHEARD)
                .sections());
        assertThat(down.overhang(10).getArea()).isCloseTo(square, within(1e-4));
        assertThat(down.ledge(10).isEmpty()).isTrue();
        assertThat(down.overhang(9).isEmpty()).isTrue();
    }
}
