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
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
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
                // Two crossings in all but one place, past a corner outside.
                "(9 3, 10.000000000001 5, 9 7, 2 5, 9 3)")) {
            assertThat(walked(overlay, square, area(near))).as(near).isEmpty();
            assertThat(walked(overlay, area(near), square)).as(near).isEmpty();
        }
    }

    @ParameterizedTest
    @EnumSource(value = Overlay.class, mode = Mode.EXCLUDE, names = "EITHER")
    void a_hole_that_touches_its_outline_is_left_to_the_general_overlay(Overlay overlay) throws ParseException {
        MultiPolygon touching = area("(0 0, 10 0, 10 10, 0 10, 0 0), (0 5, 5 7, 5 3, 0 5)");
        MultiPolygon bar = area("(4 4, 20 4, 20 6, 4 6, 4 4)");

        assertThat(walked(overlay, touching, bar)).isEmpty();
        assertThat(walked(overlay, bar, touching)).isEmpty();
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
