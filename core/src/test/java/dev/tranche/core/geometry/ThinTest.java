package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import org.locationtech.jts.util.GeometricShapeFactory;

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

    @Test
    void pieces_are_looked_at_one_by_one_and_no_more_of_them_than_are_asked_for() {
        MultiPolygon fence = Areas.union(
                IntStream.range(0, 9).mapToObj(i -> box(2 * i, 0, 0.3, 5)).toList());
        MultiPolygon shape = Areas.union(List.of(fence, box(-20, 0, 10, 5), box(-10, 2, 4, 0.2)));
        assertThat(Thin.of(shape, 0.45)).hasSize(10).extracting(Thin::width).allMatch(w -> w < 0.31);
        assertThat(Thin.of(shape, 0.45, 3)).isEqualTo(Thin.of(shape, 0.45).subList(0, 3));
        assertThat(Thin.of(shape, 0.25)).hasSize(1);
    }

    /** The reference is JTS, to which each piece is given as it is: drawn in, and let out again. */
    @Test
    void large_pieces_in_parts_and_plates_of_holes_lose_what_they_lose_whole() {
        Random random = new Random(8);
        int found = 0;
        for (int i = 0; i < 50; i++) {
            MultiPolygon area = i % 2 == 0
                    ? Areas.union(
                            IntStream.range(0, 4).mapToObj(n -> sieve(random)).toList())
                    : plateOfHoles(random);
            double width = 0.1 + random.nextDouble();
            List<Polygon> lost = lost(area, width);
            for (int atOnce : new int[] {25, Integer.MAX_VALUE}) {
                List<Thin> thin = Thin.of(area, width, Integer.MAX_VALUE, atOnce);
                assertThat(thin).as("%s in %s", width, area).hasSameSizeAs(lost);
                assertThat(thin).as("%s in %s", width, area).allSatisfy(stretch -> assertThat(lost)
                        .anySatisfy(
                                l -> assertThat(l.symDifference(stretch.area()).getArea())
                                        .isLessThan(1e-3)));
            }
            found += lost.size();
        }
        assertThat(found).isGreaterThan(80);
    }

    @Test
    void of_a_large_grille_no_more_is_found_than_is_asked_for_and_that_is_too_thin() {
        MultiPolygon grille = box(0, -5, 31, 26);
        // A long thin wall between two slots goes through several parts, none of which has all of it.
        grille = Areas.difference(grille, Areas.union(List.of(box(1, -4, 29, 1.5), box(1, -2.2, 29, 1.5))));
        for (int i = 0; i < 40; i++) {
            grille = Areas.difference(grille, box(1 + 3.6 * (i % 8), 1 + 3.8 * (i / 8), 3.2, 3.4));
        }
        List<Polygon> lost = lost(grille, 0.45);
        assertThat(lost).hasSizeGreaterThan(20);
        for (int most = 1; most <= 20; most += 3) {
            assertThat(Thin.of(grille, 0.45, most, 25)).hasSize(most).allSatisfy(stretch -> assertThat(lost)
                    .anySatisfy(l -> assertThat(l.symDifference(stretch.area()).getArea())
                            .isLessThan(1e-3)));
        }
    }

    private static List<Polygon> lost(MultiPolygon area, double width) {
        double half = width / 2 * 0.999;
        BufferParameters mitred = new BufferParameters(8, BufferParameters.CAP_ROUND, BufferParameters.JOIN_MITRE, 5);
        return Areas.polygons(area)
                .flatMap(piece -> Areas.polygons(
                        Areas.of(piece.difference(BufferOp.bufferOp(piece.buffer(-half), half * 1.002, mitred)))))
                .filter(stretch -> stretch.getArea() > 0.05)
                .toList();
    }

    /** Round, square, three-cornered and bent holes, here and there too near to each other or to the rim. */
    private static MultiPolygon plateOfHoles(Random random) {
        MultiPolygon plate = box(0, 0, 20, 12);
        for (int i = 0; i < 9; i++) {
            double x = 2.5 + 7 * (i % 3) + random.nextDouble();
            double y = 1.5 + 4 * (i / 3) + random.nextDouble();
            double size = 0.5 + 1.3 * random.nextDouble();
            GeometricShapeFactory shape = new GeometricShapeFactory();
            shape.setCentre(new Coordinate(x, y));
            shape.setSize(2 * size);
            shape.setNumPoints(3 + random.nextInt(20));
            shape.setRotation(random.nextDouble());
            MultiPolygon hole = Areas.of(random.nextInt(4) == 0 ? shape.createRectangle() : shape.createCircle());
            plate = Areas.difference(plate, hole);
            if (random.nextInt(4) == 0) {
                plate = Areas.difference(plate, box(x, y, 1.2 * size, 1.9 * size));
            }
        }
        return plate;
    }

    /** The reference is JTS: what is left when the area is drawn in by half a line. */
    @Test
    void a_line_fits_where_something_is_left_when_the_area_is_drawn_in() {
        Random random = new Random(5);
        int fits = 0;
        for (int i = 0; i < 400; i++) {
            MultiPolygon area = sieve(random);
            for (int p = 0; p < area.getNumGeometries(); p++) {
                Polygon piece = (Polygon) area.getGeometryN(p);
                double width = 0.1 + random.nextDouble() * 2;
                boolean left = !piece.buffer(-width / 2).isEmpty();
                assertThat(Thin.holdsLine(piece, width))
                        .as("%s in %s", width, piece)
                        .isEqualTo(left);
                fits += left ? 1 : 0;
            }
        }
        assertThat(fits).isBetween(100, 10_000);
    }

    /** A slab with strips put on and holes punched in. */
    private static MultiPolygon sieve(Random random) {
        MultiPolygon area = box(0, 0, 1 + random.nextInt(12), 1 + random.nextInt(12));
        for (int i = 0; i < 3; i++) {
            area = Areas.union(List.of(area, some(random)));
        }
        for (int i = 0; i < 8; i++) {
            area = Areas.difference(area, some(random));
        }
        return area;
    }

    private static MultiPolygon some(Random random) {
        return box(
                random.nextDouble() * 10,
                random.nextDouble() * 10,
                0.2 + random.nextDouble() * 4,
                0.2 + random.nextDouble());
    }
}
