package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

class LooseEndsTest {
    @Test
    void the_nearest_end_left_is_the_one_a_look_at_all_of_them_finds() {
        for (int seed = 0; seed < 50; seed++) {
            Random random = new Random(seed);
            int n = 1 + random.nextInt(80);
            // Whole numbers, so that many lie at one place.
            double[] x = random.ints(n, 0, 10).asDoubleStream().toArray();
            double[] y = random.ints(n, 0, 10).asDoubleStream().toArray();
            LooseEnds ends = new LooseEnds(x, y);
            boolean[] taken = new boolean[n];
            for (int step = 0; step < n; step++) {
                double px = 10 * random.nextDouble();
                double py = 10 * random.nextDouble();
                double within = 1 + 10 * random.nextDouble();
                double nearest = within;
                for (int i = 0; i < n; i++) {
                    nearest = taken[i] ? nearest : Math.min(nearest, Math.hypot(px - x[i], py - y[i]));
                }
                int found = ends.nearest(px, py, within);
                if (nearest == within) {
                    assertThat(found).isEqualTo(-1);
                    found = firstLeft(taken);
                } else {
                    assertThat(Math.hypot(px - x[found], py - y[found])).isEqualTo(nearest);
                    assertThat(taken[found]).isFalse();
                }
                ends.take(found);
                taken[found] = true;
            }
            assertThat(ends.nearest(5, 5, 100)).isEqualTo(-1);
        }
    }

    private static int firstLeft(boolean[] taken) {
        int at = 0;
        while (taken[at]) {
            at++;
        }
        return at;
    }
}
