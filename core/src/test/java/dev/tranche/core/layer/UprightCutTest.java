package dev.tranche.core.layer;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import org.junit.jupiter.api.Test;

class UprightCutTest {
    private static final LayerGrid GRID =
            new LayerGrid(Height.ofMillimetres(1), Height.ofMillimetres(1), Height.ofMillimetres(5));

    /** A plate of three layers with a post of two, far from the middle. */
    private static CutModel post() {
        return CutModel.of(
                new Shapes().box(0, 0, 0, 20, 20, 3).box(4, 14, 3, 5, 4, 2).body(), GRID, Progress.UNHEARD);
    }

    @Test
    void the_cut_is_laid_where_it_meets_every_layer() {
        UprightCut cut = UprightCut.mostTelling(post());
        assertThat(cut.y()).isBetween(14.0, 18.0);
        assertThat(cut.cut().get(0)).containsExactly(new Span(0, 20));
        assertThat(cut.cut().get(4)).containsExactly(new Span(4, 9));
    }

    @Test
    void what_the_cut_misses_still_shows_in_the_outline() {
        UprightCut cut = UprightCut.at(post(), 5);
        assertThat(cut.cut().get(0)).containsExactly(new Span(0, 20));
        assertThat(cut.cut().get(4)).isEmpty();
        assertThat(cut.outline().get(4)).containsExactly(new Span(4, 9));
    }

    @Test
    void where_all_cuts_are_alike_the_middle_is_taken() {
        CutModel box = CutModel.of(new Shapes().box(0, 0, 0, 20, 20, 5).body(), GRID, Progress.UNHEARD);
        assertThat(UprightCut.mostTelling(box).y()).isEqualTo(10);
        assertThat(box.section(1).area()).isEqualTo(400);
    }

    private static double cutOf(Shapes shapes) {
        return UprightCut.mostTelling(CutModel.of(shapes.body(), GRID, Progress.UNHEARD))
                .y();
    }

    /** Cuts are tried 1.25 mm apart, the middle one at 10. */
    private static Shapes plate() {
        return new Shapes().box(0, 0, 0, 20, 20, 1);
    }

    @Test
    void of_cuts_that_meet_as_many_layers_the_one_that_shows_more_steps_is_taken() {
        // A wall, and stairs behind it.
        assertThat(cutOf(plate().box(0, 6, 1, 15, 3, 4)
                        .box(0, 16, 1, 15, 3, 1)
                        .box(0, 16, 2, 10, 3, 1)
                        .box(0, 16, 3, 5, 3, 2)))
                .isBetween(16.0, 19.0);
        // A wall, and two posts before it.
        assertThat(cutOf(plate().box(0, 11, 1, 15, 3, 4).box(0, 2, 1, 4, 3, 4).box(10, 2, 1, 4, 3, 4)))
                .isBetween(2.0, 5.0);
    }

    @Test
    void a_cut_that_meets_every_layer_is_taken_before_one_that_shows_more() {
        // A wall of full height, and lower stairs behind it.
        assertThat(cutOf(plate().box(0, 1, 1, 20, 3, 4)
                        .box(0, 16, 1, 15, 3, 1)
                        .box(0, 16, 2, 10, 3, 1)
                        .box(0, 16, 3, 5, 3, 1)))
                .isBetween(1.0, 4.0);
    }

    @Test
    void of_cuts_that_tell_the_same_the_one_nearest_to_the_middle_is_taken() {
        assertThat(cutOf(plate().box(0, 3, 1, 8, 1.5, 4).box(0, 12, 1, 8, 1.2, 4)))
                .isEqualTo(12.5);
        assertThat(cutOf(plate().box(0, 15.5, 1, 8, 1.5, 4).box(0, 7, 1, 8, 1.2, 4)))
                .isEqualTo(7.5);
    }
}
