package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.util.AffineTransformation;

class AffineTest {
    private static double[] rows(Random random) {
        return IntStream.range(0, 12).mapToDouble(i -> random.nextInt(9) - 4).toArray();
    }

    @Test
    void a_corner_is_a_row_that_multiplies_from_the_left() {
        Affine place = new Affine(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 20, 30);
        assertThat(place.x(1, 10, 100)).isEqualTo(1 + 40 + 700 + 10);
        assertThat(place.y(1, 10, 100)).isEqualTo(2 + 50 + 800 + 20);
        assertThat(place.z(1, 10, 100)).isEqualTo(3 + 60 + 900 + 30);
    }

    @Property(tries = 200)
    void what_comes_then_is_done_to_what_came_first(@ForAll Random random) {
        Affine first = new Affine(rows(random));
        Affine next = new Affine(rows(random));
        double x = first.x(1, 2, 3);
        double y = first.y(1, 2, 3);
        double z = first.z(1, 2, 3);
        Affine both = first.then(next);
        assertThat(both.x(1, 2, 3)).isCloseTo(next.x(x, y, z), within(1e-9));
        assertThat(both.y(1, 2, 3)).isCloseTo(next.y(x, y, z), within(1e-9));
        assertThat(both.z(1, 2, 3)).isCloseTo(next.z(x, y, z), within(1e-9));
    }

    /** The reference in the plane is the determinant of JTS; and of two places one is a mirror of the other's where just one is. */
    @Property(tries = 200)
    void a_mirror_of_a_mirror_is_none(@ForAll Random random) {
        double[] one = rows(random);
        double[] other = rows(random);
        double[] flat = {one[0], one[1], 0, one[3], one[4], 0, 0, 0, 1, 0, 0, 0};
        assertThat(new Affine(flat).mirrors())
                .isEqualTo(new AffineTransformation(one[0], one[3], 0, one[1], one[4], 0).getDeterminant() < 0);
        Affine both = new Affine(one).then(new Affine(other));
        double[] turned = {
            other[3], other[4], other[5], other[6], other[7], other[8], other[0], other[1], other[2], 0, 0, 0
        };
        assertThat(new Affine(turned).mirrors()).isEqualTo(new Affine(other).mirrors());
        if (both.mirrors()) {
            assertThat(new Affine(one).mirrors()).isNotEqualTo(new Affine(other).mirrors());
        }
    }
}
