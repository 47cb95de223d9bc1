package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.node.IntNode;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Refusal;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Scenes as modelling programs and scanners give them (ISO/IEC 12113). */
class GltfTest {
    /** Light 0.2159 is level 128 (IEC 61966-2-1). */
    private static final String SLATE =
            ",\"materials\":[{\"name\":\"Slate\",\"pbrMetallicRoughness\":{\"baseColorFactor\":[0.21586,0,1,1]}}]";

    private static SmallGltf box(String node) {
        SmallGltf scene = new SmallGltf();
        scene.mesh(scene.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)), "", ",\"material\":0");
        return scene.node("\"mesh\":0" + node).also(SLATE);
    }

    private static Mesh only(PartedModel model) {
        assertThat(model.parts()).hasSize(1);
        assertThat(model.report().done()).as("put right").isFalse();
        assertThat(model.report().found().openEdges()).isZero();
        return model.parts().get(0).mesh();
    }

    @Test
    void metres_with_y_up_come_to_stand_in_millimetres_with_the_colour_of_their_material() throws IOException {
        SmallGltf scene = box(",\"name\":\"Lid\"");
        byte[] marked = ("\uFEFF" + new String(scene.text(), StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8);
        for (byte[] file : new byte[][] {scene.glb(), scene.text(), marked}) {
            PartedModel model = SmallGltf.read(file);
            Part part = model.parts().get(0);
            assertThat(part.name()).isEqualTo("Lid");
            assertThat(part.colour()).contains(new Srgb(128, 0, 255));
            Mesh mesh = only(model);
            assertThat(mesh.footprint().getWidth()).isCloseTo(30, within(1e-4));
            assertThat(mesh.footprint().getHeight()).isCloseTo(20, within(1e-4));
            assertThat(mesh.height()).hasToString("10.00");
            assertThat(mesh.volume()).isCloseTo(6000, within(0.01));
        }
    }

    /**
     * Turned by a right angle about Y, what went along X goes away from who looks at it, which is along our Y. Turned by a third
     * about what lies between all axes, each axis goes to the next.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"rotation\":[0,0.70710678,0,0.70710678]             | 20 | 30 | 10",
                "\"matrix\":[0,0,-1,0, 0,1,0,0, 1,0,0,0, 0,0,0,1]     | 20 | 30 | 10",
                "\"rotation\":[0,0,0.70710678,0.70710678]             | 10 | 20 | 30",
                "\"rotation\":[0.5,0.5,0.5,0.5]                        | 20 | 10 | 30",
                "\"scale\":[2,3,1],\"translation\":[1,-2,0.5]         | 60 | 20 | 30",
                "\"scale\":[-1,1,1]                                   | 30 | 20 | 10"
            })
    void nodes_move_turn_scale_and_mirror_what_they_hold(String moved, double width, double depth, double high)
            throws IOException {
        Mesh mesh = only(SmallGltf.read(box("," + moved).glb()));
        assertThat(mesh.footprint().getWidth()).isCloseTo(width, within(1e-3));
        assertThat(mesh.footprint().getHeight()).isCloseTo(depth, within(1e-3));
        assertThat(mesh.height().millimetres()).isCloseTo(high, within(1e-3));
        assertThat(mesh.volume()).isCloseTo(width * depth * high, within(0.1));
    }

    @Test
    void children_stand_in_what_their_parents_stand_in() throws IOException {
        SmallGltf scene = new SmallGltf();
        int mesh = scene.mesh(scene.floats("VEC3", SmallGltf.box(0.01, 0.01, 0.01)), "", "");
        scene.node("\"name\":\"Pair\",\"scale\":[2,2,2],\"children\":[1,2]")
                .node("\"mesh\":" + mesh)
                .node("\"translation\":[0.02,0,0],\"mesh\":" + mesh + ",\"name\":\"Second\"");
        PartedModel model = SmallGltf.read(scene.glb());
        assertThat(model.parts()).extracting(Part::name).containsExactly("Pair", "Second");
        assertThat(model.parts()).allSatisfy(p -> assertThat(p.colour()).isEmpty());
        assertThat(model.body().footprint().getWidth()).isCloseTo(60, within(1e-3));
        assertThat(model.body().volume()).isCloseTo(16_000, within(0.1));
    }

    /** Four triangles of six corners: a tetrahedron of 1/6 of a cube. */
    @Test
    void a_strip_turns_every_other_triangle_and_a_fan_goes_round_its_first_corner() throws IOException {
        float[] corners = {0, 0, 0, 0, 0.06f, 0, 0.06f, 0, 0, 0, 0, 0.06f};
        SmallGltf strip = new SmallGltf();
        int places = strip.floats("VEC3", corners);
        strip.mesh(places, "", ",\"mode\":5,\"indices\":" + strip.shorts(0, 1, 2, 3, 0, 1));
        SmallGltf fan = new SmallGltf();
        int same = fan.floats("VEC3", corners);
        fan.mesh(
                "{\"attributes\":{\"POSITION\":%d},\"mode\":6,\"indices\":%d}"
                        .formatted(same, fan.shorts(0, 1, 2, 3, 1)),
                "{\"attributes\":{\"POSITION\":%d},\"indices\":%d}".formatted(same, fan.shorts(1, 3, 2)),
                "{\"attributes\":{\"POSITION\":%d},\"mode\":0}".formatted(same));
        for (SmallGltf scene : new SmallGltf[] {strip, fan}) {
            Mesh mesh = only(SmallGltf.read(scene.node("\"mesh\":0").glb()));
            assertThat(mesh.triangles()).isEqualTo(4);
            assertThat(mesh.volume()).isCloseTo(36_000, within(0.1));
        }
    }

    private static SmallGltf painted(int corners) {
        float[] colours = new float[3 * corners];
        for (int i = 0; i < colours.length; i += 3) {
            // The top, which is the fifth side of six, is green; all else is as blue as level 128.
            colours[i + (i / 18 == 4 ? 1 : 2)] = i / 18 == 4 ? 1 : 0.21586f;
        }
        SmallGltf painted = new SmallGltf();
        int places = painted.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02));
        painted.mesh(places, ",\"COLOR_0\":" + painted.floats("VEC3", colours), "");
        return painted.node("\"mesh\":0,\"name\":\"Lid\"");
    }

    private static SmallGltf pictured(int places) throws IOException {
        float[] spots = new float[2 * places];
        Arrays.fill(spots, 0.75f);
        for (int i = 0; i < 12 && places > 30; i += 2) {
            // The top shows the upper left of the picture.
            spots[48 + i] = 0.25f;
            spots[48 + i + 1] = 0.25f;
        }
        return pictured(spots, "");
    }

    /**
     * A lid that shows {@link #quarters()}.
     *
     * @param spots of the picture, two numbers a corner
     * @param laid what else is said of how it is laid, as JSON
     */
    private static SmallGltf pictured(float[] spots, String laid) throws IOException {
        SmallGltf pictured = new SmallGltf();
        pictured.mesh(
                pictured.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)),
                ",\"TEXCOORD_0\":" + pictured.floats("VEC2", spots),
                ",\"material\":0");
        pictured.also(",\"materials\":[{\"pbrMetallicRoughness\":{\"baseColorTexture\":{\"index\":0" + laid
                + "}}}],\"textures\":[{\"source\":0}],\"images\":[{\"mimeType\":\"image/png\",\"bufferView\":"
                + pictured.view(quarters()) + "}]");
        return pictured.node("\"mesh\":0,\"name\":\"Lid\"");
    }

    @Test
    void corners_have_colours_in_light_and_pictures_are_seen_from_above() throws IOException {
        assertThat(coat(painted(36)).hues())
                .extracting(h -> h.colour().orElseThrow())
                .containsExactly(new Srgb(0, 0, 128), new Srgb(0, 255, 0));
        assertThat(coat(pictured(36)).hues())
                .extracting(h -> h.colour().orElseThrow())
                .containsExactly(new Srgb(0, 0, 255), new Srgb(255, 0, 0));
        refused(pictured(20).glb(), "“Lid” of the glTF file has 36 corners and 20 places on its picture");
    }

    /** Red above on the left, blue below on the right, white else. */
    private static byte[] quarters() throws IOException {
        BufferedImage image = new BufferedImage(2, 2, BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, 0xFF0000);
        image.setRGB(1, 0, 0xFFFFFF);
        image.setRGB(0, 1, 0xFFFFFF);
        image.setRGB(1, 1, 0x0000FF);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static Coat coat(SmallGltf scene) throws IOException {
        return SmallGltf.read(scene.glb()).parts().get(0).coat().orElseThrow();
    }

    /**
     * All of it shows the lower left of its picture, which is white, but for how that is laid: turned counter-clockwise about the
     * picture's upper left, as one sees it, then moved. Source: Khronos, KHR_texture_transform, from memory.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"offset\":[0,0]                                        | FFFFFF",
                "\"offset\":[0.5,0]                                      | 0000FF",
                "\"offset\":[0,-0.5]                                     | FF0000",
                "\"scale\":[3,1]                                         | 0000FF",
                "\"scale\":[1,0.33]                                      | FF0000",
                "\"rotation\":1.5707963                                  | 0000FF",
                "\"rotation\":-1.5707963                                 | FF0000",
                "\"rotation\":1.5707963,\"scale\":[1,3],\"offset\":[0,0.5] | FF0000",
                "\"rotation\":3.1415926,\"offset\":[1,1]                 | FFFFFF"
            })
    void pictures_are_laid_turned_stretched_and_moved(String laid, String hex) throws IOException {
        float[] spots = new float[72];
        for (int i = 0; i < spots.length; i++) {
            spots[i] = i % 2 == 0 ? 0.25f : 0.75f;
        }
        SmallGltf scene = pictured(spots, ",\"extensions\":{\"KHR_texture_transform\":{" + laid + "}}");
        Part part = SmallGltf.read(scene.glb()).parts().get(0);
        assertThat(part.colour()).contains(Srgb.parse("#" + hex));
        assertThat(part.coat()).isEmpty();
    }

    /** 0.21586 of the light is level 128 (IEC 61966-2-1): 55 of 255, 14146 of 65535. */
    @ParameterizedTest
    @CsvSource({"5121, 1, 55", "5123, 2, 14146"})
    void shares_of_the_largest_number_are_colours_too(int kind, int bytes, int level) throws IOException {
        SmallGltf scene = new SmallGltf();
        ByteBuffer lights = ByteBuffer.allocate(36 * 4 * bytes).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < 36 * 4; i++) {
            lights.position(bytes * i);
            lights.put((byte) (i % 4 == 0 ? level : 0));
            if (bytes == 2) {
                lights.put((byte) (i % 4 == 0 ? level >> 8 : 0));
            }
        }
        int colours = scene.accessor(
                "{\"bufferView\":%d,\"componentType\":%d,\"normalized\":true,\"count\":36,\"type\":\"VEC4\"}"
                        .formatted(scene.view(lights.array()), kind));
        scene.mesh(scene.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)), ",\"COLOR_0\":" + colours, "");
        assertThat(SmallGltf.read(scene.node("\"mesh\":0").glb()).parts().get(0).colour())
                .contains(new Srgb(128, 0, 0));
    }

    @Test
    void of_a_file_without_scenes_all_nodes_are_shown_that_stand_in_no_other() throws IOException {
        SmallGltf scene = new SmallGltf();
        scene.mesh(scene.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)), "", "");
        scene.node("\"mesh\":0")
                .node("\"children\":[2],\"translation\":[0.1,0,0]")
                .node("\"mesh\":0");
        byte[] without = new String(scene.text(), StandardCharsets.UTF_8)
                .replace("\"scenes\"", "\"other\"")
                .getBytes(StandardCharsets.UTF_8);
        assertThat(SmallGltf.read(without).parts()).hasSize(2);
        assertThat(SmallGltf.read(scene.text()).parts()).hasSize(1);
    }

    @Test
    void a_picture_that_lies_beside_the_file_or_cannot_be_read_is_named() throws IOException {
        SmallGltf scene = new SmallGltf();
        scene.mesh(
                scene.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)),
                ",\"TEXCOORD_0\":" + scene.floats("VEC2", new float[72]),
                ",\"material\":0");
        scene.node("\"mesh\":0")
                .also(
                        ",\"materials\":[{\"pbrMetallicRoughness\":{\"baseColorTexture\":{\"index\":0}}}],\"textures\":[{\"source\":0}],\"images\":[{\"uri\":\"skin.png\"}]");
        assertThat(SmallGltf.read(scene.glb()).unseen()).containsExactly("skin.png");
    }

    @Test
    void what_is_named_where_numbers_are_listed_tells_none() throws IOException {
        String named = "{\"a\":1,\"b\":2,\"c\":3,\"d\":4}";
        SmallGltf scene = new SmallGltf();
        scene.mesh(scene.floats("VEC3", SmallGltf.box(0.03, 0.01, 0.02)), "", ",\"material\":0");
        scene.node("\"mesh\":0,\"scale\":" + named + ",\"matrix\":{"
                        + IntStream.range(0, 16)
                                .mapToObj(i -> "\"m" + i + "\":0")
                                .collect(Collectors.joining(",")) + "}")
                .also(",\"materials\":[{\"pbrMetallicRoughness\":{\"baseColorFactor\":" + named + "}}]");
        Part part = SmallGltf.read(scene.glb()).parts().get(0);
        assertThat(part.colour()).isEmpty();
        assertThat(part.mesh().volume()).isCloseTo(6000, within(0.01));
    }

    /** Khronos glTF Tutorials, "A Minimal glTF File": one triangle, its numbers in the text (CC BY 4.0; from memory). */
    @Test
    void the_minimal_file_of_the_published_tutorial_holds_the_numbers_it_is_said_to() throws IOException {
        byte[] minimal =
                """
                {"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0}],
                "meshes":[{"primitives":[{"attributes":{"POSITION":1},"indices":0}]}],
                "buffers":[{"uri":"data:application/octet-stream;base64,AAABAAIAAAAAAAAAAAAAAAAAAAAAAIA/AAAAAAAAAAAAAAAAAACAPwAAAAA=","byteLength":44}],
                "bufferViews":[{"buffer":0,"byteOffset":0,"byteLength":6,"target":34963},{"buffer":0,"byteOffset":8,"byteLength":36,"target":34962}],
                "accessors":[{"bufferView":0,"byteOffset":0,"componentType":5123,"count":3,"type":"SCALAR","max":[2],"min":[0]},
                {"bufferView":1,"byteOffset":0,"componentType":5126,"count":3,"type":"VEC3","max":[1.0,1.0,0.0],"min":[0.0,0.0,0.0]}],
                "asset":{"version":"2.0"}}
                """
                        .getBytes(StandardCharsets.US_ASCII);
        assertThat(GltfFile.is(minimal)).isTrue();
        GltfFile file = GltfFile.read(new ByteArrayInputStream(minimal), minimal.length);
        GltfFile.Numbers places = file.numbers(IntNode.valueOf(1), 3);
        GltfFile.Numbers order = file.numbers(IntNode.valueOf(0), 1);
        double[][] triangle = new double[3][3];
        for (int i = 0; i < 9; i++) {
            triangle[i / 3][i % 3] = places.at((int) order.at(i / 3, 0), i % 3);
        }
        assertThat(triangle).isDeepEqualTo(new double[][] {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}});
    }

    @Test
    void what_cannot_be_read_is_refused_in_a_sentence() throws IOException {
        byte[] good = box("").glb();
        refused(Arrays.copyOf(good, good.length - 40), "cut short");
        byte[] older = good.clone();
        older[4] = 1;
        refused(older, "is of version 1");
        refused(SmallGltf.glb("{\"asset\":", new byte[0]), "cannot be read from line 1");
        refused(SmallGltf.glb("[]", new byte[0]), "says nothing of what it holds");
        refused(
                box("").also(",\"extensionsRequired\":[\"KHR_draco_mesh_compression\"]")
                        .glb(),
                "KHR_draco_mesh_compression");
        refused(box(",\"children\":[0]").glb(), "stands in two places");
        refused(new SmallGltf().node("\"name\":\"nothing\"").glb(), "shows no triangles");
        refused(
                "{\"asset\":{},\"buffers\":[{\"uri\":\"box.bin\",\"byteLength\":4}]}"
                        .getBytes(StandardCharsets.US_ASCII),
                "“box.bin”, a file beside it");
        SmallGltf beyond = new SmallGltf();
        int places = beyond.floats("VEC3", SmallGltf.box(1, 1, 1));
        beyond.mesh(places, "", ",\"indices\":" + beyond.shorts(0, 1, 99));
        refused(
                beyond.node("\"mesh\":0,\"name\":\"Lid\"").glb(),
                "“Lid” of the glTF file names corner 99, and there are 36");
        refused(painted(30).glb(), "“Lid” of the glTF file has 36 corners and 30 colours of them");
        for (String odd : new String[] {
            "\"bufferView\":0,\"componentType\":5126,\"count\":37",
            "\"bufferView\":0,\"componentType\":5126,\"count\":36,\"byteOffset\":4",
            "\"bufferView\":7,\"componentType\":5126,\"count\":36",
            "\"bufferView\":0,\"componentType\":5126,\"count\":36,\"sparse\":{}",
            "\"bufferView\":0,\"componentType\":5126,\"count\":9999999999"
        }) {
            SmallGltf scene = new SmallGltf();
            scene.view(new byte[36 * 12]);
            scene.mesh(scene.accessor("{" + odd + ",\"type\":\"VEC3\"}"), "", "");
            refused(scene.node("\"mesh\":0").glb(), "List 0 of numbers");
        }
    }

    private static void refused(byte[] file, String because) {
        assertThatThrownBy(() -> SmallGltf.read(file))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(because);
    }

    @Test
    void whatever_is_damaged_is_read_or_refused() throws IOException {
        byte[][] good = {
            box(",\"scale\":[1,1,2]").glb(),
            painted(36).glb(),
            pictured(36).glb(),
            pictured(36).text()
        };
        Random random = new Random(17);
        for (int i = 0; i < 1500; i++) {
            byte[] damaged = good[i % good.length].clone();
            for (int k = random.nextInt(4); k >= 0; k--) {
                int at = random.nextInt(damaged.length);
                damaged[at] = random.nextBoolean()
                        ? (byte) random.nextInt()
                        : (byte) ("0123456789-[]{}\",".charAt(random.nextInt(17)));
            }
            try {
                assertThat(SmallGltf.read(damaged).parts()).isNotEmpty();
            } catch (Refusal said) {
                assertThat(said.getMessage()).endsWith(".");
            } catch (RuntimeException e) {
                throw new AssertionError("damage " + i, e);
            }
        }
    }
}
