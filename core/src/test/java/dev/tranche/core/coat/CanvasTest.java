package dev.tranche.core.coat;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineSegment;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Triangle;

/** Colours of a layer in squares. */
class CanvasTest {
    private static final Envelope REACH = new Envelope(-10, 10, -10, 10);
    private static final double LINE = 0.45;
    private static final double LAYER = 0.2;
    private static final double DEEP = 1.35;
    private static final double NEVER = Double.POSITIVE_INFINITY;
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

    /**
     * Walls and faces by chance, against a geometry library: outermost lines of walls go before all, then faces no more than a layer
     * away, then what is left by how far it is beyond those.
     */
    @Property(tries = 8)
    void a_square_is_claimed_by_what_is_nearest_and_by_nothing_that_is_too_far(@ForAll Random chance) {
        Canvas canvas = new Canvas(REACH, disc(9));
        List<ToDoubleFunction<Coordinate>> claims = new ArrayList<>();
        for (int label = 0; label < 9; label++) {
            double[] x = chance.doubles(3, -10, 10).toArray();
            double[] y = chance.doubles(3, -10, 10).toArray();
            if (label % 3 == 0) {
                double[] away = chance.doubles(3, -0.5, 2).toArray();
                canvas.claim(label, x, y, away, LAYER, DEEP);
                Triangle face = new Triangle(
                        new Coordinate(x[0], y[0], away[0]),
                        new Coordinate(x[1], y[1], away[1]),
                        new Coordinate(x[2], y[2], away[2]));
                Geometry flat =
                        new GeometryFactory().createPolygon(new Coordinate[] {face.p0, face.p1, face.p2, face.p0});
                claims.add(
                        at -> !flat.covers(flat.getFactory().createPoint(at)) ? NEVER : ofFace(face.interpolateZ(at)));
            } else {
                canvas.claim(label, x[0], y[0], x[1], y[1], LINE, DEEP);
                LineSegment wall = new LineSegment(x[0], y[0], x[1], y[1]);
                claims.add(at -> wall.distance(at) < DEEP ? wall.distance(at) - LINE : NEVER);
            }
        }
        Lattice squares = canvas.lattice();
        for (int i = 0; i < squares.squares(); i++) {
            Coordinate middle =
                    new Coordinate(squares.middleX(i % squares.columns()), squares.middleY(i / squares.columns()));
            double nearest = claims.stream()
                    .mapToDouble(c -> c.applyAsDouble(middle))
                    .min()
                    .orElseThrow();
            if (canvas.label(i) >= 0) {
                assertThat(claims.get(canvas.label(i)).applyAsDouble(middle)).isCloseTo(nearest, within(1e-6));
            } else if (middle.distance(new Coordinate()) < 8.9) {
                assertThat(nearest).isEqualTo(NEVER);
            }
        }
    }

    private static double ofFace(double away) {
        if (away < 0 || away >= DEEP) {
            return NEVER;
        }
        return away <= LAYER ? 0.001 * away / LAYER : 0.001 + away - LAYER;
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

    @Property(tries = 5)
    void what_is_not_seen_stays_where_a_block_as_wide_as_a_line_is_all_its_own(@ForAll Random chance) {
        Canvas canvas = new Canvas(REACH, disc(9));
        double[] unseen = {0.5, 0.5, 0.5};
        for (int i = 0; i < 60; i++) {
            double[] x = chance.doubles(3, -10, 10).toArray();
            double[] y = chance.doubles(3, -10, 10).toArray();
            canvas.claim(i % 4, x, y, unseen, LAYER, DEEP);
        }
        Lattice squares = canvas.lattice();
        int columns = squares.columns();
        byte[] before = new byte[squares.squares()];
        for (int i = 0; i < before.length; i++) {
            before[i] = canvas.label(i);
        }
        boolean[] stays = new boolean[before.length];
        for (int i = 0; i < before.length - 2 * columns - 2; i++) {
            int corner = i;
            int[] block = IntStream.range(0, 9)
                    .map(n -> corner + n % 3 + n / 3 * columns)
                    .toArray();
            byte label = before[i];
            if (label >= 0 && Arrays.stream(block).allMatch(at -> before[at] == label)) {
                Arrays.stream(block).forEach(at -> stays[at] = true);
            }
        }
        canvas.narrow(LINE, 99);
        for (int i = 0; i < before.length; i++) {
            assertThat(canvas.label(i)).isEqualTo(stays[i] || before[i] < 0 ? before[i] : Canvas.NOTHING);
        }
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
