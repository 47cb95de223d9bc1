package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

class ThinTest {
    private static MultiPolygon box(double x, double y, double w, double d) {
        return Areas.of(new GeometryFactory().toGeometry(new Envelope(x, x + w, y, y + d)));
    }

    @Test
    void a_hair_on_a_block_is_found_with_its_width() {
        MultiPolygon shape = Areas.union(List.of(box(0, 0, 10, 10), box(10, 4, 6, 0.3)));
        List<Thin> thin = Thin.of(shape, 0.45);
        assertThat(thin).hasSize(1);
        assertThat(thin.get(0).width()).isCloseTo(0.3, within(0.02));
        assertThat(thin.get(0).area().getArea()).isCloseTo(1.8, within(0.1));
    }

    @Test
    void a_wall_of_just_a_line_prints_and_corners_are_no_loss() {
        assertThat(Thin.of(box(0, 0, 20, 0.45), 0.45)).isEmpty();
        assertThat(Thin.of(box(0, 0, 3, 3), 0.45)).isEmpty();
        assertThat(Thin.holdsLine((Polygon) box(0, 0, 20, 0.44).getGeometryN(0), 0.45))
                .isFalse();
        assertThat(Thin.holdsLine((Polygon) box(0, 0, 20, 0.46).getGeometryN(0), 0.45))
                .isTrue();
    }

    @Test
    void an_l_of_two_thin_walls_does_not_count_as_thick_for_its_area() {
        MultiPolygon l = Areas.union(List.of(box(0, 0, 30, 0.3), box(0, 0, 0.3, 30)));
        assertThat(Thin.holdsLine((Polygon) l.getGeometryN(0), 0.45)).isFalse();
    }
}
