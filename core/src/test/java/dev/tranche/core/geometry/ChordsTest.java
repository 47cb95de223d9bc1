package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.geometry.Chords.Fit;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.util.AffineTransformation;

class ChordsTest {
    private static final GeometryFactory PLANE = new GeometryFactory();

    private static MultiPolygon box(double x, double y, double w, double d) {
        return Areas.of(PLANE.toGeometry(new Envelope(x, x + w, y, y + d)));
    }

    private static MultiPolygon turned(MultiPolygon area, double degrees) {
        return Areas.of(
                AffineTransformation.rotationInstance(Math.toRadians(degrees)).transform(area));
    }

    private static Fit shared(List<MultiPolygon> one, List<MultiPolygon> other, double radius) {
        return Chords.of(one, radius)
                .orElseThrow()
                .shared(
                        Chords.of(other, radius).orElseThrow(),
                        at -> holds(one, at, radius) && holds(other, at, radius));
    }

    private static boolean holds(List<MultiPolygon> cells, Coordinate at, double radius) {
        return cells.stream().anyMatch(c -> Chords.holdsDisc(c, at, radius));
    }

    /** The reference is JTS: a disc fits where something is left of what both share, drawn in by its radius. */
    @Test
    void whether_a_disc_fits_is_told_rightly_for_nearly_all_areas_and_wrongly_for_none() {
        Random random = new Random(11);
        Map<Fit, Integer> told = new EnumMap<>(Fit.class);
        for (int i = 0; i < 600; i++) {
            MultiPolygon one = turned(blot(random, 0), random.nextDouble() * 360);
            MultiPolygon other = turned(blot(random, random.nextDouble() * 12), random.nextDouble() * 360);
            double radius = 0.1 + random.nextDouble();
            Fit fit = shared(List.of(one), List.of(other), radius);
            told.merge(fit, 1, Integer::sum);
            if (fit != Fit.UNKNOWN) {
                assertThat(Areas.intersection(one, other).buffer(-radius).isEmpty())
                        .as("case %d", i)
                        .isEqualTo(fit == Fit.NOWHERE);
            }
        }
        assertThat(told.get(Fit.NOWHERE)).isGreaterThan(100);
        assertThat(told.get(Fit.SOMEWHERE)).isGreaterThan(100);
        assertThat(told.get(Fit.UNKNOWN)).isLessThan(60);
    }

    /** A star of random rays, with a hole. */
    private static MultiPolygon blot(Random random, double aside) {
        Coordinate[] rim = new Coordinate[14];
        for (int i = 0; i < 13; i++) {
            double ray = 1.5 + 5 * random.nextDouble();
            double turn = 2 * Math.PI * i / 13;
            rim[i] = new Coordinate(aside + ray * Math.cos(turn), ray * Math.sin(turn));
        }
        rim[13] = rim[0];
        Point middle = PLANE.createPoint(new Coordinate(aside + 0.2, 0));
        return Areas.of(PLANE.createPolygon(rim).difference(middle.buffer(0.6, 6)));
    }

    @Test
    void a_strip_as_wide_as_the_disc_may_hold_it_and_one_a_twentieth_narrower_does_not_however_it_lies() {
        for (double turn : new double[] {0, 90}) {
            MultiPolygon all = box(-50, -50, 100, 100);
            assertThat(shared(List.of(turned(box(0, 0, 20, 0.4), turn)), List.of(all), 0.2))
                    .as("%s°", turn)
                    .isNotEqualTo(Fit.NOWHERE);
        }
        assertThat(shared(List.of(box(0, 0, 0.38, 20)), List.of(box(-9, -9, 99, 99)), 0.2))
                .isEqualTo(Fit.NOWHERE);
        assertThat(shared(List.of(box(0, 0, 20, 0.25)), List.of(box(-9, -9, 99, 99)), 0.2))
                .isEqualTo(Fit.NOWHERE);
    }

    @Test
    void cells_that_touch_are_one_area_and_a_disc_over_their_edge_is_not_missed() {
        List<MultiPolygon> halves = List.of(turned(box(0, 0, 0.25, 3), 17), turned(box(0.25, 0, 0.25, 3), 17));
        assertThat(shared(halves, List.of(box(-9, -9, 99, 99)), 0.2)).isNotEqualTo(Fit.NOWHERE);
        assertThat(shared(List.of(halves.get(0)), List.of(box(-9, -9, 99, 99)), 0.2))
                .isEqualTo(Fit.NOWHERE);
    }

    @Test
    void what_shares_nothing_or_is_nothing_holds_no_disc_and_of_what_is_too_wide_nothing_is_told() {
        MultiPolygon box = box(0, 0, 10, 10);
        assertThat(shared(List.of(box), List.of(box(20, 0, 5, 5)), 0.2)).isEqualTo(Fit.NOWHERE);
        assertThat(shared(List.of(box), List.of(box(0, 20, 5, 5)), 0.2)).isEqualTo(Fit.NOWHERE);
        assertThat(shared(List.of(box), List.of(), 0.2)).isEqualTo(Fit.NOWHERE);
        assertThat(Chords.of(List.of(box(0, 0, 10, 1e6)), 0.2)).isEmpty();
        assertThat(Chords.holdsDisc(box, new Coordinate(0.1, 5), 0.2)).isFalse();
        assertThat(Chords.holdsDisc(box, new Coordinate(5, 5), 0.2)).isTrue();
        assertThat(Chords.holdsDisc(box, new Coordinate(15, 5), 0.2)).isFalse();
    }

    /** What 150 ribs over a bed of 200 mm would take, for each colour of each layer, is more than there is memory for. */
    @Test
    void of_a_wide_grille_nothing_is_told_and_what_is_told_of_an_area_is_counted() {
        List<MultiPolygon> grille =
                IntStream.range(0, 150).mapToObj(i -> box(1.3 * i, 0, 0.8, 200)).toList();
        assertThat(Chords.of(grille, 0.2)).isEmpty();
        Chords some = Chords.of(grille.subList(0, 3), 0.2).orElseThrow();
        // 4,000 lines, each with three chords of two ends.
        assertThat(some.size()).isBetween(27_900, 28_100);
    }
}
