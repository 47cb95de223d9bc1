package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Progress;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** Corners that are meant to be one and differ by the last digit of a float are in most files that programs have reckoned. */
class SeamsTest {
    private static final Mesh BALL = new Shapes().sphere(10, 12, 24).mesh();

    /** A mesh whose corners have been changed one by one. */
    private static Mesh changed(Mesh mesh, UnaryOperator<float[]> change) {
        int corners = 3 * mesh.triangles();
        float[] x = new float[corners];
        float[] y = new float[corners];
        int[] z = new int[corners];
        for (int c = 0; c < corners; c++) {
            float[] place = change.apply(new float[] {(float) mesh.x(c), (float) mesh.y(c), mesh.z(c)});
            x[c] = place[0];
            y[c] = place[1];
            z[c] = (int) place[2];
        }
        return Mesh.of(x, y, z);
    }

    private static List<Repair> read(Mesh mesh) {
        return Shells.split(mesh, new int[mesh.triangles()], new int[1], Progress.UNHEARD).stream()
                .map(s -> Repair.of(s, Progress.UNHEARD))
                .toList();
    }

    private static void isTheBall(List<Repair> read) {
        assertThat(read).hasSize(1);
        assertThat(read.get(0).report().found().closed()).isTrue();
        assertThat(read.get(0).report().done()).isFalse();
        assertThat(read.get(0).mesh().volume()).isCloseTo(BALL.volume(), within(0.1));
        assertThat(read.get(0).mesh().height()).isEqualTo(BALL.height());
    }

    @Test
    void corners_that_differ_by_a_float_or_a_micrometre_are_one() {
        Random random = new Random(3);
        isTheBall(read(changed(BALL, p -> new float[] {
            random.nextBoolean() ? Math.nextUp(p[0]) : p[0],
            random.nextBoolean() ? Math.nextDown(p[1]) : p[1],
            p[2] > 0 && random.nextInt(4) == 0 ? p[2] + 1 : p[2]
        })));
    }

    /** The sine of a whole turn is −2.4 ⋅ 10⁻¹⁶ (IEEE 754), so that scripts write two corners where they mean one. */
    @Test
    void a_seam_where_a_turn_ends_a_hair_from_where_it_began_is_none() {
        int[] at = {0};
        isTheBall(
                read(changed(BALL, p -> new float[] {
                    p[0], p[1] == 0 && at[0]++ % 2 == 0 ? (float) (p[0] * Math.sin(2 * Math.PI)) : p[1], p[2]
                })));
    }

    @Test
    void what_gapes_by_more_than_can_be_meant_stays_open_and_what_is_sound_stays_as_fine_as_it_is() {
        Mesh gaping = changed(BALL, p -> p);
        int[] at = {0};
        Mesh open = changed(gaping, p -> new float[] {at[0]++ < 3 ? p[0] + 0.01f : p[0], p[1], p[2]});
        assertThat(read(open).stream()
                        .mapToInt(r -> r.report().found().openEdges())
                        .sum())
                .isPositive();
        Mesh fine = new Shapes().box(0, 0, 0, 0.001, 20, 5).mesh();
        assertThat(read(fine).get(0).mesh().volume()).isCloseTo(0.1, within(1e-3));
    }
}
