package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.statistics.Statistics;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.EnumSource.Mode;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;

/** The reference is JTS: the same pieces, with the very same corners. */
class RimWalkTest {
    private static final List<Overlay> WALKED = List.of(Overlay.UNION, Overlay.INTERSECTION, Overlay.DIFFERENCE);

    /** Blobs with blobs in them, and blobs in those, wherever they fall; the second may be so far off as a terrain is. */
    @Property(tries = 300)
    void what_rims_that_cross_plainly_make_is_what_a_general_overlay_makes(@ForAll Random random) {
        double away = random.nextInt(4) == 0 ? 5e6 * random.nextDouble() : 0;
        MultiPolygon a = blobs(random, away);
        MultiPolygon b = blobs(random, away);
        for (Overlay overlay : WALKED) {
            Optional<MultiPolygon> walked = walked(overlay, a, b);
            Statistics.label("walked").collect(walked.isPresent());
            walked.ifPresent(w -> {
                assertThat(w.isValid()).isTrue();
                assertThat(w.norm()).isEqualTo(overlay.byJts(a, b).norm());
            });
        }
        Statistics.label("walked").coverage(c -> c.check(true).percentage(p -> p > 95));
    }

    /** Corners on whole numbers: rims touch, share edges, and cross in corners. */
    @Property(tries = 300)
    void where_rims_touch_it_is_left_to_the_general_overlay_or_is_the_same(@ForAll Random random) {
        MultiPolygon a = boxes(random);
        MultiPolygon b = boxes(random);
        for (Overlay overlay : WALKED) {
            walked(overlay, a, b).ifPresent(w -> assertThat(w.norm())
                    .isEqualTo(overlay.byJts(a, b).norm()));
        }
    }

    @ParameterizedTest
    @EnumSource(value = Overlay.class, mode = Mode.EXCLUDE, names = "EITHER")
    void nothing_is_walked_where_a_corner_or_a_crossing_all_but_lies_on_a_line(Overlay overlay) throws ParseException {
        MultiPolygon square = area("(0 0, 10 0, 10 10, 0 10, 0 0)");
        for (String near : List.of(
                // A corner on a rim; as near to one as a double tells; an edge along a rim.
                "(10 5, 15 0, 15 10, 10 5)",
                "(9.999999999999 5, 15 0, 15 10, 9.999999999999 5)",
                "(10 2, 15 2, 15 8, 10 8, 10 2)",
                // A rim through a corner.
                "(5 15, 15 5, 15 15, 5 15)",
                // A spike that turns back upon itself, and a corner twice.
                "(5 5, 15 5, 15 6, 12 6, 20 6, 12 6.000000000001, 5 6, 5 5)",
                "(5 5, 15 5, 15 5, 15 6, 5 6, 5 5)",
                // All but a line.
                "(5 5, 15 5, 12 5.000000000001, 5 5)",
                // A corner just outside; a needle, crossed where it is thinner than a hair.
                "(9 3, 10.000000000001 5, 9 7, 2 5, 9 3)",
                "(9.9 5, 20 5, 20 5.0000000002, 9.9 5)")) {
            assertThat(walked(overlay, square, area(near))).as(near).isEmpty();
            assertThat(walked(overlay, area(near), square)).as(near).isEmpty();
        }
    }

    @ParameterizedTest
    @EnumSource(value = Overlay.class, mode = Mode.EXCLUDE, names = "EITHER")
    void rims_that_are_many_or_close_together_are_left_to_the_general_overlay(Overlay overlay) throws ParseException {
        MultiPolygon bar = area("(-1 0.3, 101 0.4, 101 0.6, -1 0.5, -1 0.3)");

        assertThat(walked(overlay, comb(8, 0), bar)).isPresent();
        assertThat(walked(overlay, comb(8, 0), comb(8, 90))).hasValueSatisfying(a -> assertThat(a.norm())
                .isEqualTo(overlay.byJts(comb(8, 0), comb(8, 90)).norm()));
        assertThat(walked(overlay, comb(18, 0), comb(18, 90))).as("crossings").isEmpty();
        assertThat(walked(overlay, comb(600, 0), bar)).as("runs").isEmpty();
        assertThat(walked(overlay, rings(60, 0.001), bar))
                .as("rings at a hair from one another")
                .isEmpty();
        assertThat(walked(overlay, rings(60, 0.5), bar)).isPresent();
    }

    @ParameterizedTest
    @EnumSource(value = Overlay.class, mode = Mode.EXCLUDE, names = "EITHER")
    void holes_that_touch_and_pieces_within_pieces_are_left_to_the_general_overlay(Overlay overlay)
            throws ParseException {
        MultiPolygon bar = area("(4 4, 20 4, 20 6, 4 6, 4 4)");
        for (String rings : List.of(
                "(0 0, 10 0, 10 10, 0 10, 0 0), (0 5, 5 7, 5 3, 0 5)",
                "(0 0, 10 0, 10 10, 0 10, 0 0)), ((2 2, 8 2, 8 8, 2 8, 2 2)")) {
            assertThat(walked(overlay, area(rings), bar)).as(rings).isEmpty();
            assertThat(walked(overlay, bar, area(rings))).as(rings).isEmpty();
        }
    }

    /** So many teeth, one mm wide and one apart. */
    private static MultiPolygon comb(int teeth, double turned) {
        List<Coordinate> corners = new ArrayList<>();
        for (int i = 0; i < teeth; i++) {
            corners.add(new Coordinate(2 * i, 0));
            corners.add(new Coordinate(2 * i, 2 * teeth));
            corners.add(new Coordinate(2 * i + 1, 2 * teeth));
            corners.add(new Coordinate(2 * i + 1, 0));
        }
        corners.add(new Coordinate(2 * teeth, -1));
        corners.add(new Coordinate(-0.5, -1));
        corners.add(corners.get(0));
        return Areas.of(AffineTransformation.rotationInstance(Math.toRadians(turned), teeth + 0.3, teeth - 0.2)
                .transform(Section.PLANE.createPolygon(corners.toArray(Coordinate[]::new))));
    }

    /** Each in the one before, so far apart. */
    private static MultiPolygon rings(int count, double apart) {
        List<LinearRing> rings = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Coordinate[] ring = new Coordinate[101];
            for (int c = 0; c < 100; c++) {
                double angle = 2 * Math.PI * c / 100;
                ring[c] = new Coordinate((50 - i * apart) * Math.cos(angle), (50 - i * apart) * Math.sin(angle));
            }
            ring[100] = ring[0];
            rings.add(Section.PLANE.createLinearRing(ring));
        }
        List<Polygon> washers = new ArrayList<>();
        for (int i = 0; i < count; i += 2) {
            washers.add(Section.PLANE.createPolygon(rings.get(i), new LinearRing[] {rings.get(i + 1)}));
        }
        return Areas.of(washers);
    }

    private static Optional<MultiPolygon> walked(Overlay overlay, MultiPolygon a, MultiPolygon b) {
        return RimWalk.of(overlay, new Rims(a), new Rims(b));
    }

    private static MultiPolygon area(String rings) throws ParseException {
        return Areas.of(new WKTReader().read("MULTIPOLYGON ((" + rings + "))"));
    }

    private static MultiPolygon blobs(Random random, double away) {
        List<MultiPolygon> all = new ArrayList<>();
        for (int i = random.nextInt(6); i >= 0; i--) {
            double x = away + 40 * random.nextDouble();
            double y = 25 * random.nextDouble() - away / 3;
            double radius = 2 + 12 * random.nextDouble();
            MultiPolygon blob = blob(random, x, y, radius);
            for (double inner = 0.7 * radius; random.nextBoolean(); inner *= 0.7) {
                blob = Areas.of(blob.symDifference(blob(random, x, y, inner)));
            }
            all.add(blob);
        }
        return all.stream().reduce(Areas.NOTHING, (a, b) -> Areas.of(a.union(b)));
    }

    private static MultiPolygon blob(Random random, double x, double y, double radius) {
        int count = 12 + random.nextInt(60);
        double turn = random.nextDouble();
        Coordinate[] ring = new Coordinate[count + 1];
        for (int i = 0; i < count; i++) {
            double angle = 2 * Math.PI * (i + turn) / count;
            double here = radius * (0.8 + 0.2 * random.nextDouble());
            ring[i] = new Coordinate(x + here * Math.cos(angle), y + here * Math.sin(angle));
        }
        ring[count] = ring[0].copy();
        Polygon blob = Section.PLANE.createPolygon(ring);
        return Areas.of(random.nextBoolean() ? blob : blob.reverse());
    }

    private static MultiPolygon boxes(Random random) {
        MultiPolygon all = Areas.NOTHING;
        for (int i = 0; i < 1 + random.nextInt(5); i++) {
            int x = random.nextInt(12);
            int y = random.nextInt(12);
            MultiPolygon box = Areas.of(
                    Section.PLANE.toGeometry(new Envelope(x, x + 1 + random.nextInt(6), y, y + 1 + random.nextInt(6))));
            all = Areas.of(random.nextInt(3) == 0 ? all.difference(box) : all.union(box));
        }
        return all;
    }
}
