package dev.tranche.core.plate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;

class LayoutTest {
    private static final Bed SQUARE = new Bed.Rectangular(220, 220);
    private static final Bed ROUND = new Bed.Round(200);

    private static Footprint box(double width, double depth) {
        return of(new Shapes().box(7, -3, 0, width, depth, 1));
    }

    private static Footprint of(Shapes shapes) {
        Body body = Body.of(shapes.mesh());
        return Footprint.of(
                CutModel.of(body, LayerSettings.COMMON.on(shapes.mesh().height()), Progress.UNHEARD));
    }

    @Test
    void a_footprint_is_all_layers_over_one_another_whichever_is_the_largest() {
        // A foot, a stem, a roof that is the largest, and a beam across it: 20 × 20, and beyond it 5 × 2 and 3 × 4.
        Footprint footprint = of(new Shapes()
                .box(17, 2, 0, 6, 4, 1)
                .box(4, 4, 0, 4, 4, 3)
                .box(0, 0, 3, 20, 20, 1)
                .box(-5, 9, 4, 20, 2, 1));
        assertThat(footprint.outline().getArea()).isCloseTo(400 + 5 * 2 + 3 * 4, within(0.01));
        assertThat(footprint.middle().x).isCloseTo(9, within(0.01));
    }

    private static Layout arranged(int copies, double gap, Footprint footprint, Bed bed) {
        return Layout.of(new Plate(copies, gap, List.of()), footprint, bed);
    }

    @Test
    void one_copy_stands_in_the_middle_and_its_middle_is_that_of_its_rectangle() {
        Layout layout = arranged(1, 2, box(60, 20), SQUARE);
        assertThat(layout.spots()).containsExactly(new Spot(110, 110, 0));
        assertThat(layout.copies().get(0).outline().getEnvelopeInternal().getMinX())
                .isCloseTo(80, within(1e-9));
        assertThat(arranged(1, 2, box(20, 20), SQUARE).spots()).containsExactly(new Spot(110, 110, 0));
        assertThat(arranged(1, 2, box(60, 20), ROUND).spots()).containsExactly(new Spot(0, 0, 0));
    }

    @Test
    void brims_keep_copies_apart_and_off_the_edge_and_a_skirt_keeps_them_off_the_edge() {
        Plate plate = new Plate(40, 2, List.of());
        // A brim of 5 mm: 60 + 10 and 20 + 10 mm go into 220 − 10 + 10 mm three and seven times.
        Layout brims = Layout.of(plate.with(new Rims(5, 0)), box(60, 20), SQUARE);
        assertThat(brims.copies()).hasSize(21).noneMatch(Layout.Copy::beyond);
        assertThat(brims.tooNear()).isEmpty();
        brims.copies().forEach(c -> {
            Envelope box = c.outline().getEnvelopeInternal();
            assertThat(box.getMinX()).isGreaterThanOrEqualTo(5 - 1e-9);
            assertThat(box.getMaxY()).isLessThanOrEqualTo(215 + 1e-9);
        });
        // A skirt that reaches 8 mm: 60 + 2 and 20 + 2 mm go into 204 + 2 mm three and nine times.
        assertThat(Layout.of(plate.with(new Rims(0, 8)), box(60, 20), SQUARE).copies())
                .hasSize(27)
                .noneMatch(Layout.Copy::beyond);
        // On a round bed of 200 mm, a plate whose corners reach 97 mm from its middle has room, but no brim of 5 mm.
        Footprint broad = box(2 * 97 * Math.cos(0.7), 2 * 97 * Math.sin(0.7));
        assertThat(arranged(1, 2, broad, new Bed.Round(200)).copies()).noneMatch(Layout.Copy::beyond);
        assertThat(Layout.of(Plate.ONE.with(new Rims(5, 0)), broad, new Bed.Round(200))
                        .copies())
                .allMatch(Layout.Copy::beyond);
    }

    @Test
    void what_stands_by_hand_is_too_near_where_brims_run_into_one_another() {
        Plate plate = new Plate(2, 2, List.of(new Spot(60, 60, 0), new Spot(60, 88, 0)));
        assertThat(Layout.of(plate, box(60, 20), SQUARE).tooNear()).isEmpty();
        assertThat(Layout.of(plate.with(new Rims(4.5, 0)), box(60, 20), SQUARE).tooNear())
                .containsExactly(new Layout.Pair(0, 1, 8));
        assertThat(Layout.of(plate.with(new Rims(4, 0)), box(60, 20), SQUARE).tooNear())
                .isEmpty();
        for (double wrong : new double[] {-1, 51, Double.NaN}) {
            assertThatThrownBy(() -> new Rims(wrong, 0)).isInstanceOf(Refusal.class);
            assertThatThrownBy(() -> new Rims(0, wrong)).isInstanceOf(Refusal.class);
        }
    }

    @Test
    void a_tower_leaves_room_for_the_skirt_round_all() {
        Plate plate = Plate.ONE.with(new Rims(0, 10));
        Layout layout = Layout.of(plate, box(60, 20), SQUARE, Optional.of(Footprint.rectangle(30, 12)));
        TowerStand stand =
                TowerStand.at(new Spot(20, 110, 0), Footprint.rectangle(30, 12), true, layout, plate.room(), SQUARE);
        assertThat(stand.beyond()).isTrue();
        assertThat(TowerStand.at(new Spot(25, 110, 0), Footprint.rectangle(30, 12), true, layout, plate.room(), SQUARE)
                        .beyond())
                .isFalse();
    }

    @Test
    void as_many_tags_have_room_as_can_be_counted_by_hand() {
        // 60 + 2 and 20 + 2 mm go into 220 + 2 mm three and ten times; a quarter turned they go ten and three times.
        assertThat(arranged(31, 2, box(60, 20), SQUARE).withoutRoom()).isEqualTo(1);
        assertThat(arranged(30, 2, box(60, 20), SQUARE).withoutRoom()).isZero();
        // 110 + 0 goes twice each way.
        assertThat(arranged(5, 0, box(110, 110), SQUARE).withoutRoom()).isEqualTo(1);
        // 215 mm is wider than 200 mm lying, and longer than it turned.
        Layout larger = arranged(2, 2, box(215, 30), new Bed.Rectangular(200, 100));
        assertThat(larger.copies()).hasSize(1).allMatch(Layout.Copy::beyond);
        // 150 × 30 on a bed of 100 × 200 stands only when turned.
        assertThat(arranged(3, 2, box(150, 30), new Bed.Rectangular(100, 200)).spots())
                .hasSize(3)
                .allMatch(s -> s.turn() == 90);
    }

    @Property(tries = 300)
    void what_is_arranged_stands_on_the_bed_and_far_enough_apart(
            @ForAll @IntRange(min = 1, max = 60) int copies,
            @ForAll @DoubleRange(min = 5, max = 80) double width,
            @ForAll @DoubleRange(min = 5, max = 80) double depth,
            @ForAll @DoubleRange(min = 0, max = 12) double gap,
            @ForAll boolean round) {
        Bed bed = round ? ROUND : SQUARE;
        Footprint footprint = box(width, depth);
        Layout layout = arranged(copies, gap, footprint, bed);
        assertThat(layout.copies().size() + layout.withoutRoom()).isEqualTo(copies);
        assertThat(layout.copies()).noneMatch(Layout.Copy::beyond);
        assertThat(layout.tooNear()).isEmpty();
        // No packing holds more than the areas allow.
        assertThat(layout.copies().size() * width * depth).isLessThanOrEqualTo(bed.squareMillimetres());
        for (int i = 0; i < layout.copies().size(); i++) {
            for (int j = i + 1; j < layout.copies().size(); j++) {
                assertThat(layout.copies()
                                .get(i)
                                .outline()
                                .distance(layout.copies().get(j).outline()))
                        .isGreaterThanOrEqualTo(gap - 1e-6);
            }
        }
    }

    @Property(tries = 200)
    void distances_of_copies_by_hand_are_those_of_a_geometry_library(
            @ForAll @DoubleRange(min = -30, max = 30) double dx,
            @ForAll @DoubleRange(min = -30, max = 30) double dy,
            @ForAll @DoubleRange(min = 0, max = 359) double turn) {
        Footprint ell = of(new Shapes().box(0, 0, 0, 30, 10, 1).box(0, 10, 0, 10, 20, 1));
        Spot one = new Spot(100, 100, 0);
        Spot other = new Spot(100 + dx, 100 + dy, turn);
        Layout layout = Layout.of(new Plate(2, 2, List.of(one, other)), ell, SQUARE);
        double apart = ell.at(one).distance(ell.at(other));
        assertThat(layout.tooNear()).hasSize(apart < 2 - 1e-6 ? 1 : 0);
        layout.tooNear().forEach(p -> assertThat(p.apart()).isCloseTo(apart, within(1e-9)));
    }

    @Test
    void a_copy_over_the_rim_of_a_round_bed_is_beyond_though_its_middle_is_not() {
        Plate plate = new Plate(1, 2, List.of(new Spot(80, 0, 0)));
        assertThat(Layout.of(plate, box(39, 10), ROUND).copies().get(0).beyond())
                .isFalse();
        assertThat(Layout.of(plate, box(41, 10), ROUND).copies().get(0).beyond())
                .isTrue();
        // Its corner: 20 mm further and 40 mm aside are 107.7 mm from the middle.
        assertThat(Layout.of(plate, box(39, 80), ROUND).copies().get(0).beyond())
                .isTrue();
    }

    @Test
    void what_hangs_over_counts_though_it_stands_on_less() {
        Footprint mushroom = of(new Shapes().box(8, 8, 0, 4, 4, 1).box(0, 0, 1, 20, 20, 1));
        assertThat(mushroom.outline().getEnvelopeInternal().getWidth()).isCloseTo(20, within(1e-9));
    }

    @Test
    void the_widest_layer_of_many_is_never_missed() {
        // 300 layers, of which one alone is wide, wherever it is.
        for (int layer : new int[] {1, 37, 158, 300}) {
            double z = 0.2 * (layer - 1);
            Shapes post = new Shapes().box(8, 8, 0, 4, 4, 60).box(0, 5, z, 20, 10, 0.2);
            assertThat(of(post).outline().getEnvelopeInternal().getWidth()).isCloseTo(20, within(0.05));
        }
    }

    @Test
    void moving_one_keeps_the_others_and_nonsense_gets_a_sentence() {
        Plate plate = new Plate(3, 2, List.of());
        Layout layout = Layout.of(plate, box(20, 20), SQUARE);
        Plate moved = plate.standing(layout.spots()).with(1, s -> s.by(5, -5, 370));
        assertThat(moved.byHand().get(1).turn()).isEqualTo(10);
        assertThat(moved.byHand().get(0)).isEqualTo(layout.spots().get(0));
        assertThat(moved.times(3)).isEqualTo(moved);
        assertThat(moved.times(4).byHand()).isEmpty();
        for (int copies : new int[] {0, -1, 1001}) {
            assertThatThrownBy(() -> new Plate(copies, 2, List.of())).isInstanceOf(Refusal.class);
        }
        for (double wrong : new double[] {Double.NaN, Double.POSITIVE_INFINITY, 1e9}) {
            assertThatThrownBy(() -> new Spot(wrong, 0, 0)).isInstanceOf(Refusal.class);
            assertThatThrownBy(() -> new Spot(0, 0, wrong)).isInstanceOf(Refusal.class);
            assertThatThrownBy(() -> new Plate(1, wrong, List.of())).isInstanceOf(Refusal.class);
        }
        assertThatThrownBy(() -> plate.standing(layout.spots()).with(3, s -> s)).isInstanceOf(Refusal.class);
    }
}
