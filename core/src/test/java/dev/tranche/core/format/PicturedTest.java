package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Stopped;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.IntBinaryOperator;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Models that show pictures on their outside. */
class PicturedTest {
    private static final int RED = 0xFFB03020;
    private static final int BLUE = 0xFF2F6C8C;

    /** A bar of 30 × 10 × 10 mm; its top, the last two faces, lies on the whole of a picture, all else on its left edge. */
    private static final String BAR =
            """
            v 0 0 0
            v 30 0 0
            v 30 10 0
            v 0 10 0
            v 0 0 10
            v 30 0 10
            v 30 10 10
            v 0 10 10
            vt 0 0
            vt 1 0
            vt 1 1
            vt 0 1
            vt 0.01 0.5
            usemtl skin
            f 4/5 3/5 2/5 1/5
            f 1/5 2/5 6/5 5/5
            f 2/5 3/5 7/5 6/5
            f 3/5 4/5 8/5 7/5
            f 4/5 1/5 5/5 8/5
            f 5/1 6/2 7/3 8/4
            """;

    private static byte[] png(int width, int height, int type, IntBinaryOperator argb) throws IOException {
        BufferedImage image = new BufferedImage(width, height, type);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, argb.applyAsInt(x, y));
            }
        }
        return png(image);
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** Red on the left, blue on the right. */
    private static byte[] halves() throws IOException {
        return png(64, 64, BufferedImage.TYPE_INT_ARGB, (x, y) -> x < 32 ? RED : BLUE);
    }

    private static PartedModel read(byte[] bytes) throws IOException {
        return ModelReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD);
    }

    private static PartedModel obj(String obj, String library, Map<String, byte[]> pictures) throws IOException {
        ObjLibrary given = new ObjLibrary();
        given.add("a.mtl", stream(library));
        for (Map.Entry<String, byte[]> picture : pictures.entrySet()) {
            given.addPicture(picture.getKey(), new ByteArrayInputStream(picture.getValue()));
        }
        return read(given.colours("", new byte[0])
                .before(new ByteArrayInputStream(obj.getBytes(StandardCharsets.ISO_8859_1)))
                .readAllBytes());
    }

    private static PartedModel bar(byte[] picture) throws IOException {
        return obj(BAR, "newmtl skin\nKd 0.8 0.8 0.8\nmap_Kd skin.png\n", Map.of("skin.png", picture));
    }

    /** mm² in each colour. */
    private static Map<String, Double> areas(Part part) {
        Coat coat = part.coat().orElseThrow();
        Map<String, Double> areas = new HashMap<>();
        for (int t = 0; t < coat.triangles(); t++) {
            areas.merge(
                    coat.hues().get(coat.hue(t)).colour().map(Srgb::hex).orElse("none"),
                    part.mesh().area(3 * t),
                    Double::sum);
        }
        return areas;
    }

    @Test
    void what_no_bed_holds_is_cut_as_finely_as_it_will_be_printed() throws IOException {
        assertThat(times(100).body().longest()).isCloseTo(3000, within(1e-3));
        assertThat(times(100).body().triangles())
                .isEqualTo(times(10).body().triangles())
                .isGreaterThan(times(1).body().triangles());
    }

    private static PartedModel times(int scale) throws IOException {
        String zeros = Integer.toString(scale).substring(1);
        String large = BAR.replaceAll("(?m)^v (\\d+) (\\d+) (\\d+)$", "v $1" + zeros + " $2" + zeros + " $3" + zeros);
        byte[] slanted = png(1024, 1024, BufferedImage.TYPE_INT_ARGB, (x, y) -> 3 * x + y < 2080 ? RED : BLUE);
        return obj(large, "newmtl skin\nmap_Kd skin.png\n", Map.of("skin.png", slanted));
    }

    @Test
    void where_corners_are_told_twice_a_last_digit_apart_both_sides_are_cut_alike() throws IOException {
        String twice = BAR.replace(
                "f 5/1 6/2 7/3 8/4",
                "v -2.4e-15 1e-16 10\nv 30.000002 -1e-15 10\nv 29.999998 10.000001 10\nv 1e-15 10 10\nf 9/1 10/2 11/3 12/4");
        PartedModel model = obj(twice, "newmtl skin\nmap_Kd skin.png\n", Map.of("skin.png", halves()));
        assertThat(model.report().found().closed()).isTrue();
        assertThat(areas(model.parts().get(0)).get("#2F6C8C")).isCloseTo(150, within(10 * 0.4));
    }

    @Test
    void a_picture_is_cut_where_its_colours_meet_and_the_model_stays_closed() throws IOException {
        PartedModel model = bar(halves());
        assertThat(model.report().closed()).isZero();
        assertThat(model.report().dropped()).isZero();
        Part part = model.parts().get(0);
        assertThat(part.mesh().volume()).isCloseTo(3000, within(0.01));
        // Half of the top, as far as pieces of 0.4 mm tell: common geometry.
        assertThat(areas(part)).containsOnlyKeys("#B03020", "#2F6C8C");
        assertThat(areas(part).get("#2F6C8C")).isCloseTo(150, within(10 * 0.4));
        Mesh mesh = part.mesh();
        assertThat(edges(mesh).values()).containsOnly(0);
        // On the left of the seam it is red.
        for (int t = 0; t < mesh.triangles(); t++) {
            double x = (mesh.x(3 * t) + mesh.x(3 * t + 1) + mesh.x(3 * t + 2)) / 3;
            boolean blue = part.coat().orElseThrow().hue(t) == 1;
            assertThat(blue && x < 14.5).isFalse();
        }
    }

    /** Area of an ellipse: common geometry. What is half of either colour belongs to that of which there is more. */
    @Test
    void a_drawing_that_crosses_triangles_at_every_angle_has_its_area_and_leaves_no_gap() throws IOException {
        byte[] ellipse = png(
                512, 512, BufferedImage.TYPE_INT_RGB, (x, y) -> Math.hypot(x - 230.3, y - 281.7) < 150 ? RED : BLUE);
        PartedModel model = bar(ellipse);
        Part part = model.parts().get(0);
        assertThat(model.report().closed()).isZero();
        assertThat(part.mesh().volume()).isCloseTo(3000, within(0.01));
        assertThat(edges(part.mesh()).values()).containsOnly(0);
        double half = 150 / 512.0;
        assertThat(areas(part).get("#B03020")).isCloseTo(Math.PI * 30 * half * 10 * half, within(0.5));
    }

    /** Each edge of a whole body belongs to two triangles, which run along it in both directions: 0 for each. */
    private static Map<List<Double>, Integer> edges(Mesh mesh) {
        Map<List<Double>, Integer> edges = new HashMap<>();
        for (int t = 0; t < mesh.triangles(); t++) {
            for (int c = 0; c < 3; c++) {
                edges.merge(edge(mesh, 3 * t + c, 3 * t + (c + 1) % 3), 1, Integer::sum);
                edges.merge(edge(mesh, 3 * t + (c + 1) % 3, 3 * t + c), -1, Integer::sum);
            }
        }
        return edges;
    }

    private static List<Double> edge(Mesh mesh, int a, int b) {
        return List.of(mesh.x(a), mesh.y(a), (double) mesh.z(a), mesh.x(b), mesh.y(b), (double) mesh.z(b));
    }

    @Test
    void a_picture_of_swatches_cuts_nothing_and_gives_their_very_colours() throws IOException {
        // Four swatches; the top on the second from below, all else on the lowest.
        byte[] swatches = png(
                4, 16, BufferedImage.TYPE_INT_RGB, (x, y) -> new int[] {0xFFFFFF, 0x00FF00, 0x123457, 0x765431}[y / 4]);
        Part part = obj(
                        BAR.replace("vt 0.01 0.5", "vt 0.5 0.1").replaceAll("vt [01] [01]", "vt 0.5 0.3"),
                        "newmtl skin\nmap_Kd\t-s 1 1 1 \"C:\\work\\SKIN.PNG\"\n",
                        Map.of("skin.png", swatches, "in.png", halves()))
                .parts()
                .get(0);
        assertThat(part.mesh().triangles()).isEqualTo(12);
        assertThat(areas(part)).containsOnly(Map.entry("#765431", 1100.0), Map.entry("#123457", 300.0));
    }

    @Test
    void greys_are_as_they_are_written_and_what_is_clear_has_no_colour() throws IOException {
        BufferedImage grey = new BufferedImage(8, 8, BufferedImage.TYPE_BYTE_GRAY);
        for (int i = 0; i < 64; i++) {
            grey.getRaster().setSample(i % 8, i / 8, 0, i % 8 < 4 ? 128 : 20);
        }
        assertThat(areas(bar(png(grey)).parts().get(0))).containsOnlyKeys("#808080", "#141414");
        byte[] clear = png(64, 64, BufferedImage.TYPE_INT_ARGB, (x, y) -> x < 32 ? RED : 0x10FFFFFF);
        assertThat(areas(bar(clear).parts().get(0))).containsOnlyKeys("#B03020", "none");
    }

    @Test
    void noise_of_a_photograph_is_no_colour_of_its_own() throws IOException {
        byte[] noisy = png(
                64,
                64,
                BufferedImage.TYPE_INT_RGB,
                (x, y) -> (x < 32 ? 0xB03828 : 0x286888) + (x * 7 + y * 13) % 7 * 0x010101);
        Part part = bar(noisy).parts().get(0);
        assertThat(part.coat().orElseThrow().hues()).hasSize(2);
        assertThat(areas(part).values().stream().mapToDouble(a -> a).min().orElseThrow())
                .isCloseTo(150, within(10 * 0.4));
    }

    @Test
    void the_soft_border_between_two_colours_is_no_third() throws IOException {
        // Two pixels of each row are mixed, of half a millimetre each.
        byte[] soft = png(64, 64, BufferedImage.TYPE_INT_RGB, (x, y) -> {
            int share = Math.max(0, Math.min(255, 128 * (x - 31) + y % 7 * 16));
            return 0x010101 * (30 + 200 * share / 255);
        });
        Coat coat = bar(soft).parts().get(0).coat().orElseThrow();
        assertThat(coat.hues()).hasSize(2);
        assertThat(coat.isOfMany()).isFalse();
    }

    /** Packing in blocks (ISO/IEC 10918-1, colour at half the resolution) draws a pale border round each colour. */
    @Test
    void a_drawing_in_three_colours_that_was_packed_as_a_photograph_has_three() throws IOException {
        BufferedImage drawing = new BufferedImage(800, 256, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 256; y++) {
            for (int x = 0; x < 800; x++) {
                boolean ring = Math.abs(Math.hypot(x - 200, y - 128) - 80) < 9;
                boolean leaf = Math.hypot((x - 560) / 1.8, y - 128) < 70;
                drawing.setRGB(x, y, ring ? 0x7A1F2B : leaf ? 0x2F7A4A : 0xF2EAD8);
            }
        }
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        ImageIO.write(drawing, "jpg", packed);
        Coat coat = bar(packed.toByteArray()).parts().get(0).coat().orElseThrow();
        assertThat(coat.hues()).hasSize(3);
        for (String drawn : List.of("#F2EAD8", "#2F7A4A", "#7A1F2B")) {
            assertThat(coat.hues())
                    .anyMatch(h -> h.colour()
                                    .orElseThrow()
                                    .lab()
                                    .differenceTo(Srgb.parse(drawn).lab())
                            < 3);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "GIF89a", "\u0089PNG\r\n\u001a\n broken"})
    void a_picture_that_cannot_be_read_leaves_the_colour_of_its_material(String bytes) throws IOException {
        Part part = bar(bytes.getBytes(StandardCharsets.ISO_8859_1)).parts().get(0);
        assertThat(part.coat()).isEmpty();
        assertThat(part.colour()).contains(Srgb.parse("#CCCCCC"));
    }

    @Test
    void faces_without_a_place_on_the_picture_have_the_colour_of_its_material() throws IOException {
        Part part = obj(
                        BAR.replaceAll("(\\d)/5", "$1//9"),
                        "newmtl skin\nKd 0 0 0\nmap_Kd skin.png\n",
                        Map.of("skin.png", halves()))
                .parts()
                .get(0);
        assertThat(areas(part))
                .containsOnlyKeys("#000000", "#B03020", "#2F6C8C")
                .containsEntry("#000000", 1100.0);
    }

    @Test
    void names_of_other_letters_are_read_in_the_first_line_as_in_all_others() throws IOException {
        String cube = "\u041A\u0443\u0431";
        for (String before : List.of("", "# exported\n", "\uFEFF")) {
            assertThat(read((before + "o " + cube + "\n" + BAR).getBytes(StandardCharsets.UTF_8))
                            .parts())
                    .extracting(Part::name)
                    .containsExactly(cube);
        }
    }

    private static String mark(Charset charset) {
        return charset.equals(StandardCharsets.UTF_8) ? "\uFEFF" : "";
    }

    /** Of an OBJ, its library and the name of its picture any may be written in one way and the others in another. */
    @ParameterizedTest
    @CsvSource({"UTF-8, UTF-8", "ISO-8859-1, ISO-8859-1", "UTF-8, ISO-8859-1", "ISO-8859-1, UTF-8"})
    void names_are_read_with_their_letters_however_those_are_written(Charset ofObj, Charset ofLibrary)
            throws IOException {
        String name = "stra\u00DFe gr\u00FCn.png";
        byte[] utf = name.getBytes(StandardCharsets.UTF_8);
        for (String given : List.of(
                name,
                Normalizer.normalize(name, Normalizer.Form.NFD),
                name.toUpperCase(Locale.ROOT).replace("SS", "\u00DF"),
                new String(utf, StandardCharsets.ISO_8859_1))) {
            ObjLibrary library = new ObjLibrary();
            byte[] text =
                    (mark(ofLibrary) + "newmtl Gr\u00FCn\nKd 0 1 0\nmap_Kd maps/" + name + "\n").getBytes(ofLibrary);
            assertThat(ObjLibrary.is(text)).isTrue();
            library.add("f\u00FC\u00DFe.mtl", new ByteArrayInputStream(text));
            library.add("other.mtl", stream("newmtl Gr\u00FCn\nKd 1 0 0\n"));
            library.addPicture("maps/" + given, new ByteArrayInputStream(halves()));
            byte[] obj = (mark(ofObj) + "mtllib F\u00DC\u00DFe.mtl\no W\u00FCrfel\n"
                            + BAR.replace("usemtl skin", "usemtl Gr\u00FCn"))
                    .getBytes(ofObj);
            assertThat(library.colours("bar.obj", obj).lines())
                    .as("of its own library")
                    .doesNotContain("Kd 1 0 0");
            PartedModel model = read(library.colours("bar.obj", obj)
                    .before(new ByteArrayInputStream(obj))
                    .readAllBytes());
            assertThat(model.unseen()).as(given).isEmpty();
            assertThat(model.parts()).extracting(Part::name).containsExactly("W\u00FCrfel");
            assertThat(areas(model.parts().get(0))).containsKey("#2F6C8C");
        }
        assertThat(read((mark(ofObj) + "o W\u00FCrfel\n" + BAR).getBytes(ofObj)).parts())
                .extracting(Part::name)
                .containsExactly("W\u00FCrfel");
    }

    @Test
    void of_models_that_call_different_materials_alike_each_has_the_colours_of_the_library_it_names()
            throws IOException {
        ObjLibrary given = new ObjLibrary();
        given.add("left.mtl", stream("newmtl skin\nKd 1 0 0\n"));
        given.add("right side.mtl", stream("newmtl skin\nKd 0 0 1\nmap_Kd skin.png\n"));
        given.addPicture("skin.png", new ByteArrayInputStream(halves()));
        assertThat(colours(given, "mtllib ./Left.mtl\n")).containsExactly("newmtl skin", "Kd 1 0 0");
        assertThat(colours(given, "# made today\nmtllib C:\\x\\right side.mtl\r\n"))
                .hasSize(4)
                .contains("Kd 0 0 1", "map_Kd 0");
        assertThat(colours(given, "mtllib left.mtl more.mtl\n"))
                .contains("Kd 1 0 0")
                .doesNotContain("Kd 0 0 1");
        assertThat(colours(given, "mtllib renamed.mtl\n")).contains("Kd 1 0 0", "Kd 0 0 1");
    }

    @Test
    void of_files_of_one_name_each_model_has_those_that_lie_beside_it() throws IOException {
        ObjLibrary given = new ObjLibrary();
        for (String side : List.of("left", "right")) {
            given.add("set/" + side + "/model.mtl", stream("newmtl " + side + "\nmap_Kd skin.png\n"));
            given.addPicture("set/" + side + "/maps/skin.png", stream(side));
        }
        byte[] head = "mtllib model.mtl\n".getBytes(StandardCharsets.US_ASCII);
        for (String side : List.of("left", "right")) {
            String picture = Base64.getEncoder().encodeToString(side.getBytes(StandardCharsets.US_ASCII));
            assertThat(given.colours("set/" + side + "/model.obj", head).lines())
                    .containsExactly("# picture 0 " + picture, "newmtl " + side, "map_Kd 0");
        }
    }

    @Test
    void of_thousands_of_libraries_so_much_is_taken_as_a_model_can_need() throws IOException {
        ObjLibrary given = new ObjLibrary();
        for (int i = 0; i < 2_000; i++) {
            given.add(i + ".mtl", stream("newmtl a\nKd 1 1 1\n".repeat(10)));
        }
        assertThat(colours(given, "")).hasSize(10_000);
    }

    @Test
    void what_was_to_give_colours_and_is_not_there_is_named() throws IOException {
        String shows = "newmtl skin\nmap_Kd maps\\skin.png\n";
        assertThat(obj(BAR, shows, Map.of()).unseen()).containsExactly("skin.png");
        assertThat(obj(BAR, shows, Map.of("skin.png", new byte[99])).unseen()).containsExactly("picture of skin");
        assertThat(obj(BAR, shows, Map.of("skin.png", halves())).unseen()).isEmpty();
        assertThat(obj(BAR, shows + "newmtl unused\nmap_Kd other.png\n", Map.of("skin.png", halves()))
                        .unseen())
                .isEmpty();
        byte[] alone = ("mtllib ./parts/bar.mtl\n" + BAR).getBytes(StandardCharsets.US_ASCII);
        assertThat(read(alone).unseen()).containsExactly("bar.mtl");
        assertThat(obj("mtllib ./parts/bar.mtl\n" + BAR, "newmtl skin\nKd 1 1 1\n", Map.of())
                        .unseen())
                .isEmpty();
        String textured = threeMf(GROUP.formatted("", 0.0, 1.0, 1.0, 0.0), "2");
        assertThat(packed(textured, halves()).unseen()).isEmpty();
        assertThat(packed(textured, new byte[99]).unseen()).containsExactly("skin.png");
        assertThat(packed(textured, new byte[99]).with(read(alone)).unseen()).containsExactly("skin.png", "bar.mtl");
    }

    private static List<String> colours(ObjLibrary given, String head) {
        return given.colours("x.obj", head.getBytes(StandardCharsets.ISO_8859_1))
                .lines();
    }

    private static InputStream stream(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    @Test
    void a_line_that_is_refused_is_named_as_the_models_own_file_counts_it() {
        assertThatThrownBy(() -> obj("v 0 0 0\nf 1 2 3\n", "newmtl skin\nKd 0 0 0\n", Map.of()))
                .isInstanceOf(Refusal.class)
                .hasMessageStartingWith("Line 2,");
    }

    @Test
    void reading_a_large_picture_can_be_cancelled() throws IOException {
        byte[] large = png(2000, 2000, BufferedImage.TYPE_BYTE_BINARY, (x, y) -> 0);
        assertThatThrownBy(() -> Picture.read(large, new Stopped())).isInstanceOf(CancellationException.class);
    }

    private static String threeMf(String resources, String pid) {
        String[] lines = BAR.split("\n");
        String corners = Arrays.stream(lines)
                .filter(l -> l.startsWith("v "))
                .map(l -> l.split(" "))
                .map(w -> "<vertex x='%s' y='%s' z='%s'/>".formatted(w[1], w[2], w[3]))
                .collect(Collectors.joining());
        StringBuilder triangles = new StringBuilder();
        for (String line : lines) {
            if (line.startsWith("f ")) {
                int[] n = Arrays.stream(line.substring(2).split("[ /]"))
                        .mapToInt(w -> Integer.parseInt(w) - 1)
                        .toArray();
                String form = "<triangle v1='%d' v2='%d' v3='%d' pid='" + pid + "' p1='%d' p2='%d' p3='%d'/>";
                triangles.append(form.formatted(n[0], n[2], n[4], n[1], n[3], n[5]));
                triangles.append(form.formatted(n[0], n[4], n[6], n[1], n[5], n[7]));
            }
        }
        return """
                <model unit='millimeter' xmlns='http://schemas.microsoft.com/3dmanufacturing/core/2015/02' xmlns:m='http://schemas.microsoft.com/3dmanufacturing/material/2015/02'>
                <resources>%s<object id='9'><mesh><vertices>%s</vertices><triangles>%s</triangles></mesh></object></resources>
                <build><item objectid='9'/></build></model>"""
                .formatted(resources, corners, triangles);
    }

    /** The picture comes first, as an archive may have it. */
    private static PartedModel packed(String model, byte[] picture) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("3D/Textures/Skin.png"));
            zip.write(picture);
            zip.putNextEntry(new ZipEntry("3D/3dmodel.model"));
            zip.write(model.getBytes(StandardCharsets.UTF_8));
        }
        return read(out.toByteArray());
    }

    private static final String GROUP =
            """
            <m:texture2d id='1' path='/3D/Textures/skin.png' contenttype='image/png'%s/>
            <m:texture2dgroup id='2' texid='1'><m:tex2coord u='%s' v='0'/><m:tex2coord u='%s' v='0'/><m:tex2coord u='%s' v='1'/>
            <m:tex2coord u='%s' v='1'/><m:tex2coord u='0.01' v='0.5'/></m:texture2dgroup>
            """;

    @ParameterizedTest
    @CsvSource({
        "'', 0, 1, 150",
        "'', -3, -2, 150",
        "' tilestyleu=\"mirror\"', 1, 2, 150",
        "' tilestyleu=\"mirror\"', 0, 2, 150",
        "' tilestyleu=\"clamp\"', 0, 2, 225",
        "' tilestyleu=\"clamp\"', 1, 9, 300"
    })
    void a_3mf_file_shows_its_pictures_as_it_says_they_are_laid(String style, double left, double right, double blue)
            throws IOException {
        String resources = GROUP.formatted(style, left, right, right, left);
        Part part = packed(threeMf(resources, "2"), halves()).parts().get(0);
        assertThat(areas(part).get("#2F6C8C")).isCloseTo(blue, within(2 * 10 * 0.4));
    }

    @Test
    void beyond_a_picture_that_is_not_repeated_there_is_no_colour_and_below_is_below() throws IOException {
        byte[] above = png(16, 16, BufferedImage.TYPE_INT_ARGB, (x, y) -> y < 4 ? BLUE : RED);
        String resources = GROUP.formatted(" tilestyleu='none'", 0.0, 2.0, 2.0, 0.0);
        Part part = packed(threeMf(resources, "2"), above).parts().get(0);
        assertThat(areas(part).get("none")).isCloseTo(150, within(4.0));
        // A quarter of the half that shows it, and that quarter behind.
        assertThat(areas(part).get("#2F6C8C")).isCloseTo(150 / 4.0, within(15 * 0.4));
        Coat coat = part.coat().orElseThrow();
        for (int t = 0; t < coat.triangles(); t++) {
            boolean blue = coat.hues().get(coat.hue(t)).colour().equals(java.util.Optional.of(Srgb.parse("#2F6C8C")));
            assertThat(blue && part.mesh().y(3 * t) < 7).isFalse();
        }
    }

    @Test
    void of_properties_over_one_another_the_picture_counts() throws IOException {
        String resources = "<basematerials id='3'><base name='a' displaycolor='#111111'/></basematerials>"
                + GROUP.formatted("", 0.0, 1.0, 1.0, 0.0)
                + "<m:multiproperties id='4' pids='3 2'>"
                + "<m:multi pindices='0 0'/><m:multi pindices='0 1'/><m:multi pindices='0 2'/><m:multi pindices='0 3'/><m:multi pindices='0 4'/>"
                + "</m:multiproperties>";
        Part part = packed(threeMf(resources, "4"), halves()).parts().get(0);
        assertThat(areas(part)).containsOnlyKeys("#B03020", "#2F6C8C");
        assertThat(areas(part).get("#2F6C8C")).isCloseTo(150, within(4.0));
    }

    @Test
    void a_3mf_file_without_the_picture_it_names_has_no_colour() throws IOException {
        String resources = GROUP.formatted("", 0.0, 1.0, 1.0, 0.0).replace("skin.png", "other.png");
        assertThat(packed(threeMf(resources, "2"), halves()).parts().get(0).colour())
                .isEmpty();
    }
}
