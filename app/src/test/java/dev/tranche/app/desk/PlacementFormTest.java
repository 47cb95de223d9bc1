package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Placement;
import org.junit.jupiter.api.Test;

/** A nameplate of 30 × 20 × 5 mm, scaled in per cent or to a size. */
class PlacementFormTest {
    private static final PlacementForm.Size NOW = new PlacementForm.Size(30, 20, 5);

    private static Placement placed(String scale, String x, String y, String z) {
        return new PlacementForm(scale, x, y, z, "0", "").on(Placement.AS_IS, NOW);
    }

    private static void scales(Placement placement, double x, double y, double z) {
        assertThat(placement.scaleX()).isCloseTo(x, within(1e-9));
        assertThat(placement.scaleY()).isCloseTo(y, within(1e-9));
        assertThat(placement.scaleZ()).isCloseTo(z, within(1e-9));
    }

    @Test
    void one_axis_is_scaled_while_the_scale_of_all_still_stands() {
        scales(placed("100", "100", "100", "120"), 1, 1, 1.2);
        scales(placed("100", "45 mm", "100 %", "100"), 1.5, 1, 1);
    }

    @Test
    void a_size_of_the_whole_is_that_of_its_longest_side() {
        scales(placed("60 mm", "100", "100", "100"), 2, 2, 2);
        scales(placed("50 %", "100", "100", "100"), 0.5, 0.5, 0.5);
    }

    @Test
    void both_at_once_is_refused_and_a_size_already_had_changes_nothing() {
        assertThatThrownBy(() -> placed("50", "200", "100", "100")).hasMessageContaining("both were changed");
        assertThat(placed("30 mm", "100", "20 mm", "5mm")).isEqualTo(Placement.AS_IS);
        assertThatThrownBy(() -> placed("wide", "100", "100", "100")).hasMessageContaining("the scale of all axes");
    }

    @Test
    void where_axes_differ_the_scale_of_all_makes_them_alike_again() {
        Placement tall = placed("100", "100", "100", "200");
        PlacementForm even = new PlacementForm("150", "100", "100", "200", "0", "");
        scales(even.on(tall, new PlacementForm.Size(30, 20, 10)), 1.5, 1.5, 1.5);
        PlacementForm empty = new PlacementForm("", "100", "100", "20 mm", "0", "");
        scales(empty.on(tall, new PlacementForm.Size(30, 20, 10)), 1, 1, 4);
    }
}
