package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;

class ShiftTest {
    private static Mesh box(double x, double y, double width, double depth) {
        return new Shapes().box(x, y, 0, width, depth, 2).mesh();
    }

    /** As a corner bracket: the middle of its rectangle is not the middle of what it is made of. */
    private static Body bracketBesideABox() {
        return new Body(
                List.of(
                        new Shapes()
                                .box(0, 0, 0, 30, 6, 2)
                                .box(0, 6, 0, 6, 14, 2)
                                .mesh(),
                        box(50, 10, 20, 10)),
                0);
    }

    @Test
    void a_part_that_is_turned_by_a_quarter_lies_across_where_it_lay_along() {
        Body body = new Body(List.of(box(0, 0, 40, 10), box(100, 0, 10, 10)), 0);
        Body turned = body.moved(Map.of(0, new Shift(0, 0, 0, 90)));
        assertThat(turned.solids().get(0).footprint()).isEqualTo(new Envelope(15, 25, -15, 25));
        assertThat(turned.solids().get(1).footprint())
                .isEqualTo(body.solids().get(1).footprint());
        assertThat(turned.volume()).isCloseTo(body.volume(), within(1e-3));
    }

    @Test
    void a_turn_is_kept_between_0_and_360_and_none_is_no_move() {
        assertThat(new Shift(0, 0, 0, -15)).isEqualTo(new Shift(0, 0, 0, 345));
        assertThat(new Shift(1, 2, 3, 350).by(new Shift(1, 1, 0, 10))).isEqualTo(new Shift(2, 3, 3));
        assertThat(new Shift(0, 0, 0, 720)).isEqualTo(Shift.NONE);
        assertThatThrownBy(() -> new Shift(0, 0, 0, Double.NaN)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Shift(0, 0, 0, 1e9)).isInstanceOf(Refusal.class);
    }

    /** Where the whole model is turned and scaled, its parts stand to each other as they stood. */
    @Property(tries = 200)
    void parts_that_were_moved_and_turned_go_along_with_their_model(
            @ForAll @DoubleRange(min = -40, max = 40) double x,
            @ForAll @DoubleRange(min = 0, max = 359) double turn,
            @ForAll @DoubleRange(min = -180, max = 180) double whole,
            @ForAll @DoubleRange(min = 0.5, max = 2) double factor) {
        Body body = bracketBesideABox();
        Shift shift = new Shift(x, 7, 0, turn);
        Placement placement = Placement.AS_IS.scaled(factor, factor, factor).turned(whole);
        Body first = body.moved(Map.of(0, shift)).placed(placement);
        Body then = body.placed(placement).moved(Map.of(0, shift.along(factor, whole)));
        for (int solid = 0; solid < 2; solid++) {
            Mesh one = first.solids().get(solid);
            Mesh other = then.solids().get(solid);
            for (int corner = 0; corner < 3 * one.triangles(); corner++) {
                assertThat(one.x(corner)).isCloseTo(other.x(corner), within(1e-3));
                assertThat(one.y(corner)).isCloseTo(other.y(corner), within(1e-3));
            }
        }
    }
}
