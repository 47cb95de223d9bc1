package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class TopologyTest {
    @Test
    void a_box_is_one_closed_solid_with_the_area_of_its_six_sides() {
        Topology box = Topology.of(new Shapes().box(0, 0, 0, 30, 20, 10).mesh());
        assertThat(box).isEqualTo(new Topology(1, 0, 0, 0, 0, 2 * (600 + 300 + 200)));
        assertThat(box.closed()).isTrue();
    }

    @Test
    void a_ball_has_the_area_of_a_sphere() {
        Topology ball = Topology.of(new Shapes().sphere(10, 200, 400).mesh());
        assertThat(ball.solids()).isEqualTo(1);
        assertThat(ball.closed()).isTrue();
        // 4 π r², by closed form.
        assertThat(ball.area()).isCloseTo(4 * Math.PI * 100, within(0.5));
        // Euler: a closed surface without handles has V − E + F = 2; every edge was met from both sides.
        assertThat(ball.openEdges()).isZero();
    }

    @Test
    void solids_that_do_not_touch_are_counted_apart() {
        assertThat(Topology.of(new Shapes()
                                .box(0, 0, 0, 10, 10, 10)
                                .box(20, 0, 0, 10, 10, 10)
                                .box(40, 0, 5, 10, 10, 10)
                                .mesh())
                        .solids())
                .isEqualTo(3);
    }

    @Test
    void a_missing_triangle_leaves_three_open_edges() {
        Topology open = Topology.of(
                new Shapes().box(0, 0, 0, 20, 20, 3).dropLastTriangle().mesh());
        assertThat(open.openEdges()).isEqualTo(3);
        assertThat(open.closed()).isFalse();
    }

    @Test
    void a_triangle_turned_round_is_against_its_neighbours() {
        Mesh box = new Shapes().box(0, 0, 0, 20, 20, 3).mesh();
        int corners = 3 * box.triangles();
        float[] x = new float[corners];
        float[] y = new float[corners];
        int[] z = new int[corners];
        for (int c = 0; c < corners; c++) {
            int from = c == 1 ? 2 : c == 2 ? 1 : c;
            x[c] = (float) box.x(from);
            y[c] = (float) box.y(from);
            z[c] = box.z(from);
        }
        assertThat(Topology.of(Mesh.of(x, y, z)).againstEachOther()).isEqualTo(3);
    }

    @Test
    void triangles_without_area_are_counted_and_left_out() {
        float[] x = {0, 10, 0, 0, 0, 10};
        float[] y = {0, 0, 10, 0, 0, 0};
        int[] z = {0, 0, 5000, 0, 0, 0};
        Topology two = Topology.of(Mesh.of(x, y, z));
        assertThat(two.degenerate()).isEqualTo(1);
        assertThat(two.openEdges()).isEqualTo(3);
    }
}
