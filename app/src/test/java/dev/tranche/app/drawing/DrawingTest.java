package dev.tranche.app.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.units.Height;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

class DrawingTest extends OnePlanTest {
    @Autowired
    private Workbench workbench;

    @Autowired
    private Figures figures;

    private Workpiece twoColours() {
        PlanState plan = plan("drawn");
        return workbench.openNow(plans.edit(
                plan.id(),
                0,
                "start",
                p -> p.startAt(
                        Height.ofMillimetres(2.4),
                        shelf.all().get(1).id(),
                        p.layers().on(Height.ofMillimetres(5)))));
    }

    @Test
    void the_section_draws_neighbouring_layers_of_one_shape_as_one_block() {
        SectionDrawing section = SectionDrawing.of(twoColours(), 234, 470);
        assertThat(section.strata()).hasSize(2);
        assertThat(section.strata().get(0).path().chars().filter(c -> c == 'M')).hasSize(1);
        assertThat(section.strata().get(1).path().chars().filter(c -> c == 'M')).hasSize(2);
        double border = section.bottom() - 2.4 * section.perMillimetre();
        assertThat(section.borders()).singleElement().satisfies(b -> {
            assertThat(b.y()).isCloseTo(border, within(1e-6));
            assertThat(b.layer()).isEqualTo(13);
        });
        assertThat(section.surfaces()).extracting(SectionDrawing.Flat::height).containsExactly("2.40", "4.00", "5.00");
    }

    @Test
    void the_ribbon_of_the_score_is_as_long_as_the_print_and_its_swaps() {
        Workpiece work = twoColours();
        ScoreDrawing score = ScoreDrawing.of(work, figures, 13, 1, 1240, 150);
        double ribbon = score.bars().stream()
                        .mapToDouble(ScoreDrawing.Bar::width)
                        .sum()
                + score.steps().stream().mapToDouble(ScoreDrawing.Step::width).sum();
        assertThat(ribbon).isCloseTo(score.right() - score.left(), within(0.01));
        assertThat(score.steps()).singleElement().satisfies(s -> {
            assertThat(s.layer()).isEqualTo(13);
            assertThat(s.x())
                    .isCloseTo(score.bars().get(0).x() + score.bars().get(0).width(), within(0.01));
        });
        assertThat(score.cursor(work, 1)).isCloseTo(score.left(), within(0.01));
        assertThat(score.cursor(work, 13)).isCloseTo(score.bars().get(1).x(), within(0.01));
    }

    @Test
    void a_nearer_score_shows_the_time_round_the_cursor() {
        Workpiece work = twoColours();
        ScoreDrawing near = ScoreDrawing.of(work, figures, 13, 8, 1240, 150);
        assertThat(near.zoom()).isEqualTo(8);
        assertThat(near.cursor(work, 13)).isBetween(near.left(), near.right());
        assertThat(ScoreDrawing.of(work, figures, 13, 100_000, 1240, 150).zoom())
                .isEqualTo(64);
    }

    @Test
    void the_layer_plan_keeps_the_models_proportions() {
        LayerDrawing layer = LayerDrawing.of(twoColours(), 1, 460, 440);
        assertThat(layer.ghost()).isEmpty();
        assertThat(layer.area()).isEqualTo("600.0");
        // 30 mm over 432 px: 14.4 px a mm, so 20 mm are 288 px, in the middle of 440.
        assertThat(layer.path()).contains("14 364").contains("446 76");
    }

    @Test
    void rulers_step_by_numbers_people_count_in() {
        assertThat(Ticks.step(3.2, 9)).isEqualTo(0.5);
        assertThat(Ticks.step(60, 9)).isEqualTo(10);
        assertThat(Ticks.step(400, 12)).isEqualTo(50);
    }

    @Test
    void spools_are_told_apart_without_colour() {
        Workpiece work = twoColours();
        assertThat(SpoolMark.palette(work)).extracting(SpoolMark::letter).containsExactly('A', 'B');
        assertThat(SpoolMark.palette(work))
                .extracting(m -> m.kind() + " " + m.angle())
                .doesNotHaveDuplicates();
    }

    @Test
    void figures_are_written_as_a_scale_and_a_clock_show_them() {
        assertThat(figures.time(42)).isEqualTo("42 s");
        assertThat(figures.time(7 * 60 + 20)).isEqualTo("7 min");
        assertThat(figures.time(4020)).isEqualTo("1 h 07 min");
        assertThat(figures.time(3599)).isEqualTo("1 h 00 min");
        assertThat(figures.grams(12.44)).isEqualTo("12.4 g");
        assertThat(figures.money(0.125)).isEqualTo("0.13 EUR");
        assertThat(figures.plain(220.0)).isEqualTo("220");
        assertThat(figures.bytes(343_201)).isEqualTo("344 kB");
    }
}
