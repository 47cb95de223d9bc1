package dev.tranche.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

class SilhouetteTest {
    private static Coordinate at(double x, double y) {
        return new Coordinate(x, y);
    }

    private static final Silhouette FLAG = Silhouette.polygon(List.of(at(10, 10), at(30, 10), at(30, 18), at(10, 14)));

    @Test
    void a_polygon_lies_about_its_middle_and_reads_back_as_it_was_written() {
        assertThat(FLAG.width()).isEqualTo(20);
        assertThat(FLAG.depth()).isEqualTo(8);
        assertThat(FLAG.area().getEnvelopeInternal()).isEqualTo(new Envelope(-10, 10, -4, 4));
        assertThat(Silhouette.parse(FLAG.toString())).isEqualTo(FLAG);
    }

    @Test
    void a_polygon_that_crosses_itself_is_taken_apart() {
        Silhouette bow = Silhouette.polygon(List.of(at(0, 0), at(10, 10), at(10, 0), at(0, 10)));
        assertThat(bow.area().isValid()).isTrue();
        assertThat(bow.area().getArea()).isCloseTo(50, within(0.1));
    }

    @Test
    void what_encloses_nothing_is_refused() {
        assertThatThrownBy(() -> Silhouette.polygon(List.of(at(0, 0), at(1, 1))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("2 corners");
        assertThatThrownBy(() -> Silhouette.polygon(List.of(at(0, 0), at(5, 5), at(9, 9))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("encloses no area");
        assertThatThrownBy(() -> new Outline.Disc(0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Outline.Box(3, Double.NaN)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new Shape.Zone(new Outline.Disc(3), 1e9, 0, 0, false))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("nowhere near");
    }

    @Test
    void a_zone_lies_on_a_model_that_was_exported_where_it_stands_in_its_country() {
        MultiPolygon area = new Shape.Zone(new Outline.Box(30, 20), 812_345, -98_765.5, 30, false).area();
        assertThat(area.getArea()).isCloseTo(600, within(1e-6));
        assertThat(area.getCentroid().getX()).isCloseTo(812_345, within(1e-6));
    }

    @Test
    void a_zone_is_mirrored_then_turned_then_put_in_its_place() {
        Outline flag = new Outline.Drawing("flag", FLAG, 10);
        Shape.Zone zone = new Shape.Zone(flag, 100, 50, 90, true);
        // Half as wide: 10 × 4; mirrored, the high end is on the left; turned, it points down.
        Envelope box = zone.area().getEnvelopeInternal();
        assertThat(box.getWidth()).isCloseTo(4, within(1e-6));
        assertThat(box.getHeight()).isCloseTo(10, within(1e-6));
        assertThat(zone.area().getCentroid().getY()).isLessThan(50);
        assertThat(zone.mirroredOver().area().getCentroid().getY()).isLessThan(50);
        assertThat(zone.mirroredOver().mirroredOver()).isEqualTo(zone);
    }

    @Test
    void a_disc_is_short_of_its_circle_by_less_than_anyone_prints() {
        double area = new Outline.Disc(20).area().getArea();
        assertThat(area).isCloseTo(Math.PI * 100, within(0.1));
    }

    @Test
    void a_range_covers_the_layers_whose_middles_lie_in_it() {
        LayerGrid grid = LayerSettings.COMMON.on(Height.ofMillimetres(3));
        assertThat(Range.ALL.first(grid)).isEqualTo(1);
        assertThat(Range.ALL.last(grid)).isEqualTo(15);
        Range one = Range.ofLayers(grid, 4, 4);
        assertThat(one).isEqualTo(Range.between(Height.ofMillimetres(0.6), Height.ofMillimetres(0.8)));
        assertThat(one.covers(4, grid)).isTrue();
        assertThat(one.covers(3, grid) || one.covers(5, grid)).isFalse();
        Range above = new Range(Height.ofMillimetres(7), Optional.empty());
        assertThat(above.first(grid)).isGreaterThan(above.last(grid));
        assertThatThrownBy(() -> Range.between(Height.ofMillimetres(2), Height.ofMillimetres(2)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("holds nothing");
        assertThat(grid.endAt("L4")).isEqualTo(Height.ofMillimetres(0.8));
        assertThat(grid.startFrom("L4")).isEqualTo(Height.ofMillimetres(0.6));
    }
}
