package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.function.DoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Colours that model files give the outside of their parts. */
class CoatTest {
    private static PartedModel read(byte[] bytes) throws IOException {
        return ModelReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD);
    }

    private static byte[] tinted(Mesh mesh, DoubleFunction<String> tint) {
        return PaintedObj.of(mesh, corner -> tint.apply(mesh.x(corner)));
    }

    private static Mesh bar() {
        return new Shapes().box(0, 0, 0, 30, 10, 10).mesh();
    }

    private static List<String> colours(Coat coat) {
        return coat.hues().stream()
                .map(h -> h.colour().map(Srgb::hex).orElse("none"))
                .toList();
    }

    @Test
    void a_face_has_the_colour_of_most_of_its_corners_the_widest_first() throws IOException {
        Part part = read(tinted(bar(), x -> x == 30 ? "0.8 0.1 0.1" : "0.1 0.1 0.1"))
                .parts()
                .get(0);
        Coat coat = part.coat().orElseThrow();
        assertThat(colours(coat)).containsExactly("#1A1A1A", "#CC1A1A");
        assertThat(part.colour()).contains(Srgb.parse("#1A1A1A"));
        // Of the sides along it each has one triangle with two corners at its eastern end.
        assertThat(IntStream.range(0, coat.triangles()).filter(t -> coat.hue(t) == 1))
                .hasSize(2 + 4);
    }

    @ParameterizedTest
    @CsvSource({"0.5", "0.5 0.5 0.5 1", "red green blue", "''"})
    void what_else_may_stand_behind_a_corner_is_no_colour(String behind) throws IOException {
        assertThat(read(tinted(bar(), x -> x == 30 ? behind : "")).coats()).isEmpty();
    }

    @Test
    void colours_that_hardly_differ_are_one_and_more_than_eight_are_taken_together() throws IOException {
        Random random = new Random(4);
        Mesh ball = new Shapes().sphere(10, 20, 40).mesh();
        Coat scan = read(tinted(
                        ball, x -> "%s %s %s".formatted(random.nextDouble(), random.nextDouble(), random.nextDouble())))
                .parts()
                .get(0)
                .coat()
                .orElseThrow();
        assertThat(scan.told()).isGreaterThan(1000);
        assertThat(scan.hues()).hasSize(Coat.MOST);
        assertThat(scan.isOfMany()).isTrue();
        Coat shades = read(tinted(ball, x -> x > 5 ? "0.9 0.1 0.1" : x > 0 ? "0.500 0.5 0.5" : "0.505 0.5 0.5"))
                .parts()
                .get(0)
                .coat()
                .orElseThrow();
        assertThat(shades.told()).isEqualTo(3);
        assertThat(shades.hues()).hasSize(2);
    }

    @Test
    void shades_that_cover_most_together_are_what_most_of_it_is() throws IOException {
        Random random = new Random(4);
        Mesh ball = new Shapes().sphere(10, 20, 40).mesh();
        Part part = read(tinted(
                        ball,
                        x -> x > 7
                                ? "0.9 0.1 0.1"
                                : "0.8%d 0.8%d 0.8%d"
                                        .formatted(
                                                4 + random.nextInt(4), 4 + random.nextInt(4), 4 + random.nextInt(4))))
                .parts()
                .get(0);
        assertThat(part.colour().orElseThrow().isLight()).isTrue();
        assertThat(part.colour().orElseThrow().blue()).isGreaterThan(200);
    }

    @Test
    void what_is_put_right_keeps_its_colours() throws IOException {
        // Two triangles turned, one missing, one without area.
        List<double[]> corners = new ArrayList<>();
        Mesh mesh = new Shapes().box(0, 0, 0, 60, 10, 10).mesh();
        for (int c = 0; c < 33; c++) {
            corners.add(new double[] {mesh.x(c), mesh.y(c), mesh.z(c) / 1000.0});
        }
        StringBuilder obj = new StringBuilder("v 0 0 0 1 1 1\nv 0 0 0 1 1 1\nv 5 0 0 1 1 1\n");
        corners.forEach(p -> obj.append("v %s %s %s %s\n".formatted(p[0], p[1], p[2], p[2] == 10 ? "0 0 1" : "0 0 0")));
        obj.append("f 1 2 3\n");
        for (int c = 4; c < 37; c += 3) {
            obj.append(c < 10 ? "f %d %d %d\n".formatted(c, c + 2, c + 1) : "f %d %d %d\n".formatted(c, c + 1, c + 2));
        }
        PartedModel model = read(obj.toString().getBytes(StandardCharsets.US_ASCII));
        assertThat(model.report().dropped()).isEqualTo(1);
        assertThat(model.report().turned()).isEqualTo(2);
        assertThat(model.report().closed()).isEqualTo(1);
        Part part = model.parts().get(0);
        Coat coat = part.coat().orElseThrow();
        assertThat(coat.triangles()).isEqualTo(12);
        TreeSet<String> seen = new TreeSet<>();
        for (int t = 0; t < 12; t++) {
            boolean top = part.mesh().z(3 * t) == 10_000
                    && part.mesh().z(3 * t + 1) == 10_000
                    && part.mesh().z(3 * t + 2) == 10_000;
            boolean bottom = part.mesh().z(3 * t) == 0
                    && part.mesh().z(3 * t + 1) == 0
                    && part.mesh().z(3 * t + 2) == 0;
            String colour = colours(coat).get(coat.hue(t));
            seen.add(top ? "top " + colour : bottom ? "bottom " + colour : "");
        }
        assertThat(seen).contains("top #0000FF", "bottom #000000").doesNotContain("top #000000", "bottom #0000FF");
    }
}
