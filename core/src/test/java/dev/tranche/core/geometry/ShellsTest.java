package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.assertj.core.util.DoubleComparator;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.math.Vector3D;

class ShellsTest {
    private static List<Mesh> split(Shapes shapes) {
        Mesh mesh = shapes.mesh();
        return Shells.split(mesh, new int[mesh.triangles()], new int[] {0}, Progress.UNHEARD).stream()
                .map(Shells.Shell::mesh)
                .toList();
    }

    @Test
    void two_solids_in_one_file_are_two_parts_where_they_stand() {
        List<Mesh> parts = split(new Shapes().box(0, 0, 0, 10, 10, 3).box(20, 0, 1, 4, 4, 6));
        assertThat(parts).hasSize(2);
        assertThat(parts.get(0).volume()).isCloseTo(300, within(1e-6));
        assertThat(parts.get(1).volume()).isCloseTo(96, within(1e-6));
        assertThat(parts.get(1).bottom()).isEqualTo(1000);
        assertThat(parts.get(1).height().millimetres()).isEqualTo(7);
    }

    @Test
    void a_model_of_one_solid_is_kept_as_it_is() {
        Mesh ball = new Shapes().sphere(10, 12, 24).mesh();
        assertThat(Shells.split(ball, new int[ball.triangles()], new int[] {0}, Progress.UNHEARD)
                        .get(0)
                        .mesh())
                .isSameAs(ball);
    }

    @Test
    void a_cavity_belongs_to_the_smallest_solid_round_it() {
        List<Mesh> parts = split(new Shapes()
                .box(0, 0, 0, 40, 40, 40)
                .cavity(2, 2, 2, 36, 36, 36)
                .box(10, 10, 10, 20, 20, 20)
                .cavity(15, 15, 15, 5, 5, 5));
        assertThat(parts).hasSize(2);
        assertThat(parts.get(0).volume()).isCloseTo(40 * 40 * 40 - 36 * 36 * 36, within(1e-3));
        assertThat(parts.get(1).volume()).isCloseTo(20 * 20 * 20 - 125, within(1e-3));
    }

    @Test
    void solids_that_share_a_face_or_an_edge_come_apart() {
        assertThat(split(new Shapes().box(0, 0, 0, 10, 10, 3).box(10, 10, 0, 5, 5, 3)))
                .as("along an upright edge")
                .hasSize(2);
        assertThat(split(new Shapes().box(0, 0, 0, 10, 10, 3).box(10, 0, 0, 10, 10, 3)))
                .as("face to face: the four edges they share each have four triangles")
                .extracting(Mesh::volume)
                .allSatisfy(v -> assertThat(v).isCloseTo(300, within(1e-6)))
                .hasSize(2);
        assertThat(split(new Shapes()
                        .box(0, 0, 0, 10, 10, 3)
                        .box(0, 0, 3, 10, 10, 3)
                        .box(0, 0, 6, 10, 10, 1)))
                .as("stacked")
                .extracting(m -> Math.round(m.volume()))
                .containsExactly(300L, 300L, 100L);
    }

    @Test
    void open_shells_stay_together_for_nobody_knows_what_they_enclose() {
        assertThat(split(new Shapes()
                        .box(0, 0, 0, 10, 10, 3)
                        .dropLastTriangle()
                        .box(20, 0, 0, 10, 10, 3)
                        .dropLastTriangle()))
                .hasSize(1);
    }

    @Test
    void what_would_fall_into_hundreds_of_pieces_is_left_whole() {
        Shapes dust = new Shapes();
        for (int i = 0; i < 300; i++) {
            dust.box(2 * (i % 20), 2 * (i / 20), 0, 1, 1, 1);
        }
        assertThat(split(dust)).hasSize(1);
    }

    @Test
    void a_label_in_hundreds_of_pieces_is_left_whole_beside_one_that_is_taken_apart() {
        Shapes shapes = new Shapes();
        for (int i = 0; i < 300; i++) {
            shapes.box(2 * (i % 20), 2 * (i / 20), 0, 1, 1, 1);
        }
        Mesh mesh = shapes.box(100, 0, 0, 5, 5, 5).box(110, 0, 0, 6, 5, 5).mesh();
        int[] labels = new int[mesh.triangles()];
        Arrays.fill(labels, 12 * 300, labels.length, 1);
        assertThat(Shells.split(mesh, labels, new int[] {0, 1}, Progress.UNHEARD))
                .extracting(s -> Math.round(s.mesh().volume()))
                .containsExactly(300L, 125L, 150L);
    }

    @Test
    void more_labels_than_there_may_be_parts_are_left_whole() {
        Shapes shapes = new Shapes();
        for (int i = 0; i < 300; i++) {
            shapes.box(2 * (i % 20), 2 * (i / 20), 0, 1, 1, 1);
        }
        Mesh mesh = shapes.mesh();
        int[] labels = IntStream.range(0, mesh.triangles()).map(t -> t / 12).toArray();
        assertThat(Shells.split(mesh, labels, IntStream.range(0, 300).toArray(), Progress.UNHEARD))
                .extracting(s -> Math.round(s.mesh().volume()))
                .containsExactly(300L);
    }

    @Test
    void labels_that_close_are_solids_and_labels_that_do_not_are_paint() {
        Mesh mesh =
                new Shapes().box(0, 0, 0, 10, 10, 10).box(20, 0, 0, 10, 10, 10).mesh();
        int[] labels = new int[24];
        // The second box is a label of its own; of the first, two sides are painted.
        Arrays.fill(labels, 12, 24, 1);
        Arrays.fill(labels, 0, 4, 2);
        List<Shells.Shell> shells = Shells.split(mesh, labels, new int[] {0, 0, 0}, Progress.UNHEARD);
        assertThat(shells).hasSize(2);
        assertThat(shells.get(0).label()).isZero();
        assertThat(shells.get(0).labels()).containsExactly(2, 2, 2, 2, 0, 0, 0, 0, 0, 0, 0, 0);
        assertThat(shells.get(1).label()).isEqualTo(1);
        assertThat(shells.get(1).labels()).isEmpty();
    }

    @Test
    void a_model_turned_inside_out_still_keeps_its_cavity() {
        List<Mesh> parts = split(new Shapes().cavity(0, 0, 0, 20, 20, 20).box(5, 5, 5, 5, 5, 5));
        assertThat(parts).hasSize(1);
        assertThat(Repair.of(parts.get(0)).mesh().volume()).isCloseTo(8000 - 125, within(1e-3));
    }

    @Test
    void files_are_put_together_by_their_own_origins() {
        Body base = new Shapes().box(0, 0, 5, 20, 20, 3).body();
        Body letters = new Shapes().box(5, 5, 7.6, 4, 4, 1).body();
        Body both = base.with(letters);
        assertThat(both.solids()).extracting(Mesh::bottom).containsExactly(0, 2600);
        assertThat(both.lifted()).isCloseTo(-5, within(1e-9));
        assertThat(both.height().millimetres()).isEqualTo(3.6);
        assertThat(letters.with(base).solids()).extracting(Mesh::bottom).containsExactly(2600, 0);
    }

    @Test
    void a_lift_holds_the_whole_model_above_the_bed() {
        Body tag = new Shapes().box(0, 0, 0, 20, 20, 3).box(2, 2, 3, 4, 4, 1).body();
        Body lifted = tag.placed(Placement.AS_IS.lifted(2.5));
        assertThat(lifted.solids().get(0).bottom()).isEqualTo(2500);
        assertThat(lifted.height().millimetres()).isEqualTo(6.5);
    }

    /** Tetrahedra that have an edge in common, as slices of a cake have; their volumes from elementary geometry. */
    @Property(tries = 300)
    void slices_round_an_edge_come_apart_wherever_it_points(
            @ForAll long seed, @ForAll @IntRange(min = 2, max = 6) int slices) {
        Random random = new Random(seed);
        Vector3D one = somewhere(random);
        Vector3D other = one.add(times(direction(random), 4));
        Vector3D axis = other.subtract(one).normalize();
        Vector3D across = cross(axis, direction(random)).normalize();
        Vector3D up = cross(axis, across);
        List<double[][]> triangles = new ArrayList<>();
        List<Double> volumes = new ArrayList<>();
        for (int i = 0; i < slices; i++) {
            double from = 2 * Math.PI * i / slices + 0.05;
            double to = from + (2 * Math.PI / slices - 0.1) * (0.5 + random.nextDouble() / 2);
            // Two of them would fill half a turn each, and a tetrahedron none.
            to = Math.min(to, from + 2.5);
            Vector3D a = one.add(times(across, 5 * Math.cos(from))).add(times(up, 5 * Math.sin(from)));
            Vector3D b = other.add(times(across, 3 * Math.cos(to))).add(times(up, 3 * Math.sin(to)));
            triangles.addAll(tetrahedron(one, other, a, b));
            volumes.add(4 * 5 * 3 * Math.sin(to - from) / 6);
        }

        assertThat(split(shuffled(triangles, random)).stream().map(Mesh::volume).sorted())
                .usingElementComparator(new DoubleComparator(0.01))
                .containsExactlyElementsOf(volumes.stream().sorted().toList());
    }

    @Property(tries = 100)
    void boxes_keep_their_cavities_wherever_they_stand_and_in_whatever_order(@ForAll long seed) {
        Random random = new Random(seed);
        Shapes shapes = new Shapes();
        List<Double> volumes = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            double x = 100 * random.nextInt(20) - 1000;
            double y = 200.0 * i - 600;
            shapes.box(x, y, 0, 40, 30, 20);
            double volume = 40 * 30 * 20;
            if (random.nextBoolean()) {
                shapes.cavity(x + 2, y + 2, 2, 30, 20, 10);
                volume -= 30 * 20 * 10;
                if (random.nextBoolean()) {
                    shapes.box(x + 4, y + 4, 4, 20, 10, 5);
                    volumes.add(20.0 * 10 * 5);
                }
            }
            volumes.add(volume);
        }
        Mesh mesh = shapes.mesh();
        List<double[][]> triangles = new ArrayList<>();
        for (int c = 0; c < 3 * mesh.triangles(); c += 3) {
            triangles.add(new double[][] {corner(mesh, c), corner(mesh, c + 1), corner(mesh, c + 2)});
        }

        assertThat(split(shuffled(triangles, random)).stream().map(Mesh::volume).sorted())
                .usingElementComparator(new DoubleComparator(0.01))
                .containsExactlyElementsOf(volumes.stream().sorted().toList());
    }

    private static double[] corner(Mesh mesh, int c) {
        return new double[] {mesh.x(c), mesh.y(c), mesh.z(c) / 1000.0};
    }

    private static Shapes shuffled(List<double[][]> triangles, Random random) {
        Collections.shuffle(triangles, random);
        Shapes shapes = new Shapes();
        triangles.forEach(t -> shapes.triangle(t[0], t[1], t[2]));
        return shapes;
    }

    private static Vector3D somewhere(Random random) {
        return new Vector3D(random.nextInt(40) - 20, random.nextInt(40) - 20, 20 + random.nextInt(20));
    }

    private static Vector3D direction(Random random) {
        return new Vector3D(random.nextGaussian(), random.nextGaussian(), random.nextGaussian()).normalize();
    }

    private static Vector3D times(Vector3D v, double factor) {
        return new Vector3D(factor * v.getX(), factor * v.getY(), factor * v.getZ());
    }

    private static Vector3D cross(Vector3D a, Vector3D b) {
        return new Vector3D(
                a.getY() * b.getZ() - a.getZ() * b.getY(),
                a.getZ() * b.getX() - a.getX() * b.getZ(),
                a.getX() * b.getY() - a.getY() * b.getX());
    }

    /** Its faces turn outwards where {@code a} to {@code b} turns about the edge as a screw goes in. */
    private static List<double[][]> tetrahedron(Vector3D one, Vector3D other, Vector3D a, Vector3D b) {
        return List.of(face(one, other, b), face(other, one, a), face(one, b, a), face(other, a, b));
    }

    private static double[][] face(Vector3D... corners) {
        return Arrays.stream(corners)
                .map(v -> new double[] {v.getX(), v.getY(), v.getZ()})
                .toArray(double[][]::new);
    }
}
