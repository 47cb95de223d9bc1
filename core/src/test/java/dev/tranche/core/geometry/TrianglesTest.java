package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** Plates with holes, cut into triangles. */
class TrianglesTest {
    private static final GeometryFactory PLANE = new GeometryFactory();

    /** Square holes of 0.88 mm, 1.6 mm apart. */
    private static Polygon grille(int across, double turned) {
        List<Polygon> holes = new ArrayList<>();
        for (int i = 0; i < across * across; i++) {
            double x = 1 + 1.6 * (i % across);
            double y = 1 + 1.6 * (i / across);
            holes.add((Polygon) PLANE.toGeometry(new Envelope(x, x + 0.88, y, y + 0.88)));
        }
        Geometry plate = PLANE.toGeometry(new Envelope(0, 2 + 1.6 * across, 0, 2 + 1.6 * across));
        Geometry left = plate.difference(PLANE.createMultiPolygon(holes.toArray(Polygon[]::new)));
        return (Polygon) AffineTransformation.rotationInstance(turned).transform(left);
    }

    private static double signed(Coordinate a, Coordinate b, Coordinate c) {
        return ((b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y)) / 2;
    }

    private static double size(Coordinate[] corners) {
        double size = 0;
        for (int i = 0; i < corners.length; i += 3) {
            double one = signed(corners[i], corners[i + 1], corners[i + 2]);
            assertThat(one).as("counter-clockwise, but for rounding").isGreaterThan(-1e-9);
            size += one;
        }
        return size;
    }

    /** A polygon of n corners and h holes has n + 2h − 2 triangles. Source: O'Rourke, "Art Gallery Theorems and Algorithms" (1987), lemma 5.1. */
    @Property(tries = 40)
    void there_are_as_many_as_the_theorem_says_and_together_they_are_the_plate(
            @ForAll @IntRange(min = 1, max = 14) int across, @ForAll @IntRange(max = 89) int degrees) {
        Polygon plate = grille(across, Math.toRadians(degrees));
        Coordinate[] corners = Triangles.of(plate);
        assertThat(corners.length / 3).isEqualTo(plate.getNumPoints() - 1 - across * across + 2 * across * across - 2);
        assertThat(size(corners)).isCloseTo(plate.getArea(), within(1e-7));
        assertThat(new HashSet<>(List.of(plate.getCoordinates())))
                .as("no other corners")
                .containsAll(List.of(corners));
    }

    /** Ears would be cut off for minutes. */
    @Test
    void a_sieve_of_thousands_of_holes_is_a_closed_solid() {
        Polygon plate = grille(100, 0.3);
        List<Mesh> solids = Prism.of(
                PLANE.createMultiPolygon(new Polygon[] {plate}), Height.ofMillimetres(1), Height.ofMillimetres(3));
        assertThat(solids).singleElement().satisfies(solid -> {
            assertThat(Topology.of(solid).closed()).isTrue();
            assertThat(solid.volume()).isCloseTo(2 * plate.getArea(), within(1.0));
        });
    }

    @Test
    void holes_that_touch_each_other_and_the_rim_in_points_stay_holes() {
        List<Polygon> diamonds = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            double x = 2 * i + 1;
            diamonds.add(PLANE.createPolygon(new Coordinate[] {
                new Coordinate(x - 1, 5),
                new Coordinate(x, 6),
                new Coordinate(x + 1, 5),
                new Coordinate(x, 4),
                new Coordinate(x - 1, 5)
            }));
        }
        Geometry plate = PLANE.toGeometry(new Envelope(-3, 63, 4, 20));
        MultiPolygon left = Areas.of(plate.difference(
                PLANE.createMultiPolygon(diamonds.toArray(Polygon[]::new)).buffer(0)));
        double size =
                Areas.polygons(left).mapToDouble(p -> size(Triangles.of(p))).sum();
        assertThat(size).isCloseTo(plate.getArea() - 30 * 2, within(1e-7));
    }
}
