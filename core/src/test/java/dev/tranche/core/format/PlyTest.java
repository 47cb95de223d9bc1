package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Meshes as scanners give them. */
class PlyTest {
    private static final String CORNERS = "0 0 0 0 0 1 0 1 1 0 1 0 1 0 0 1 0 1 1 1 1 1 1 0";
    private static final int[][] SIDES = {
        {0, 1, 2, 3}, {7, 6, 5, 4}, {0, 4, 5, 1}, {1, 5, 6, 2}, {2, 6, 7, 3}, {3, 7, 4, 0}
    };

    private enum Form {
        ASCII,
        BINARY_LITTLE_ENDIAN,
        BINARY_BIG_ENDIAN
    }

    /** G. Turk, "The PLY Polygon File Format" (1994), its first example (from memory): a cube of 1. */
    @Test
    void the_published_cube_is_one_cubic_millimetre() throws IOException {
        String cube =
                "ply\nformat ascii 1.0\ncomment made by anonymous\ncomment this file is a cube\nelement vertex 8\n"
                        + "property float32 x\nproperty float32 y\nproperty float32 z\nelement face 6\n"
                        + "property list uint8 int32 vertex_index\nend_header\n"
                        + CORNERS.replaceAll("(\\S+ \\S+ \\S+) ?", "$1\n")
                        + Arrays.stream(SIDES)
                                .map(s -> "4 %d %d %d %d\n".formatted(s[0], s[1], s[2], s[3]))
                                .collect(Collectors.joining());
        PartedModel model = read(cube.getBytes(StandardCharsets.US_ASCII));
        assertThat(model.parts()).hasSize(1);
        assertThat(model.body().volume()).isCloseTo(1, within(1e-6));
        assertThat(model.body().triangles()).isEqualTo(12);
    }

    /** "The header is a series of carriage-return terminated lines" – G. Turk, in the format's description. */
    @ParameterizedTest
    @EnumSource(Form.class)
    void lines_may_end_as_the_formats_first_description_has_them(Form form) throws IOException {
        byte[] cube = cube(form, true);
        int data = new String(cube, StandardCharsets.ISO_8859_1).indexOf("end_header\r\n") + 12;
        String header = new String(cube, 0, data, StandardCharsets.ISO_8859_1).replace("\r\n", "\r");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(header.getBytes(StandardCharsets.ISO_8859_1));
        out.write(cube, data, cube.length - data);
        assertThat(read(out.toByteArray()).body().volume()).isCloseTo(8000, within(1e-2));
    }

    /** A cube of 20 mm, its corners with normals and colours, red but for those at X = 0, and after them what nobody knows. */
    private static byte[] cube(Form form, boolean faces) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(("ply\r\nformat " + form.name().toLowerCase(java.util.Locale.ROOT)
                        + " 1.0\r\nelement vertex 8\r\nproperty double x\r\nproperty float y\r\nproperty short z\r\n"
                        + "property uchar red\r\nproperty uchar green\r\nproperty uchar blue\r\nelement odd 2\r\nproperty list char ushort "
                        + "numbers\r\nelement face 6\r\nproperty list uchar uint vertex_indices\r\n"
                        + (faces ? "property float red\r\nproperty float green\r\nproperty float blue\r\n" : "")
                        + "end_header\r\n")
                .getBytes(StandardCharsets.US_ASCII));
        String[] corners = CORNERS.split(" ");
        for (int i = 0; i < 24; i += 3) {
            boolean near = corners[i].equals("0");
            put(out, form, 8, 20 * Double.parseDouble(corners[i]));
            put(out, form, -4, 20 * Double.parseDouble(corners[i + 1]));
            put(out, form, 2, 20 * Double.parseDouble(corners[i + 2]));
            put(out, form, 1, near ? 0 : 200);
            put(out, form, 1, 0);
            put(out, form, 1, near ? 255 : 0);
        }
        for (int i = 0; i < 2; i++) {
            put(out, form, 1, 2);
            put(out, form, 2, 1);
            put(out, form, 2, 2);
        }
        for (int[] side : SIDES) {
            put(out, form, 1, 4);
            for (int corner : side) {
                put(out, form, 4, corner);
            }
            for (int i = 0; faces && i < 3; i++) {
                put(out, form, -4, side == SIDES[0] ? 1 : 0.5);
            }
        }
        return out.toByteArray();
    }

    /** @param bytes 8 and -4 for such as have a point */
    private static void put(ByteArrayOutputStream out, Form form, int bytes, double number) {
        if (form == Form.ASCII) {
            out.writeBytes((number + " \n").getBytes(StandardCharsets.US_ASCII));
            return;
        }
        ByteBuffer buffer = ByteBuffer.allocate(Math.abs(bytes))
                .order(form == Form.BINARY_BIG_ENDIAN ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN);
        switch (bytes) {
            case 8 -> buffer.putDouble(number);
            case -4 -> buffer.putFloat((float) number);
            case 4 -> buffer.putInt((int) number);
            case 2 -> buffer.putShort((short) number);
            default -> buffer.put((byte) number);
        }
        out.writeBytes(buffer.array());
    }

    private static PartedModel read(byte[] file) throws IOException {
        return SmallGltf.read(file);
    }

    @ParameterizedTest
    @EnumSource
    void in_words_and_in_bytes_of_either_order_it_is_the_same_with_the_colours_of_its_corners(Form form)
            throws IOException {
        PartedModel model = read(cube(form, false));
        assertThat(model.body().volume()).isCloseTo(8000, within(1e-3));
        Coat coat = model.parts().get(0).coat().orElseThrow();
        assertThat(coat.hues())
                .extracting(h -> h.colour().orElseThrow())
                .containsExactlyInAnyOrder(new Srgb(200, 0, 0), new Srgb(0, 0, 255));
        assertThat(read(cube(form, true)).parts().get(0).coat().orElseThrow().hues())
                .extracting(h -> h.colour().orElseThrow())
                .containsExactly(new Srgb(128, 128, 128), new Srgb(255, 255, 255));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "element face 6|element face 7|ends before all that it says it holds",
                "uint vertex_indices|uint others|gives 8 corners and no faces",
                "property float y|property float Y|have no X, Y and Z",
                "element vertex 8|element vertex 7|names corner 7, and there are 7 by then",
                "property double x|property half x|numbers of kind “half”",
                "element odd 2|element odd two|cannot be read",
                "format ascii|format utf|in the form “utf”",
                "end_header|end|ends, or goes on without end"
            })
    void what_cannot_be_read_is_refused_in_a_sentence(String good, String bad, String because) throws IOException {
        byte[] file = new String(cube(Form.ASCII, false), StandardCharsets.ISO_8859_1)
                .replace(good, bad)
                .getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> read(file)).isInstanceOf(Refusal.class).hasMessageContaining(because);
    }

    /** As scans have it: hardly two faces alike. */
    @Test
    void so_many_colours_are_told_apart_and_those_beyond_by_their_first_bits() throws IOException {
        Mesh ball = new Shapes().sphere(10, 60, 120).mesh();
        StringBuilder file = new StringBuilder(
                "ply\nformat ascii 1.0\nelement vertex " + 3 * ball.triangles()
                        + "\nproperty float x\nproperty float y\nproperty float z\nelement face " + ball.triangles()
                        + "\nproperty list uchar int vertex_indices\nproperty uchar red\nproperty uchar green\nproperty uchar blue\nend_header\n");
        for (int c = 0; c < 3 * ball.triangles(); c++) {
            file.append((float) ball.x(c) + " " + (float) ball.y(c) + " " + ball.z(c) / 1000f + "\n");
        }
        for (int t = 0; t < ball.triangles(); t++) {
            file.append("3 " + 3 * t + " " + (3 * t + 1) + " " + (3 * t + 2) + " " + t % 200 + " " + t / 200 + " 77\n");
        }
        Coat coat = read(file.toString().getBytes(StandardCharsets.US_ASCII))
                .parts()
                .get(0)
                .coat()
                .orElseThrow();
        assertThat(ball.triangles()).isGreaterThan(14_000);
        assertThat(coat.told()).isBetween(4096, 8192);
    }

    @Test
    void a_picture_that_is_to_be_laid_over_it_is_named_and_what_tells_nothing_takes_no_time() throws IOException {
        String file = new String(cube(Form.ASCII, false), StandardCharsets.ISO_8859_1)
                .replaceAll("red|green|blue", "other")
                .replace("element odd", "comment TextureFile scan 1.png\nelement none 999999999999\nelement odd");
        PartedModel model = read(file.getBytes(StandardCharsets.ISO_8859_1));
        assertThat(model.unseen()).containsExactly("scan 1.png");
        assertThat(model.parts().get(0).coat()).isEmpty();
    }

    @Test
    void whatever_is_damaged_is_read_or_refused() throws IOException {
        Random random = new Random(19);
        for (int i = 0; i < 1500; i++) {
            byte[] damaged = cube(Form.values()[i % 3], i % 2 == 0);
            for (int k = random.nextInt(4); k >= 0; k--) {
                damaged[4 + random.nextInt(damaged.length - 4)] = (byte) random.nextInt();
            }
            try {
                assertThat(read(damaged).parts()).isNotEmpty();
            } catch (Refusal said) {
                assertThat(said.getMessage()).endsWith(".");
            } catch (RuntimeException e) {
                throw new AssertionError("damage " + i, e);
            }
        }
    }
}
