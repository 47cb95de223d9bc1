package dev.tranche.core.coat;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Refusal;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;

/** Colours of a layer in squares. */
class CanvasTest {
    private static final Envelope REACH = new Envelope(-10, 10, -10, 10);
    private static final int BODY = 0;
    private static final int BAND = 1;

    private static MultiPolygon disc(double radius) {
        return Areas.of(new GeometryFactory().createPoint(new Coordinate(0, 0)).buffer(radius, 32));
    }

    /** The body, {@code radius} wide, and a band on it from {@code outer} to 8 mm from the middle. */
    private static Canvas banded(double radius, double outer) {
        Canvas canvas = new Canvas(REACH, disc(radius));
        canvas.cover(BODY);
        canvas.within(disc(outer));
        canvas.cover(BAND);
        canvas.within(disc(8));
        canvas.cover(BODY);
        canvas.grow();
        return canvas;
    }

    @Test
    void what_is_a_labels_reaches_as_far_as_its_squares_and_beyond_the_section_with_them() {
        MultiPolygon band =
                banded(9, 9).everywhere().of(BAND, over -> false).orElseThrow().seen();
        assertThat(Areas.intersection(band, disc(9)).getArea())
                .isCloseTo(Math.PI * (81 - 64), within(2 * Math.PI * 17 * 0.15 / 2));
        assertThat(Areas.difference(disc(9.7), disc(9)).covers(band)).isFalse();
        assertThat(band.covers(Areas.difference(disc(9.7), disc(8.3)))).isTrue();
        assertThat(band.isValid()).isTrue();
    }

    @Test
    void beyond_a_small_section_all_there_is_of_the_model_has_the_label_that_is_nearest() {
        Canvas halves = new Canvas(REACH, disc(2));
        halves.cover(BODY);
        halves.within(Areas.of(box(0, 2, -2, 2)));
        halves.cover(BAND);
        halves.grow();
        MultiPolygon band =
                halves.everywhere().of(BAND, over -> false).orElseThrow().seen();
        assertThat(band.covers(box(0.3, 9.9, -5, 5))).isTrue();
        assertThat(band.intersects(box(-9.9, -0.3, -5, 5))).isFalse();
        Canvas above = new Canvas(REACH, disc(9));
        above.cover(BODY);
        above.within(Areas.of(box(0, 10, -10, 10)));
        above.cover(BAND);
        above.grow();
        assertThat(above.everywhere().foretells(halves, BAND)).isTrue();
    }

    private static Geometry box(double west, double east, double south, double north) {
        return new GeometryFactory().toGeometry(new Envelope(west, east, south, north));
    }

    @Test
    void a_band_that_ends_where_the_next_layers_rim_lies_does_not_foretell_one_that_is_the_rim() {
        Canvas below = banded(10, 9.5);
        Canvas above = banded(9.5, 9.5);
        assertThat(below.everywhere().foretells(above, BAND)).isFalse();
        assertThat(above.everywhere().foretells(banded(9.5, 9.5), BAND)).isTrue();
        assertThat(above.everywhere().foretells(banded(9.3, 9.3), BAND)).isTrue();
    }

    @Test
    void what_is_too_narrow_for_a_line_goes_to_its_neighbours_where_it_is_not_seen() {
        Canvas canvas = new Canvas(REACH, disc(10));
        // A face half a millimetre beyond the layer, nowhere wider than 0.3 mm.
        double[] x = {-4, 4, 4};
        double[] y = {0, 0, 0.3};
        canvas.claim(BAND, x, y, new double[] {0.5, 0.5, 0.5}, 0.2, 1);
        canvas.rest(BODY);
        assertThat(canvas.shows(BAND)).isTrue();
        canvas.narrow(0.45, BODY);
        canvas.grow();
        assertThat(canvas.shows(BAND)).isFalse();
        Canvas seen = new Canvas(REACH, disc(10));
        seen.claim(BAND, x, y, new double[] {0.1, 0.1, 0.1}, 0.2, 1);
        seen.rest(BODY);
        seen.narrow(0.45, BODY);
        seen.grow();
        assertThat(seen.shows(BAND)).as("a layer deep").isTrue();
    }

    @Test
    void islands_of_the_body_that_are_too_small_for_a_line_are_no_islands() {
        Canvas canvas = new Canvas(REACH, disc(10));
        canvas.cover(BAND);
        for (double radius : new double[] {0.2, 1}) {
            canvas.within(Areas.of(new GeometryFactory()
                    .createPoint(new Coordinate(5 * radius, 0))
                    .buffer(radius)));
            canvas.rest(BODY);
            canvas.cover(BODY);
        }
        canvas.narrow(0.45, BODY);
        canvas.grow();
        assertThat(canvas.everywhere()
                        .of(BODY, over -> false)
                        .orElseThrow()
                        .seen()
                        .getNumGeometries())
                .isEqualTo(1);
        assertThat(canvas.everywhere()
                        .of(BODY, over -> false)
                        .orElseThrow()
                        .seen()
                        .getArea())
                .isCloseTo(Math.PI, within(2 * Math.PI * 0.15 / 2));
    }

    /** Such a drawing took minutes to round, and could not be stopped. */
    @Test
    void where_colours_change_at_every_square_nothing_is_drawn() {
        MultiPolygon plate = Areas.of(new GeometryFactory().toGeometry(new Envelope(0, 30, 0, 30)));
        Canvas canvas = new Canvas(plate.getEnvelopeInternal(), plate);
        canvas.cover(BODY);
        for (int i = 0; i < 200 * 200; i += 2) {
            double x = (i % 200 + i / 200 % 2 + 0.5) * 0.15;
            double y = (i / 200 + 0.5) * 0.15;
            canvas.lay(BAND, x, y, x + 0.01, y, 0.1);
        }
        canvas.grow();
        assertThat(canvas.everywhere().of(BAND, over -> false)).isEmpty();
        Patches patches = new Patches(0.45, BODY);
        assertThatThrownBy(() -> patches.add(BAND, 7, canvas, plate))
                .isInstanceOf(Refusal.class)
                .hasMessageStartingWith("On layer 7 the colours change in too many places to be drawn");
    }
}
