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
        assertThat(cut.cut().get(4)).isEmpty();
        assertThat(cut.outline().get(4)).containsExactly(new Span(4, 9));
    }

    @Test
    void where_all_cuts_are_alike_the_middle_is_taken() {
        CutModel box = CutModel.of(new Shapes().box(0, 0, 0, 20, 20, 5).body(), GRID, Progress.UNHEARD);
        assertThat(UprightCut.mostTelling(box).y()).isEqualTo(10);
        assertThat(box.section(1).area()).isEqualTo(400);
    }
}
