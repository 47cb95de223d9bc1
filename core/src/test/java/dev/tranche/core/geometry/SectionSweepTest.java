package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Progress;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class SectionSweepTest {
    private static Section cut(Mesh mesh, double height) {
        return SectionSweep.cut(mesh, new int[] {(int) Math.round(height * 2000)}, Progress.UNHEARD)
                .get(0);
    }

    @Test
    void a_box_cut_anywhere_has_the_area_of_its_base() {
        Mesh box = new Shapes().box(0, 0, 0, 20, 10, 3).mesh();
        assertThat(cut(box, 1.5).area()).isCloseTo(200, within(1e-9));
        assertThat(cut(box, 1.5).perimeter()).isCloseTo(60, within(1e-9));
        assertThat(box.volume()).isCloseTo(600, within(1e-6));
    }

    @Test
    void a_plane_in_a_top_face_gives_the_section_just_below_it() {
        Mesh step = new Shapes().box(0, 0, 0, 20, 10, 3).box(5, 2, 3, 4, 4, 2).mesh();
        assertThat(cut(step, 3).area()).isCloseTo(200, within(1e-9));
        assertThat(cut(step, 3.0005).area()).isCloseTo(16, within(1e-9));
        assertThat(cut(step, 5).area()).isCloseTo(16, within(1e-9));
    }

    @Test
    void layers_of_walls_that_go_straight_up_are_one_and_so_are_those_of_several_parts_together() {
        int[] planes = {200, 600, 1000, 1400, 1800};
        List<Section> bar = SectionSweep.cut(
                new Shapes().box(0, 0, 0, 20, 2, 0.6).box(0, 0, 0.6, 10, 2, 0.4).mesh(), planes, Progress.UNHEARD);
        List<Section> across =
                SectionSweep.cut(new Shapes().box(4, -5, 0, 2, 12, 1).mesh(), planes, Progress.UNHEARD);
        List<Section> together = Section.unions(List.of(bar, across), planes.length, Progress.UNHEARD);

        for (List<Section> sections : List.of(bar, together)) {
            assertThat(sections.get(1)).isSameAs(sections.get(0));
            assertThat(sections.get(2)).isSameAs(sections.get(1));
            assertThat(sections.get(3).area()).isLessThan(sections.get(2).area());
            assertThat(sections.get(4)).isSameAs(sections.get(3));
        }
        assertThat(together.get(0).area()).isCloseTo(40 + 24 - 4, within(1e-9));
    }

    @Test
    void a_plane_in_an_underside_gives_the_section_just_below_it() {
        Mesh shelf =
                new Shapes().box(0, 0, 0, 2, 2, 3).box(-5, -5, 3, 12, 12, 1).mesh();
        assertThat(cut(shelf, 3).area()).isCloseTo(4, within(1e-9));
        assertThat(cut(shelf, 3.0005).area()).isCloseTo(144, within(1e-9));
    }

    @Test
    void corners_and_edges_in_the_plane_leave_no_gap() {
        // A ridge roof and a pyramid whose corners lie in the plane.
        Mesh sphere = new Shapes().sphere(10, 8, 12).mesh();
        for (int ring = 1; ring < 8; ring++) {
            double z = 10 - 10 * Math.cos(Math.PI * ring / 8);
            Section section = cut(sphere, Math.rint(z * 1000) / 1000);
            double r = 10 * Math.sin(Math.PI * ring / 8);
            double polygon = 6 * r * r * Math.sin(2 * Math.PI / 12);
            assertThat(section.openEnds()).isZero();
            assertThat(section.area()).isCloseTo(polygon, within(0.01 * polygon + 0.01));
        }
    }

    @Test
    void a_cavity_is_a_hole() {
        Mesh hollow = new Shapes()
                .box(0, 0, 0, 20, 20, 20)
                .cavity(5, 5, 5, 10, 10, 10)
                .mesh();
        assertThat(cut(hollow, 10).area()).isCloseTo(300, within(1e-9));
        assertThat(cut(hollow, 2).area()).isCloseTo(400, within(1e-9));
    }

    @Test
    void solids_that_overlap_are_joined() {
        Mesh cross = new Shapes().box(0, 4, 0, 10, 2, 4).box(4, 0, 0, 2, 10, 4).mesh();
        assertThat(cut(cross, 2).area()).isCloseTo(36, within(1e-9));
        Mesh within = new Shapes().box(0, 0, 0, 10, 10, 4).box(2, 2, 0, 3, 3, 4).mesh();
        assertThat(cut(within, 2).area()).isCloseTo(100, within(1e-9));
    }

    @Test
    void a_mesh_that_is_inside_out_is_cut_like_one_that_is_not() {
        Mesh wrong = new Shapes().cavity(0, 0, 0, 20, 10, 3).mesh();
        assertThat(cut(wrong, 1).area()).isCloseTo(200, within(1e-9));
    }

    @Test
    void a_missing_facet_is_bridged_and_counted() {
        Mesh open = new Shapes().box(0, 0, 0, 20, 10, 3).dropLastTriangle().mesh();
        Section section = cut(open, 1.5);
        assertThat(section.openEnds()).isEqualTo(1);
        assertThat(section.area()).isCloseTo(200, within(1e-9));
    }

    @Test
    void above_and_below_the_model_nothing_is_solid() {
        Mesh box = new Shapes().box(0, 0, 0, 20, 10, 3).mesh();
        assertThat(cut(box, 3.001).outline().isEmpty()).isTrue();
        // One for all: of thousands of solids most reach few layers.
        assertThat(cut(box, 3.001)).isSameAs(Section.EMPTY);
    }

    @Property(tries = 50)
    void a_cone_has_circles_for_sections(@ForAll @DoubleRange(min = 0.1, max = 19.9) double height) {
        // Closed form: a regular polygon of 360 corners at radius r (H − z)/H.
        Mesh cone = new Shapes().cone(10, 20, 360).mesh();
        double z = Math.rint(height * 2000) / 2000;
        double r = 10 * (20 - z) / 20;
        assertThat(cut(cone, z).area()).isCloseTo(180 * r * r * Math.sin(2 * Math.PI / 360), within(0.002));
    }

    @Test
    void the_sections_of_a_sphere_add_up_to_its_volume() {
        // Divergence theorem against the sum of thin sections.
        Mesh sphere = new Shapes().sphere(10, 120, 240).mesh();
        int[] planes = IntStream.range(0, 1000).map(i -> 20 + 40 * i).toArray();
        List<Section> sections = SectionSweep.cut(sphere, planes, Progress.UNHEARD);
        double sum = sections.stream().mapToDouble(s -> s.area() * 0.02).sum();
        assertThat(sum).isCloseTo(sphere.volume(), within(0.0005 * sphere.volume()));
        assertThat(sphere.volume()).isCloseTo(4.0 / 3 * Math.PI * 1000, within(5.0));
        assertThat(sections).allMatch(s -> s.openEnds() == 0 && s.outline().isValid());
    }

    @Test
    void cutting_can_be_cancelled() {
        Mesh sphere = new Shapes().sphere(10, 40, 40).mesh();
        int[] planes = IntStream.range(1, 200).map(i -> 200 * i).toArray();
        assertThatThrownBy(() -> SectionSweep.cut(sphere, planes, (done, total) -> {
                    if (done > 3) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void a_line_through_a_section_finds_its_plastic() {
        Mesh hollow = new Shapes()
                .box(0, 0, 0, 20, 20, 20)
                .cavity(5, 5, 5, 10, 10, 10)
                .mesh();
        assertThat(cut(hollow, 10).spansAt(10)).containsExactly(new Span(0, 5), new Span(15, 20));
        assertThat(cut(hollow, 10).spansAt(2)).containsExactly(new Span(0, 20));
        assertThat(cut(hollow, 10).spansAt(21)).isEmpty();
    }

    /** Areas by manifold-3d 3.5.4, a general geometry library, of the same 2 304 triangles. */
    @Test
    void sections_of_a_torus_are_those_of_an_independent_library() {
        Mesh torus = new Shapes().torus(12, 5, 48, 24).mesh();
        double[][] known = {
            {0.9, 421.0201}, {2.35, 633.8054}, {5.001, 751.8111}, {7.7, 628.0390}, {9.3, 381.7986},
        };
        for (double[] at : known) {
            double area = SectionSweep.cut(torus, new int[] {(int) Math.round(at[0] * 2000)}, Progress.UNHEARD)
                    .get(0)
                    .area();
            assertThat(area).as("at " + at[0]).isCloseTo(at[1], within(1e-3));
        }
        assertThat(torus.volume()).isCloseTo(5837.8597, within(1e-2));
        // Closed form, of the round one: 2 π² R r².
        assertThat(new Shapes().torus(12, 5, 400, 200).mesh().volume())
                .isCloseTo(2 * Math.PI * Math.PI * 12 * 25, within(3.0));
    }
}
