package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlacementTest {
    private static Body brick() {
        return new Shapes().box(5, 6, 7, 30, 20, 10).body();
    }

    private static Height h(double mm) {
        return Height.ofMillimetres(mm);
    }

    @ParameterizedTest
    @CsvSource({"30, 1", "1000, 1", "1001, 0.1", "2000, 0.1", "3001, 0.01", "40000, 0.001", "9e8, 0.001"})
    void what_no_bed_holds_begins_a_tenth_as_large_or_a_hundredth(double longest, double scale) {
        Placement begun = Placement.AS_IS.toBeHeldByABed(longest);
        assertThat(begun.scaleX()).isCloseTo(scale, within(1e-12));
        assertThat(begun).isEqualTo(Placement.AS_IS.scaled(begun.scaleX(), begun.scaleX(), begun.scaleX()));
    }

    @Test
    void scaling_an_axis_scales_that_measure_and_the_volume() {
        Body scaled = brick().placed(Placement.AS_IS.scaled(2, 1, 0.5));
        assertThat(scaled.footprint().getWidth()).isCloseTo(60, within(1e-4));
        assertThat(scaled.footprint().getHeight()).isCloseTo(20, within(1e-4));
        assertThat(scaled.height()).isEqualTo(h(5));
        assertThat(scaled.volume()).isCloseTo(6000, within(0.1));
    }

    @Test
    void each_side_can_be_laid_on_the_bed() {
        assertThat(brick().placed(Placement.AS_IS.layingDown(1, 0, 0)).height()).isEqualTo(h(30));
        assertThat(brick().placed(Placement.AS_IS.layingDown(-1, 0, 0)).height())
                .isEqualTo(h(30));
        assertThat(brick().placed(Placement.AS_IS.layingDown(0, 1, 0)).height()).isEqualTo(h(20));
        assertThat(brick().placed(Placement.AS_IS.layingDown(0, 0, 5)).height()).isEqualTo(h(10));
    }

    @Test
    void what_faced_down_before_a_flip_faces_up_after_it() {
        Body step = new Shapes().box(0, 0, 0, 20, 20, 2).box(5, 5, 2, 10, 10, 1).body();
        Body flipped = step.placed(Placement.AS_IS.flipped());
        assertThat(flipped.height()).isEqualTo(step.height());
        double low = SectionSweep.cut(
                        flipped.solids().get(0), new int[] {2 * 500}, dev.tranche.core.speech.Progress.UNHEARD)
                .get(0)
                .area();
        assertThat(low).isCloseTo(100, within(1e-3));
        assertThat(flipped.volume()).isCloseTo(step.volume(), within(1e-3));
    }

    @Test
    void a_quarter_turn_swaps_width_and_depth_exactly() {
        Body turned = brick().placed(Placement.AS_IS.turned(90));
        assertThat(turned.footprint().getWidth()).isEqualTo(20);
        assertThat(turned.footprint().getHeight()).isEqualTo(30);
        assertThat(brick().placed(Placement.AS_IS.turned(45)).footprint().getWidth())
                .isCloseTo(50 / Math.sqrt(2), within(1e-4));
    }

    @Property(tries = 300)
    void turning_and_laying_keep_the_volume_and_the_side_chosen_lies_flat(
            @ForAll @DoubleRange(min = -1, max = 1) double x,
            @ForAll @DoubleRange(min = -1, max = 1) double y,
            @ForAll @DoubleRange(min = -1, max = 1) double z,
            @ForAll @DoubleRange(min = -360, max = 360) double turn) {
        if (Math.sqrt(x * x + y * y + z * z) < 0.1) {
            return;
        }
        Placement placement = Placement.AS_IS.layingDown(x, y, z).turned(turn);
        // The divergence theorem, on corners rounded to a micrometre.
        assertThat(brick().placed(placement).volume()).isCloseTo(6000, within(1.0));
        double[] m = placement.matrix();
        double length = Math.sqrt(x * x + y * y + z * z);
        assertThat((m[6] * x + m[7] * y + m[8] * z) / length).isCloseTo(-1, within(1e-9));
    }

    @Test
    void a_side_is_chosen_as_the_model_lies_now() {
        Placement onItsEnd = Placement.AS_IS.layingOn(1, 0, 0).turned(30);
        assertThat(brick().placed(onItsEnd).height()).isEqualTo(h(30));
        // Its top, as it stands, is the other end.
        assertThat(brick().placed(onItsEnd.layingOn(0, 0, 1)).height()).isEqualTo(h(30));
        Face side = Face.find(brick().placed(onItsEnd), 6).stream()
                .filter(f -> Math.abs(f.area() - 600) < 0.1)
                .findFirst()
                .orElseThrow();
        assertThat(brick().placed(onItsEnd.layingOn(side.x(), side.y(), side.z()))
                        .height()
                        .millimetres())
                .isCloseTo(10, within(0.002));
    }

    @Property(tries = 200)
    void whatever_side_is_chosen_of_a_model_that_lies_and_stands_askew_looks_down_then_and_up_when_flipped(
            @ForAll @DoubleRange(min = -1, max = 1) double x,
            @ForAll @DoubleRange(min = -1, max = 1) double y,
            @ForAll @DoubleRange(min = 0.1, max = 1) double z,
            @ForAll @DoubleRange(min = -360, max = 360) double turn,
            @ForAll @IntRange(max = 11) int triangle) {
        Placement askew = Placement.AS_IS.scaled(2, 1, 0.5).layingDown(x, y, z).turned(turn);
        double[] looks = areaVector(askew, triangle);
        double size = Math.sqrt(looks[0] * looks[0] + looks[1] * looks[1] + looks[2] * looks[2]);
        Placement laid = askew.layingOn(looks[0], looks[1], looks[2]);
        assertThat(areaVector(laid, triangle)[2]).isCloseTo(-size, within(1e-3 * size));
        assertThat(areaVector(laid.flipped(), triangle)[2]).isCloseTo(size, within(1e-3 * size));
    }

    private static double[] areaVector(Placement placement, int triangle) {
        return brick().placed(placement).solids().get(0).areaVector(3 * triangle);
    }

    @Test
    void the_sides_of_a_brick_are_found_largest_first() {
        assertThat(Face.find(brick(), 10))
                .extracting(Face::area)
                .containsExactly(600.0, 600.0, 300.0, 300.0, 200.0, 200.0);
        Face largest = Face.find(brick(), 1).get(0);
        assertThat(largest).isEqualTo(new Face(0, 0, -1, 600));
    }

    @Test
    void what_cannot_be_is_refused() {
        assertThatThrownBy(() -> Placement.AS_IS.scaled(0, 1, 1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("A scale of 0.0");
        assertThatThrownBy(() -> Placement.AS_IS.turned(Double.NaN)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> Placement.AS_IS.layingDown(0, 0, 0)).isInstanceOf(Refusal.class);
        Body tall = new Shapes().box(0, 0, 0, 10, 10, 2_000).body();
        assertThatThrownBy(() -> tall.placed(Placement.AS_IS.scaled(1000, 1000, 1000)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("scale it less");
    }
}
