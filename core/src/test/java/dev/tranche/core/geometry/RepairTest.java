package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class RepairTest {
    /** The mesh with its triangles passed through a change: kept, turned, or left out. */
    private static Mesh changed(Mesh mesh, java.util.function.IntUnaryOperator whatToDo) {
        int corners = 3 * mesh.triangles();
        float[] x = new float[corners];
        float[] y = new float[corners];
        int[] z = new int[corners];
        int n = 0;
        for (int t = 0; t < mesh.triangles(); t++) {
            int what = whatToDo.applyAsInt(t);
            if (what < 0) {
                continue;
            }
            for (int k = 0; k < 3; k++) {
                int from = 3 * t + (what == 1 ? (3 - k) % 3 : k);
                x[n] = (float) mesh.x(from);
                y[n] = (float) mesh.y(from);
                z[n] = mesh.z(from);
                n++;
            }
        }
        return Mesh.of(java.util.Arrays.copyOf(x, n), java.util.Arrays.copyOf(y, n), java.util.Arrays.copyOf(z, n));
    }

    private static Mesh ball() {
        return new Shapes().sphere(10, 24, 48).mesh();
    }

    @Test
    void a_sound_mesh_is_left_as_it_is() {
        Mesh ball = ball();
        assertThat(Repair.of(ball).mesh()).isSameAs(ball);
        assertThat(Repair.of(ball).report().done()).isFalse();
    }

    @Test
    void triangles_facing_against_their_neighbours_are_turned() {
        Mesh ball = ball();
        Mesh mixed = changed(ball, t -> t % 7 == 0 ? 1 : 0);
        Repair repair = Repair.of(mixed);
        assertThat(repair.report().turned()).isEqualTo((ball.triangles() + 6) / 7);
        assertThat(repair.mesh().volume()).isCloseTo(ball.volume(), within(1e-3));
        assertThat(Topology.of(repair.mesh()).closed()).isTrue();
    }

    @Test
    void a_model_that_is_inside_out_is_turned_but_a_cavity_is_not() {
        Mesh out = changed(ball(), t -> 1);
        assertThat(Repair.of(out).report().insideOut()).isTrue();
        assertThat(Repair.of(out).mesh().volume()).isCloseTo(ball().volume(), within(1e-3));
        Mesh hollow = new Shapes()
                .box(0, 0, 0, 20, 20, 20)
                .cavity(5, 5, 5, 10, 10, 10)
                .mesh();
        assertThat(Repair.of(hollow).mesh()).isSameAs(hollow);
        assertThat(hollow.volume()).isCloseTo(7000, within(1e-6));
    }

    @Test
    void small_holes_are_closed_and_large_ones_left() {
        Mesh ball = ball();
        Mesh pierced = changed(ball, t -> t == 700 || t == 701 || t == 1200 ? -1 : 0);
        Repair repair = Repair.of(pierced);
        assertThat(repair.report().closed()).isEqualTo(2);
        assertThat(repair.report().left()).isZero();
        assertThat(Topology.of(repair.mesh()).closed()).isTrue();
        assertThat(repair.mesh().volume()).isCloseTo(ball.volume(), within(ball.volume() * 1e-3));
        // Half the ball away: a rim of 48 edges, 20 mm wide.
        Mesh bowl = changed(ball, t -> t < ball.triangles() / 2 ? 0 : -1);
        Repair left = Repair.of(bowl);
        assertThat(left.report().closed()).isZero();
        assertThat(left.report().left()).isGreaterThan(40);
    }

    @Test
    void triangles_without_area_go() {
        float[] x = new float[3 * 13];
        Mesh box = new Shapes().box(0, 0, 0, 10, 10, 10).mesh();
        float[] y = new float[x.length];
        int[] z = new int[x.length];
        for (int c = 0; c < 36; c++) {
            x[c] = (float) box.x(c);
            y[c] = (float) box.y(c);
            z[c] = box.z(c);
        }
        x[36] = 10;
        Repair repair = Repair.of(Mesh.of(x, y, z));
        assertThat(repair.report().dropped()).isEqualTo(1);
        assertThat(repair.mesh().triangles()).isEqualTo(12);
        assertThat(repair.mesh().volume()).isCloseTo(1000, within(1e-6));
    }

    @Property(tries = 50)
    void whatever_is_turned_and_left_out_here_and_there_the_volume_comes_back(@ForAll long seed) {
        Random random = new Random(seed);
        Mesh ball = ball();
        Mesh broken = changed(ball, t -> random.nextInt(40) == 0 ? 1 : random.nextInt(200) == 0 && t > 100 ? -1 : 0);
        Repair repair = Repair.of(broken);
        if (repair.report().left() == 0) {
            assertThat(repair.mesh().volume()).isCloseTo(ball.volume(), within(ball.volume() * 0.02));
        }
        assertThat(Topology.of(repair.mesh()).againstEachOther()).isZero();
    }
}
