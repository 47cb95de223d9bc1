package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Arrangement.Rule;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;

class ArrangementTest {
    private static MultiPolygon fill(List<Coordinate[]> loops, Rule rule) {
        return Arrangement.fill(loops, rule, new Effort(1_000_000, "Too many.", Progress.UNHEARD));
    }

    private static Coordinate[] loop(double... xy) {
        Coordinate[] corners = new Coordinate[xy.length / 2 + 1];
        for (int i = 0; i < xy.length; i += 2) {
            corners[i / 2] = new CoordinateXY(xy[i], xy[i + 1]);
        }
        corners[corners.length - 1] = corners[0];
        return corners;
    }

    private static Coordinate[] square(double x, double y, double side) {
        return loop(x, y, x + side, y, x + side, y + side, x, y + side);
    }

    @Test
    void a_star_of_five_lines_is_hollow_by_the_even_odd_rule_only() {
        Coordinate[] star = new Coordinate[6];
        for (int i = 0; i < 6; i++) {
            double a = Math.PI / 2 + 4 * Math.PI / 5 * (i % 5);
            star[i] = new CoordinateXY(Math.cos(a), Math.sin(a));
        }
        // The pentagon in its middle has circumradius φ⁻², so area 5/2 sin 72° φ⁻⁴; closed form.
        double phi = (1 + Math.sqrt(5)) / 2;
        double middle = 2.5 * Math.sin(Math.toRadians(72)) / Math.pow(phi, 4);
        double nonzero = fill(List.<Coordinate[]>of(star), Rule.NONZERO).getArea();
        double evenOdd = fill(List.<Coordinate[]>of(star), Rule.EVEN_ODD).getArea();

        assertThat(nonzero - evenOdd).isCloseTo(middle, within(1e-12));
        assertThat(fill(List.<Coordinate[]>of(star), Rule.TWICE).getArea()).isCloseTo(middle, within(1e-12));
    }

    @Test
    void loops_that_touch_at_a_corner_stay_apart_and_those_with_a_common_wall_become_one() {
        assertThat(fill(List.of(square(0, 0, 1), square(1, 1, 1)), Rule.POSITIVE)
                        .getNumGeometries())
                .isEqualTo(2);
        MultiPolygon one = fill(List.of(square(0, 0, 1), square(1, 0, 1)), Rule.POSITIVE);
        assertThat(one.getNumGeometries()).isOne();
        assertThat(one.getArea()).isEqualTo(2);
    }

    @Test
    void a_hole_belongs_to_the_island_it_is_in() {
        Coordinate[] hole = square(4, 4, 2);
        org.locationtech.jts.geom.CoordinateArrays.reverse(hole);
        Coordinate[] innerHole = loop(1, 1, 1, 9, 9, 9, 9, 1);
        MultiPolygon filled =
                fill(List.of(square(0, 0, 10), innerHole, square(3, 3, 4), hole, square(20, 0, 3)), Rule.POSITIVE);

        assertThat(filled.isValid()).isTrue();
        assertThat(filled.getNumGeometries()).isEqualTo(3);
        assertThat(filled.getArea()).isEqualTo(100 - 64 + 16 - 4 + 9);
    }

    @Test
    void a_thousand_equal_loops_are_one() {
        List<Coordinate[]> loops = new ArrayList<>();
        for (int i = 0; i < 1_000; i++) {
            loops.add(square(0, 0, 3));
        }
        assertThat(fill(loops, Rule.POSITIVE).getArea()).isEqualTo(9);
        assertThat(fill(loops, Rule.EVEN_ODD).isEmpty()).isTrue();
    }

    @Test
    void what_crosses_too_often_is_refused() {
        Random random = new Random(5);
        double[] xy = new double[400];
        for (int i = 0; i < xy.length; i++) {
            xy[i] = random.nextDouble();
        }
        assertThatThrownBy(() -> Arrangement.fill(
                        List.<Coordinate[]>of(loop(xy)), Rule.NONZERO, new Effort(100, "Too many.", Progress.UNHEARD)))
                .isInstanceOf(Refusal.class)
                .hasMessage("Too many.");
    }

    /** Corners on a coarse grid, so that lines often meet at corners and lie on one another. */
    private static List<Coordinate[]> randomLoops(Random random, int loops, double step) {
        List<Coordinate[]> all = new ArrayList<>();
        for (int i = 0; i < loops; i++) {
            double[] xy = new double[2 * (3 + random.nextInt(6))];
            for (int j = 0; j < xy.length; j++) {
                xy[j] = step == 0 ? 8 * random.nextDouble() : step * random.nextInt((int) (8 / step));
            }
            all.add(loop(xy));
        }
        return all;
    }

    /** How often loops wind round a point, by crossings of a ray: the definition. */
    private static int winding(List<Coordinate[]> loops, double px, double py) {
        int winding = 0;
        for (Coordinate[] loop : loops) {
            for (int i = 1; i < loop.length; i++) {
                Coordinate a = loop[i - 1];
                Coordinate b = loop[i];
                if (a.y > py != b.y > py && px < a.x + (b.x - a.x) * (py - a.y) / (b.y - a.y)) {
                    winding += b.y > a.y ? 1 : -1;
                }
            }
        }
        return winding;
    }

    @Property(tries = 400, seed = "41")
    void every_point_is_filled_as_its_winding_number_says(
            @ForAll @IntRange(max = 1_000_000) int seed, @ForAll @IntRange(min = 1, max = 5) int count) {
        Random random = new Random(seed);
        List<Coordinate[]> loops = randomLoops(random, count, new double[] {0, 1, 0.5}[seed % 3]);
        for (Rule rule : Rule.values()) {
            MultiPolygon filled = fill(loops, rule);
            assertThat(filled.isValid()).isTrue();
            for (int i = 0; i < 60; i++) {
                double x = 8 * random.nextDouble();
                double y = 8 * random.nextDouble();
                boolean inside = SimplePointInAreaLocator.locate(new CoordinateXY(x, y), filled) == Location.INTERIOR;
                assertThat(inside).as("%s at %s, %s", rule, x, y).isEqualTo(rule.solid(winding(loops, x, y)));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        OverlayNG.UNION + ", POSITIVE",
        OverlayNG.INTERSECTION + ", TWICE",
        OverlayNG.DIFFERENCE + ", POSITIVE",
        OverlayNG.SYMDIFFERENCE + ", EVEN_ODD"
    })
    void areas_by_winding_numbers_are_those_of_jts(int operation, Rule rule) {
        for (int seed = 0; seed < 40; seed++) {
            Random random = new Random(seed);
            MultiPolygon a = fill(randomLoops(random, 3, 0), Rule.NONZERO);
            MultiPolygon b = fill(randomLoops(random, 3, 0), Rule.EVEN_ODD);
            List<Coordinate[]> rings = new ArrayList<>();
            Arrangement.addRings(rings, a, true);
            Arrangement.addRings(rings, b, operation != OverlayNG.DIFFERENCE);

            assertThat(fill(rings, rule).getArea())
                    .isCloseTo(OverlayNGRobust.overlay(a, b, operation).getArea(), within(1e-9));
        }
    }
}
