package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class ModelReaderTest {
    private static final String CUBE_OBJ =
            """
            # a cube of 10 mm, of quads, in two groups
            o cube
            v 0 0 0
            v 10 0 0
            v 10 10 0
            v 0 10 0
            v 0 0 10
            v 10 0 10
            v 10 10 10
            v 0 10 10
            vn 0 0 1
            g bottom
            f 4 3 2 1
            g rest
            f 5//1 6//1 7//1 8//1
            f 1/1 2/2 6/3 5/4
            f 2 3 7 6
            f -6 -5 -1 -2
            f 4 1 5 8
            """;

    /** The cube of the core specification's own example: eight corners and twelve triangles, 10 units long. */
    private static final String CUBE_MESH =
            """
            <mesh><vertices>\
            <vertex x="0" y="0" z="0"/><vertex x="10" y="0" z="0"/><vertex x="10" y="10" z="0"/><vertex x="0" y="10" z="0"/>\
            <vertex x="0" y="0" z="10"/><vertex x="10" y="0" z="10"/><vertex x="10" y="10" z="10"/><vertex x="0" y="10" z="10"/>\
            </vertices><triangles>\
            <triangle v1="3" v2="2" v3="1"/><triangle v1="1" v2="0" v3="3"/><triangle v1="4" v2="5" v3="6"/><triangle v1="6" v2="7" v3="4"/>\
            <triangle v1="0" v2="1" v3="5"/><triangle v1="5" v2="4" v3="0"/><triangle v1="1" v2="2" v3="6"/><triangle v1="6" v2="5" v3="1"/>\
            <triangle v1="2" v2="3" v3="7"/><triangle v1="7" v2="6" v3="2"/><triangle v1="3" v2="0" v3="4"/><triangle v1="4" v2="7" v3="3"/>\
            </triangles></mesh>""";

    private static PartedModel model(byte[] bytes) throws IOException {
        return ModelReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD);
    }

    private static Body read(byte[] bytes) throws IOException {
        return model(bytes).body();
    }

    private static Body read(String text) throws IOException {
        return read(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String model(String unit, String resources, String build) {
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?><model unit=\"" + unit
                + "\" xmlns=\"http://schemas.microsoft.com/3dmanufacturing/core/2015/02\"><resources>" + resources
                + "</resources><build>" + build + "</build></model>";
    }

    private static String object(int id, String inside) {
        return "<object id=\"" + id + "\" type=\"model\">" + inside + "</object>";
    }

    private static byte[] archive(String... namesAndTexts) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
                zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] threeMf(String model) throws IOException {
        return archive(
                "[Content_Types].xml",
                "<Types/>",
                "_rels/.rels",
                "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">"
                        + "<Relationship Target=\"/3D/3dmodel.model\" Id=\"rel0\""
                        + " Type=\"http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel\"/></Relationships>",
                "3D/3dmodel.model",
                model);
    }

    private static void refuses(byte[] bytes, String words) {
        assertThatThrownBy(() -> read(bytes)).isInstanceOf(Refusal.class).hasMessageContaining(words);
    }

    private static void refusesObj(String text, String words) {
        refuses(text.getBytes(StandardCharsets.UTF_8), words);
    }

    @Test
    void an_obj_of_quads_groups_and_negative_numbers_is_a_cube() throws IOException {
        Body cube = read(CUBE_OBJ);
        assertThat(cube.triangles()).isEqualTo(12);
        assertThat(cube.volume()).isCloseTo(1000, within(1e-6));
        assertThat(cube.height()).isEqualTo(Height.ofMillimetres(10));
    }

    @Test
    void an_obj_may_be_indented_go_on_on_the_next_line_and_say_what_it_does() throws IOException {
        String written = CUBE_OBJ.replace("# a cube of 10 mm", "# C:\\cubes\\")
                .replace("v 10 0 0", "  v 10 \\\n 0 \\\n0")
                .replace("f 4 3 2 1", "\tf 4 3 \\\n2 1 # the bottom")
                .replace("o cube", "# of quads \\\n  o cube");
        assertThat(read(written).volume()).isEqualTo(read(CUBE_OBJ).volume()).isPositive();
        assertThat(read(written).triangles()).isEqualTo(12);
        assertThatThrownBy(() -> read(written.replace("f 2 3 7 6", "f 2 3 7 99")))
                .hasMessageStartingWith("Line 21, “f 2 3 7 99”");
        assertThatThrownBy(() -> read(CUBE_OBJ + "f 1 2 \\")).hasMessageStartingWith("Line 20 is a face of 2 corners");
    }

    /** A cube by its corners at once, and one tetrahedron in two more formats of text. */
    private static Stream<String> texts() {
        String facet = "facet normal 0 0 0 outer loop vertex %s vertex %s vertex %s endloop endfacet ";
        String stl = ("solid " + facet.repeat(4) + "endsolid")
                .formatted(
                        "0 0 0", "0 9 0", "9 0 0", "0 0 0", "9 0 0", "0 0 9", "0 0 0", "0 0 9", "0 9 0", "9 0 0",
                        "0 9 0", "0 0 9")
                .replaceAll(" (?=facet|outer|vertex|endloop|endfacet|endsolid)", "\n");
        return Stream.of(
                CUBE_OBJ.substring(CUBE_OBJ.indexOf("v 0 0 0")),
                stl,
                stl.toUpperCase(Locale.ROOT),
                "ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\nelement face 4\n"
                        + "property list uchar int vertex_indices\nend_header\n0 0 0\n9 0 0\n0 9 0\n0 0 9\n"
                        + "3 0 2 1\n3 0 1 3\n3 0 3 2\n3 1 2 3\n");
    }

    @ParameterizedTest
    @MethodSource("texts")
    void a_mark_that_an_editor_put_before_a_text_is_no_part_of_it(String text) throws IOException {
        byte[] marked = ("\uFEFF" + text).getBytes(StandardCharsets.UTF_8);
        assertThat(ModelReader.isModel(marked, marked.length)).isTrue();
        assertThat(read(marked).volume()).isPositive().isEqualTo(read(text).volume());
    }

    @ParameterizedTest
    @MethodSource("texts")
    void numbers_may_have_a_comma_as_the_computers_language_writes_them(String text) throws IOException {
        String points = text.replaceAll("\\b(9|10) ", "$1.50 ");
        assertThat(points).contains(".50 ");
        assertThat(read(points.replace(".50 ", ",50 ")).volume())
                .isPositive()
                .isEqualTo(read(points).volume());
    }

    @ParameterizedTest
    @MethodSource("texts")
    void text_of_two_bytes_a_letter_is_called_that(String text) {
        for (Charset of : List.of(StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE)) {
            assertThatThrownBy(() -> read(("\uFEFF" + text).getBytes(of)))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("two bytes a letter (UTF-16); save it as plain text");
        }
    }

    @Test
    void a_text_that_is_no_model_is_not_asked_for_triangles() {
        String recipe = "Leeks, washed and cut into rings; butter; a little flour. ".repeat(9);
        assertThatThrownBy(() -> read(recipe))
                .isInstanceOf(Refusal.class)
                .hasMessage("The file is text in which no model begins: an STL begins with “solid”, a PLY with “ply”, "
                        + "and an OBJ has its corners in lines “v 0 0 0”. Export the model again.");
    }

    @Test
    void an_obj_has_the_colours_of_its_material_library() throws IOException {
        String library =
                """
                # made for a test
                newmtl Harbour blue
                Ns 250
                Kd 0.0 0.4 0.8
                newmtl grey
                \tKd 0.2
                newmtl none
                Kd spectral file.rfl
                """;
        assertThat(ObjLibrary.is(library.getBytes(StandardCharsets.US_ASCII))).isTrue();
        assertThat(ObjLibrary.is(CUBE_OBJ.getBytes(StandardCharsets.US_ASCII))).isFalse();
        String cube = CUBE_OBJ.replaceAll("(?m)^[go] .*$", "");
        String obj = "usemtl Harbour blue\n" + cube + "usemtl grey\no tag\n" + moved(cube, 20) + "usemtl none\n"
                + moved(cube, 40) + "usemtl never\no\n" + moved(cube, 60);
        ObjLibrary given = new ObjLibrary();
        given.add("any.mtl", new ByteArrayInputStream(library.getBytes(StandardCharsets.US_ASCII)));
        given.add(
                "other.mtl", new ByteArrayInputStream("newmtl other\nKd 1 0 0\n".getBytes(StandardCharsets.US_ASCII)));
        ObjColours colours = given.colours("", new byte[0]);
        byte[] bytes = colours.before(new ByteArrayInputStream(obj.getBytes(StandardCharsets.US_ASCII)))
                .readAllBytes();
        List<Part> parts = model(bytes).parts();
        assertThat(parts)
                .extracting(Part::name)
                .startsWith("Harbour blue", "tag")
                .hasSize(4);
        assertThat(parts)
                .extracting(p -> p.colour().map(Srgb::hex).orElse("none"))
                .containsExactly("#0066CC", "#333333", "none", "none");
        // Without it the names are still there, and nothing else of it is read.
        assertThat(model(obj.getBytes(StandardCharsets.US_ASCII)).parts())
                .extracting(Part::name)
                .startsWith("Harbour blue", "tag");
        assertThat(model(bytes).body().volume()).isCloseTo(4000, within(1e-3));
    }

    /** Its corners counted back from the last. */
    private static String moved(String cube, int by) {
        return cube.lines()
                .map(l -> l.startsWith("v ")
                        ? "v " + (Double.parseDouble(l.split(" ")[1]) + by) + l.substring(l.indexOf(' ', 2))
                        : l)
                .map(l -> l.startsWith("f ") && !l.contains("-") ? backwards(l) : l)
                .collect(Collectors.joining("\n", "", "\n"));
    }

    private static String backwards(String face) {
        return Arrays.stream(face.substring(2).split(" "))
                .map(w -> String.valueOf(Integer.parseInt(w.split("/")[0]) - 9))
                .collect(Collectors.joining(" ", "f ", ""));
    }

    @Test
    void an_obj_that_is_none_says_where() {
        refusesObj("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n", "Line 4");
        refusesObj("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n", "names corner “9”, and there are 3");
        refusesObj("v 0 0 0\nf 1 -5 1\n", "names corner “-5”");
        refusesObj("v 0 0 0\nv 0 0 1\nf 0 1 2\n", "names corner “0”");
        refusesObj("v 0 0 0\nv 0 0 1\nf 1 2\n", "a face of 2 corners");
        refusesObj("v 0 zero 0\n", "Line 1, “v 0 zero 0”, does not give three");
        refusesObj("v 0 0 0\nv 0 0 1\n", "2 corners and no faces");
        refusesObj("v 0 0 NaN\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "which is no place");
        refusesObj(
                "v 0 0 1e30\nv 1 0 0\nv 0 1 0\nf 1 2 3\n",
                "hundreds of metres away from the model or from its origin; repair");
        refusesObj(
                "v 4512345 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n",
                "hundreds of metres away from the model or from its origin; repair");
        refusesObj("v 1e30 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "Line 4 gives a corner at (1.0E30, 0.0, 0.0)");
    }

    /** A wedge of 60 × 40 × 10 mm, its corners told from so far away. */
    private static String wedge(double x, double y) {
        StringBuilder obj = new StringBuilder();
        for (double[] corner :
                new double[][] {{0, 0, 0}, {60, 0, 0}, {60, 40, 0}, {0, 40, 0}, {0, 0, 10}, {60, 0, 10}}) {
            obj.append("v %s %s %s%n".formatted(x + corner[0], y + corner[1], corner[2]));
        }
        return obj.append("f 4 3 2 1\nf 1 2 6 5\nf 2 3 6\nf 4 1 5\nf 5 6 3 4\n").toString();
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0",
        "999000, -999000",
        "999980, -1000010",
        "4512345.6, 5401234.5",
        "-4512345600, 5401234500",
        "32512345, 7"
    })
    void what_was_cut_out_of_a_map_is_read_however_far_away_the_map_begins(double x, double y) throws IOException {
        // Maps tell places in metres from where their zone begins: up to 833 km to the east and 10,000 km to the north
        // in the Universal Transverse Mercator grid (DMA TM 8358.2, 1989, from memory); programs take metres for mm.
        Body wedge = read(wedge(x, y));
        assertThat(wedge.volume()).isCloseTo(12_000, within(50.0));
        assertThat(wedge.footprint().getWidth()).isCloseTo(60, within(0.07));
        assertThat(wedge.footprint().getHeight()).isCloseTo(40, within(0.07));
    }

    @Test
    void stl_from_a_map_is_read_as_finely_as_the_file_holds_it() throws IOException {
        StringBuilder text = new StringBuilder("solid map\n");
        ByteBuffer bytes = ByteBuffer.allocate(84 + 2 * 50).order(ByteOrder.LITTLE_ENDIAN);
        bytes.putInt(80, 2).position(84);
        double[][][] facets = {{{0, 0, 0}, {60.5, 0, 0}, {60.5, 40, 9}}, {{0, 0, 0}, {60.5, 40, 9}, {0, 40, 9}}};
        for (double[][] facet : facets) {
            text.append("facet normal 0 0 1\nouter loop\n");
            bytes.putFloat(0).putFloat(0).putFloat(0);
            for (double[] corner : facet) {
                text.append("vertex %s %s %s%n".formatted(512345.25 + corner[0], 5401234.25 + corner[1], corner[2]));
                bytes.putFloat((float) (512345.25 + corner[0]))
                        .putFloat((float) (5401234.25 + corner[1]))
                        .putFloat((float) corner[2]);
            }
            text.append("endloop\nendfacet\n");
            bytes.putShort((short) 0);
        }
        text.append("endsolid map\n");

        Body fromText = read(text.toString());
        assertThat(fromText.footprint().getWidth()).isCloseTo(60.5, within(0.07));
        assertThat(fromText.footprint().getHeight()).isCloseTo(40, within(0.07));
        // At 5,400,000 a float knows halves.
        Body fromBytes = read(bytes.array());
        assertThat(fromBytes.footprint().getWidth()).isCloseTo(60.5, within(0.07));
        assertThat(fromBytes.footprint().getHeight()).isCloseTo(40, within(0.5));
        assertThat(fromBytes.height()).isEqualTo(Height.ofMillimetres(9));
    }

    @Test
    void floats_that_know_no_millimetres_where_the_map_lies_are_refused() {
        ByteBuffer bytes = ByteBuffer.allocate(84 + 50).order(ByteOrder.LITTLE_ENDIAN);
        bytes.putInt(80, 1).position(84 + 12);
        bytes.putFloat(0)
                .putFloat(5.4e9f)
                .putFloat(0)
                .putFloat(60)
                .putFloat(5.4e9f)
                .putFloat(0);
        bytes.putFloat(0).putFloat(5.4e9f).putFloat(9);
        refuses(bytes.array(), "Triangle 1 has a corner at (0.0, 5.4E9, 0.0), which is hundreds of metres away");
    }

    @Test
    void tiles_of_one_map_in_two_files_lie_beside_one_another() throws IOException {
        Body west = read(wedge(4512345.5, 5401234.5));
        Body east = read(wedge(4512345.5 + 60, 5401234.5));
        assertThat(east.footprint().getMinX()).isCloseTo(west.footprint().getMaxX(), within(0.07));
        assertThat(east.footprint().getMinY()).isEqualTo(west.footprint().getMinY());
    }

    @Test
    void the_specifications_cube_is_read() throws IOException {
        Body cube = read(threeMf(model("millimeter", object(1, CUBE_MESH), "<item objectid=\"1\"/>")));
        assertThat(cube.triangles()).isEqualTo(12);
        assertThat(cube.volume()).isCloseTo(1000, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"micron, 0.01", "millimeter, 10", "centimeter, 100", "inch, 254", "foot, 3048", "meter, 10000"})
    void every_unit_of_the_specification_becomes_millimetres(String unit, double side) throws IOException {
        // 3MF Core Specification 1.3, §3.4: the six units of a model.
        Body cube = read(threeMf(model(unit, object(1, CUBE_MESH), "<item objectid=\"1\"/>")));
        assertThat(cube.footprint().getWidth()).isCloseTo(side, within(side * 1e-6));
        assertThat(cube.height().millimetres()).isCloseTo(side, within(side * 1e-6));
    }

    @Test
    void components_and_items_stand_where_their_transforms_put_them() throws IOException {
        // Rows of the matrix, as the specification has them: the last is the translation.
        String twice = object(
                2,
                "<components><component objectid=\"1\"/>"
                        + "<component objectid=\"1\" transform=\"2 0 0 0 1 0 0 0 1 20 0 0\"/></components>");
        Body both = read(threeMf(model(
                "millimeter",
                object(1, CUBE_MESH) + twice,
                "<item objectid=\"2\" transform=\"0 1 0 -1 0 0 0 0 1 0 0 5\"/>")));
        assertThat(both.triangles()).isEqualTo(24);
        assertThat(both.volume()).isCloseTo(1000 + 2000, within(1e-3));
        // x 0…40 becomes y, y 0…10 becomes −x.
        assertThat(both.footprint().getMinX()).isCloseTo(-10, within(1e-6));
        assertThat(both.footprint().getMaxY()).isCloseTo(40, within(1e-6));
        assertThat(both.lifted()).isCloseTo(-5, within(1e-9));
    }

    @Test
    void an_object_that_is_not_built_is_left_out() throws IOException {
        String other = object(2, CUBE_MESH);
        Body one = read(threeMf(model("millimeter", object(1, CUBE_MESH) + other, "<item objectid=\"1\"/>")));
        assertThat(one.triangles()).isEqualTo(12);
    }

    @Test
    void an_archive_without_relations_is_read_if_it_holds_one_model() throws IOException {
        String cube = model("millimeter", object(1, CUBE_MESH), "<item objectid=\"1\"/>");
        assertThat(read(archive("3D/any.model", cube)).triangles()).isEqualTo(12);
        refuses(archive("a.model", cube, "b.model", cube), "does not say which part it begins with");
    }

    @Test
    void damaged_and_hostile_archives_are_refused_in_a_sentence() throws IOException {
        String item = "<item objectid=\"1\"/>";
        refuses(archive("readme.txt", "hello"), "no 3D model part");
        refuses(Arrays.copyOf(threeMf(model("millimeter", object(1, CUBE_MESH), item)), 400), "cut short");
        refuses(threeMf("<model><resources>"), "damaged or cut short, on line 1");
        refuses(threeMf(model("cubit", object(1, CUBE_MESH), item)), "“cubit”");
        refuses(threeMf(model("millimeter", object(1, CUBE_MESH), "")), "nothing to build");
        refuses(
                threeMf(model("millimeter", object(1, CUBE_MESH), "<item objectid=\"7\"/>")),
                "object 7, which is not in it");
        refuses(
                threeMf(model("millimeter", object(1, CUBE_MESH.replace("v1=\"3\"", "v1=\"33\"")), item)),
                "names corner 33, and there are 8");
        refuses(threeMf(model("millimeter", object(1, CUBE_MESH.replace("x=\"10\"", "x=\"ten\"")), item)), "“ten”");
        refuses(
                threeMf(model("millimeter", object(1, CUBE_MESH), "<item objectid=\"1\" transform=\"1 0 0\"/>")),
                "has 3 numbers and must have 12");
        String mix = "<multiproperties id=\"7\" pids=\"%s\"/>";
        refuses(threeMf(model("millimeter", mix.formatted("1 ".repeat(101)), item)), "is made of 101 others");
        refuses(threeMf(model("millimeter", mix.formatted("one"), item)), "“one” on line");
        String loop = object(1, "<components><component objectid=\"2\"/></components>")
                + object(2, "<components><component objectid=\"1\"/></components>");
        refuses(threeMf(model("millimeter", loop, item)), "or holds itself");
        StringBuilder bush = new StringBuilder(object(1, CUBE_MESH));
        for (int id = 2; id < 40; id++) {
            bush.append(object(
                    id, ("<components>" + ("<component objectid=\"" + (id - 1) + "\"/>").repeat(2) + "</components>")));
        }
        refuses(threeMf(model("millimeter", bush.toString(), "<item objectid=\"39\"/>")), "places over 100000 objects");
    }

    @Test
    void nothing_outside_the_file_is_looked_up() throws IOException {
        String hostile = "<?xml version=\"1.0\"?><!DOCTYPE model [<!ENTITY secret SYSTEM \"file:///etc/hostname\">]>"
                + "<model unit=\"millimeter\"><resources>" + object(1, CUBE_MESH)
                + "</resources><build><item objectid=\"&secret;\"/></build></model>";
        assertThatThrownBy(() -> read(threeMf(hostile))).isInstanceOf(Refusal.class);
    }

    @Test
    void an_archive_that_unpacks_without_end_is_not_read() throws IOException {
        refuses(archive("3D/3dmodel.model", "<model>" + " ".repeat(8_000_000) + "</model>"), "unpacks to over");
        String cube = model("millimeter", object(1, CUBE_MESH), "<item objectid=\"1\"/>");
        refuses(archive("3D/any.model", cube, "Metadata/plate.png", " ".repeat(8_000_000)), "unpacks to over");
    }

    @Test
    void kinds_are_told_by_content() throws IOException {
        byte[] stl = StlWriter.binary(new Shapes().box(0, 0, 0, 10, 10, 10).mesh());
        assertThat(read(stl).triangles()).isEqualTo(12);
        assertThat(ModelReader.isModel(stl, stl.length)).isTrue();
        assertThat(ModelReader.isModel(CUBE_OBJ.getBytes(), CUBE_OBJ.length())).isTrue();
        assertThat(ModelReader.isModel(archive("x", "y"), 100)).isTrue();
        assertThat(ModelReader.isModel("G28\nG1 X10 E1\n".getBytes(), 14)).isFalse();
        refuses(new byte[0], "The file is empty");
    }

    @Test
    void a_triangle_between_several_colours_has_that_of_most_of_its_corners() throws IOException {
        String group = "<colorgroup id=\"9\"><color color=\"#102030\"/><color color=\"#C0A010\"/></colorgroup>";
        String mesh = CUBE_MESH
                .replace(
                        "v1=\"4\" v2=\"5\" v3=\"6\"/>",
                        "v1=\"4\" v2=\"5\" v3=\"6\" pid=\"9\" p1=\"0\" p2=\"1\" p3=\"1\"/>")
                .replace(
                        "v1=\"6\" v2=\"7\" v3=\"4\"/>",
                        "v1=\"6\" v2=\"7\" v3=\"4\" pid=\"9\" p1=\"0\" p2=\"1\" p3=\"0\"/>");
        String object = "<object id=\"1\" pid=\"9\" pindex=\"0\">" + mesh + "</object>";
        Coat coat = model(threeMf(model("millimeter", group + object, "<item objectid=\"1\"/>")))
                .coats()
                .get(0);
        assertThat(IntStream.range(0, 12).filter(t -> coat.hue(t) == 1)).containsExactly(2);
    }

    /** Written by lib3mf 2.4.1, the 3MF Consortium's own library: objects, components, both kinds of material. */
    @Test
    void a_file_of_the_consortiums_library_gives_its_parts_names_and_colours() throws IOException {
        byte[] bytes = getClass().getResourceAsStream("by-lib3mf.3mf").readAllBytes();
        PartedModel model = model(bytes);
        assertThat(model.parts()).extracting(Part::name).containsExactly("Red cube", "Blue tag", "Painted", "Painted");
        assertThat(model.parts())
                .extracting(p -> p.colour().orElseThrow().hex())
                .as("two thirds of the painted cube are green")
                .containsExactly("#C81020", "#2040C8", "#10A040", "#10A040");
        assertThat(model.coats()).containsOnlyKeys(2, 3);
        assertThat(model.parts()).allSatisfy(p -> assertThat(p.mesh().volume()).isCloseTo(1000, within(1e-3)));
        assertThat(model.parts().get(3).mesh().bottom()).isEqualTo(5000);
        assertThat(model.under("file").parts()).extracting(Part::name).contains("Painted 1", "Painted 2");
    }

    /**
     * Written by lib3mf 2.4.1: objects in model parts of their own, as the 3MF Production Extension has them, turned by 90° about z
     * and moved by 100 and 50 mm.
     */
    @Test
    void objects_may_lie_in_model_parts_of_their_own() throws IOException {
        PartedModel model =
                model(getClass().getResourceAsStream("parts-by-lib3mf.3mf").readAllBytes());
        assertThat(model.parts()).extracting(Part::name).containsExactly("Red cube", "Blue tag");
        assertThat(model.parts()).extracting(p -> Math.rint(p.mesh().volume())).containsExactly(1000.0, 64.0);
        assertThat(model.body().footprint().getWidth()).isCloseTo(10, within(1e-3));
        assertThat(model.body().footprint().getHeight()).isCloseTo(24, within(1e-3));
    }

    private static byte[] withPart(String root, String name, String part) throws IOException {
        return archive(
                "_rels/.rels",
                "<Relationships><Relationship Target=\"/3D/3dmodel.model\""
                        + " Type=\"http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel\"/></Relationships>",
                "3D/3dmodel.model",
                root,
                name,
                part);
    }

    @Test
    void each_model_part_has_a_unit_and_materials_of_its_own() throws IOException {
        String path =
                " xmlns:p=\"http://schemas.microsoft.com/3dmanufacturing/production/2015/06\" p:path=\"/3D/Other.model\"";
        String item = "<item objectid=\"1\" transform=\"1 0 0 0 1 0 0 0 1 1 0 0\"" + path + "/>";
        String other = model("inch", object(1, CUBE_MESH), "");
        Body cube = read(withPart(model("centimeter", "", item), "3D/other.MODEL", other));
        assertThat(cube.volume()).isCloseTo(Math.pow(254, 3), within(100.0));
        assertThat(cube.footprint().getMinX()).isCloseTo(10, within(1e-3));
        refuses(
                withPart(model("millimeter", "", item), "3D/else.model", other),
                "object 1 of “3D/Other.model”, which is not in it");
        refuses(
                withPart(model("millimeter", "", item), "3D/other.model", model("inch", object(2, CUBE_MESH), "")),
                "object 1 of “3D/Other.model”, which is not in it");
        String loop = "<object id=\"1\"><components><component objectid=\"1\"" + path + "/></components></object>";
        refuses(
                withPart(model("millimeter", loop, item), "3D/other.model", model("inch", loop, "")),
                "or holds itself");
    }

    private static String extended(String attributes, String resources) {
        return model("millimeter", resources + object(9, CUBE_MESH), "<item objectid=\"9\"/>")
                .replace("<model ", "<model " + attributes + " ");
    }

    /** Source: 3MF Core Specification 1.3, the attribute “requiredextensions” of a model (from memory). */
    @Test
    void a_3mf_that_requires_what_is_not_read_is_refused_and_says_what_that_is() throws IOException {
        String beams = "xmlns:b=\"http://schemas.microsoft.com/3dmanufacturing/beamlattice/2017/02\"";
        String known = "xmlns:m=\"http://schemas.microsoft.com/3dmanufacturing/material/2015/02\" "
                + "xmlns:own=\"urn:a-program's-own\"";
        refuses(threeMf(extended(beams + " requiredextensions=\"b\"", "")), "requires “beamlattice”");
        assertThat(read(threeMf(extended(beams, ""))).volume()).isCloseTo(1000, within(1e-6));
        assertThat(read(threeMf(extended(known + " requiredextensions=\"m own other\"", "")))
                        .volume())
                .isCloseTo(1000, within(1e-6));
    }

    /** Names of another namespace are none of the core's: a slice of the Slice Extension has corners that are no mesh's. */
    @Test
    void elements_of_an_extension_are_not_taken_for_those_of_a_mesh() throws IOException {
        String slices =
                """
                <s:slicestack id="5" zbottom="0"><s:slice ztop="1"><s:vertices><s:vertex x="0" y="0"/><s:vertex x="9" y="0"/>\
                <s:vertex x="0" y="9"/></s:vertices><s:polygon startv="0"><s:segment v2="1"/></s:polygon></s:slice></s:slicestack>\
                """;
        String attributes = "xmlns:s=\"http://schemas.microsoft.com/3dmanufacturing/slice/2015/07\"";
        assertThat(read(threeMf(extended(attributes, slices))).volume()).isCloseTo(1000, within(1e-6));
    }

    /** Materials and Properties Extension of the 3MF Consortium: composites of base materials, and properties in layers. */
    @ParameterizedTest
    @CsvSource({
        // Half and half of red and white by single-constant Kubelka-Munk, as blends are; then white alone.
        "3, 0, '', '#CE4339'",
        "3, 1, White, '#E8E4DA'",
        // Shares that are none are passed over.
        "3, 2, White, '#E8E4DA'",
        // Blue over red, quite opaque, clear and half; then green and pink times red. All computed apart
        // from the core. A name stays with its own colour.
        "5, 0, '', '#0000FF'",
        "5, 1, Red, '#C03028'",
        "5, 2, '', '#8C20BE'",
        "6, 0, '', '#003000'",
        "6, 1, '', '#C01328'"
    })
    void what_is_mixed_or_laid_over_has_one_colour(int group, int index, String name, String colour)
            throws IOException {
        String resources =
                """
                <basematerials id="1"><base name="Red" displaycolor="#C03028"/><base name="White" displaycolor="#E8E4DA"/></basematerials>
                <colorgroup id="2"><color color="#0000FF"/><color color="#0000FF00"/><color color="#0000FF80"/></colorgroup>
                <colorgroup id="4"><color color="#00FF00"/><color color="#FF80FF"/></colorgroup>
                <compositematerials id="3" matid="1" matindices="0 1"><composite values="1 1"/><composite values="0 0.5"/><composite values="Infinity 1"/></compositematerials>
                <multiproperties id="5" pids="1 2"><multi pindices="0"/><multi pindices="0 1"/><multi pindices="0 2"/></multiproperties>
                <multiproperties id="6" pids="1 4" blendmethods="multiply"><multi pindices="0 0"/><multi pindices="0 1"/></multiproperties>
                """;
        String cube =
                object(9, CUBE_MESH).replace("<object ", "<object pid=\"%d\" pindex=\"%d\" ".formatted(group, index));
        PartedModel model = model(threeMf(model("millimeter", resources + cube, "<item objectid=\"9\"/>")));
        assertThat(model.parts()).extracting(Part::name).containsExactly(name);
        assertThat(model.parts().get(0).colour().orElseThrow().hex()).isEqualTo(colour);
    }

    @Test
    void groups_of_an_obj_are_parts_where_they_close() throws IOException {
        StringBuilder obj = new StringBuilder();
        int[][] quads = {{1, 3, 4, 2}, {5, 6, 8, 7}, {1, 2, 6, 5}, {3, 7, 8, 4}, {1, 5, 7, 3}, {2, 4, 8, 6}};
        for (int box = 0; box < 2; box++) {
            for (int i = 0; i < 8; i++) {
                obj.append("v %d %d %d\n".formatted(20 * box + (i & 1) * 10, (i >> 1 & 1) * 10, (i >> 2 & 1) * 10));
            }
            obj.append(box == 0 ? "g base plate\n" : "o lettering\n");
            for (int[] q : quads) {
                obj.append("f %d %d %d %d\n".formatted(q[0] + 8 * box, q[1] + 8 * box, q[2] + 8 * box, q[3] + 8 * box));
            }
        }
        PartedModel model = model(obj.toString().getBytes(StandardCharsets.UTF_8));
        assertThat(model.parts()).extracting(Part::name).containsExactly("base plate", "lettering");
        // The same box, its sides in groups of their own: paint on one solid, not six open shells.
        String sides = obj.substring(0, obj.indexOf("v 20")).replace("f ", "g side\nf ");
        assertThat(model(sides.getBytes(StandardCharsets.UTF_8)).parts()).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource({
        "'%PDF-1.7 and so on', a PDF document",
        "'<!DOCTYPE html><html>', a web page; download the file that is behind it",
        "'<!-- saved -->\n<html lang=''en''>', a web page",
        "'ISO-10303-21;', a STEP file",
        "'Rar!xyz', a RAR archive; unpack it first",
        "'<svg xmlns=', a drawing (SVG)",
        "'<?xml version=''1.0''?>\n<!-- drawn -->\n<!DOCTYPE svg PUBLIC ''-//W3C//DTD SVG 1.1//EN'' ''s''>\n<svg>', a drawing (SVG)",
        "'<?xml version=''1.0''?>\n<!DOCTYPE html>\n<html>', a web page",
        "'\u00ef\u00bb\u00bf<?xml version=''1.0''?><COLLADA version=''1''>', a COLLADA scene",
        "'<?xml version=''1.0''?><X3D profile=''Full''>', an X3D scene",
        "'<?xml version=''1.0''?><plan>', an XML document",
        "'<?xml version=''1.0''?><!-- so far -->', an XML document",
        "'#VRML V2.0 utf8\nShape {}', a VRML scene",
        "'# exported\n\nnewmtl blue\nKd 0 0 1', the material library of an OBJ",
        "'; a picture\n; of it\n', 'G-code, sliced already'",
        "'M104 S210\nG28\nG1 X5', 'G-code, sliced already'"
    })
    void what_is_no_model_is_said_to_look_like_what_it_is(String content, String looks) {
        byte[] bytes = content.getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> ModelReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("it looks like " + looks);
    }
}
