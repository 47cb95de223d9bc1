package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.distance.DistanceOp;

/** A line through areas, against the general geometry library's intersection of the two. */
class CrossedTest {
    private static final GeometryFactory PLANE = new GeometryFactory();

    /** A star of up to a hundred rays, with a hole of its shape where the rays begin. */
    private static MultiPolygon star(Random random, double x, double y) {
        int corners = 6 + 2 * random.nextInt(100);
        double turn = random.nextDouble();
        List<Coordinate> outer = new ArrayList<>();
        List<Coordinate> inner = new ArrayList<>();
        for (int i = 0; i < corners; i++) {
            double angle = turn + 2 * Math.PI * i / corners;
            double r = i % 2 == 0 ? 10 : 4 + 5 * random.nextDouble();
            outer.add(new Coordinate(x + r * Math.cos(angle), y + r * Math.sin(angle)));
            inner.add(new Coordinate(x + 3 * Math.cos(angle), y + 3 * Math.sin(angle)));
        }
        outer.add(outer.get(0));
        inner.add(inner.get(0));
        return Section.polygonsOf(PLANE.createPolygon(
                PLANE.createLinearRing(outer.toArray(Coordinate[]::new)),
                new LinearRing[] {PLANE.createLinearRing(inner.toArray(Coordinate[]::new))}));
    }

    @Property(tries = 500)
    void a_stretch_of_a_line_is_inside_as_long_as_the_geometry_library_says(@ForAll long seed) {
        Random random = new Random(seed);
        List<MultiPolygon> areas = List.of(star(random, 0, 0), star(random, 25, 3));
        Course course = Course.between(
                new Coordinate(40 * random.nextDouble() - 10, 30 * random.nextDouble() - 15),
                new Coordinate(40 * random.nextDouble() - 10, 30 * random.nextDouble() - 15));
        double from = random.nextDouble();
        double to = from + 0.01 + random.nextDouble();
        List<Span> spans =
                Stretches.of(course, from, to).through(new Crossed(areas)).spans();
        Geometry line = PLANE.createLineString(new Coordinate[] {course.at(from), course.at(to)});
        double inside = areas.stream()
                .mapToDouble(a -> a.intersection(line).getLength())
                .sum();
        assertThat(spans.stream().mapToDouble(Span::length).sum() * course.length())
                .isCloseTo(inside, within(1e-6));
        for (int i = 0; i < spans.size(); i++) {
            assertThat(spans.get(i).from())
                    .isGreaterThanOrEqualTo(i == 0 ? from : spans.get(i - 1).to());
            assertThat(spans.get(i).to()).isLessThanOrEqualTo(to);
        }
    }

    /** Lines through corners and along edges among them. */
    @Property(tries = 200)
    void many_level_lines_at_once_run_through_plastic_as_each_alone(@ForAll long seed) {
        Random random = new Random(seed);
        MultiPolygon area = Areas.union(List.of(star(random, 0, 0), star(random, 25, 3)));
        double corner = area.getCoordinates()[random.nextInt(area.getNumPoints())].y;
        double[] levels = DoubleStream.concat(DoubleStream.of(corner), random.doubles(15, -12, 14))
                .sorted()
                .toArray();
        Section section = Section.of(area, List.of());
        assertThat(section.spansAt(levels))
                .isEqualTo(DoubleStream.of(levels).mapToObj(section::spansAt).toList());
    }

    @Property(tries = 500)
    void the_nearest_place_is_as_far_as_the_geometry_library_says(@ForAll long seed) {
        Random random = new Random(seed);
        List<MultiPolygon> areas = List.of(star(random, 0, 0), Areas.NOTHING, star(random, 25, 3));
        Coordinate to = new Coordinate(60 * random.nextDouble() - 20, 40 * random.nextDouble() - 20);
        Coordinate nearest = new Crossed(areas).nearest(to).orElseThrow();
        Geometry point = PLANE.createPoint(to);
        assertThat(nearest.distance(to))
                .isCloseTo(
                        areas.stream()
                                .filter(a -> !a.isEmpty())
                                .mapToDouble(a -> DistanceOp.distance(a, point))
                                .min()
                                .orElseThrow(),
                        within(1e-9));
        assertThat(areas).anyMatch(a -> DistanceOp.isWithinDistance(a, PLANE.createPoint(nearest), 1e-9));
        assertThat(new Crossed(List.of(Areas.NOTHING)).nearest(to)).isEmpty();
        assertThat(areas).allSatisfy(a -> assertThat(Areas.perimeter(a)).isCloseTo(a.getLength(), within(1e-9)));
    }

    /** JTS gives a copy whatever the original has. */
    @Test
    void an_area_that_was_moved_after_it_was_crossed_is_where_it_is() {
        MultiPolygon area = star(new Random(1), 0, 0);
        Coordinate outside = new Coordinate(100, 0);
        assertThat(new Crossed(List.of(area)).nearest(outside).orElseThrow().x).isLessThan(11);
        MultiPolygon moved =
                Areas.of(AffineTransformation.translationInstance(100, 0).transform(area));
        MultiPolygon far =
                (MultiPolygon) AffineTransformation.translationInstance(200, 0).transform(area);
        assertThat(new Crossed(List.of(moved)).nearest(outside).orElseThrow().x).isBetween(90.0, 110.0);
        assertThat(new Crossed(List.of(far)).nearest(outside).orElseThrow().x).isBetween(190.0, 200.0);
    }
}
