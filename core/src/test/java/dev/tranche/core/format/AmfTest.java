package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Models as ISO/ASTM 52915 has them (from memory): volumes of objects, of materials, in constellations. */
class AmfTest {
    private static final String SLATE = "<color><r>0.2</r><g>0.4</g><b>0.6</b><a>1</a></color>";
    private static final String RED = "<color><r>1</r><g>0</g><b>0</b></color>";

    private static PartedModel read(String file) throws IOException {
        byte[] bytes = file.getBytes(StandardCharsets.UTF_8);
        return ModelReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD);
    }

    private static String amf(String unit, String inside) {
        return "\uFEFF<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<amf unit=\"%s\" version=\"1.1\">%s</amf>"
                .formatted(unit, inside);
    }

    private static String vertices(Mesh mesh, String more) {
        StringBuilder out = new StringBuilder("<vertices>");
        for (int c = 0; c < 3 * mesh.triangles(); c++) {
            out.append("<vertex><coordinates><x>%s</x><y> %s </y><z>%s</z></coordinates>%s</vertex>"
                    .formatted(mesh.x(c), mesh.y(c), mesh.z(c) / 1000.0, more));
        }
        return out.append("</vertices>").toString();
    }

    private static String triangles(int from, int to, String more) {
        StringBuilder out = new StringBuilder();
        for (int t = from; t < to; t++) {
            out.append("<triangle><v1>%d</v1><v2>%d</v2><v3>%d</v3>%s</triangle>"
                    .formatted(3 * t, 3 * t + 1, 3 * t + 2, more));
        }
        return out.toString();
    }

    /** A box of 30 × 10 × 20 mm: its object begins with {@code said}, its volume with {@code more}. */
    private static String box(String said, String ofCorners, String more, String ofFirst) {
        Mesh mesh = new Shapes().box(0, 0, 0, 30, 10, 20).mesh();
        return "<object id=\"lid\">" + said + "<mesh>" + vertices(mesh, ofCorners) + "<volume materialid=\"2\">" + more
                + triangles(0, 2, ofFirst) + triangles(2, mesh.triangles(), "") + "</volume></mesh></object>";
    }

    private static String name(String name) {
        return "<metadata type=\"name\">" + name + "</metadata>";
    }

    private static Mesh only(PartedModel model) {
        assertThat(model.parts()).hasSize(1);
        return model.parts().get(0).mesh();
    }

    @ParameterizedTest
    @CsvSource({"millimeter, 1", "inch, 25.4", "meter, 1000", "micron, 0.001"})
    void units_become_millimetres(String unit, double millimetres) throws IOException {
        double size = 10 / millimetres;
        String object = "<object id=\"1\"><mesh><vertices>"
                + "<vertex><coordinates><x>0</x><y>0</y><z>0</z></coordinates></vertex>"
                + "<vertex><coordinates><x>%s</x><y>0</y><z>0</z></coordinates></vertex>".formatted(size)
                + "<vertex><coordinates><x>0</x><y>%s</y><z>0</z></coordinates></vertex>".formatted(size)
                + "<vertex><coordinates><x>0</x><y>0</y><z>%s</z></coordinates></vertex>".formatted(size)
                + "<edge><v1>0</v1><dx1>1</dx1><v2>1</v2><dx2>1</dx2></edge></vertices><volume>"
                + "<triangle><v1>0</v1><v2>2</v2><v3>1</v3></triangle><triangle><v1>0</v1><v2>1</v2><v3>3</v3></triangle>"
                + "<triangle><v1>1</v1><v2>2</v2><v3>3</v3></triangle><triangle><v1>2</v1><v2>0</v2><v3>3</v3></triangle>"
                + "</volume></mesh></object>";
        assertThat(only(read(amf(unit, object))).volume()).isCloseTo(1000 / 6.0, within(1e-3));
    }

    @ParameterizedTest
    @CsvSource({
        "material, false, false, false, 336699",
        "object, true, false, false, FF0000",
        "volume, true, true, false, 0000FF",
        "corners, true, true, true, 00FF00"
    })
    void what_is_nearer_to_a_triangle_gives_its_colour(
            String by, boolean object, boolean volume, boolean corners, String hex) throws IOException {
        String file = amf(
                "millimeter",
                box(
                                name("Lid") + (object ? RED : ""),
                                corners ? "<color><r>0</r><g>1</g><b>0</b></color>" : "",
                                volume ? "<color><r>0</r><g>0</g><b>1</b></color>" : "",
                                "")
                        + "<material id=\"2\">" + name("Slate") + SLATE + "</material>");
        PartedModel model = read(file);
        Part part = model.parts().get(0);
        assertThat(only(model).volume()).as(by).isCloseTo(6000, within(0.01));
        assertThat(part.name()).isEqualTo("Lid");
        assertThat(part.called()).isEqualTo("Slate");
        assertThat(part.colour()).contains(Srgb.parse("#" + hex));
        assertThat(part.coat()).isEmpty();
    }

    @Test
    void triangles_with_colours_of_their_own_are_painted_and_a_formula_paints_nothing() throws IOException {
        String formula = "<color><r>sin(x)</r><g>0</g><b>0</b></color>";
        String file = amf("millimeter", box("", formula, formula, RED) + "<material id=\"2\">" + SLATE + "</material>");
        assertThat(read(file).parts().get(0).coat().orElseThrow().hues())
                .extracting(h -> h.colour().orElseThrow())
                .containsExactly(new Srgb(51, 102, 153), new Srgb(255, 0, 0));
    }

    /** Turned about X, (x, y, z) goes to (x, −z, y), and then about Y to (y, −z, −x). */
    @Test
    void constellations_put_objects_turned_and_moved_and_may_hold_others() throws IOException {
        String file = amf(
                "millimeter",
                box(name("Lid"), "", "", "")
                        + "<constellation id=\"all\"><instance objectid=\"pair\"><deltay>200</deltay></instance>"
                        + "<instance objectid=\"lid\"><rx>90</rx><ry>90</ry></instance></constellation>"
                        + "<constellation id=\"pair\"><instance objectid=\"lid\"/>"
                        + "<instance objectid=\"lid\"><deltax>100</deltax></instance></constellation>");
        PartedModel model = read(file);
        assertThat(model.parts()).extracting(Part::name).containsExactly("Lid", "Lid", "Lid");
        assertThat(model.parts()).extracting(Part::item).containsExactly(0, 0, 1);
        assertThat(model.parts()).allSatisfy(p -> assertThat(p.mesh().volume()).isCloseTo(6000, within(0.01)));
        assertThat(model.parts().get(1).mesh().footprint().getMinX()
                        - model.parts().get(0).mesh().footprint().getMinX())
                .isCloseTo(100, within(1e-3));
        Mesh turned = model.parts().get(2).mesh();
        assertThat(turned.footprint().getMinX())
                .isCloseTo(model.parts().get(0).mesh().footprint().getMinX(), within(1e-3));
        assertThat(model.parts().get(0).mesh().footprint().getMinY()
                        - turned.footprint().getMinY())
                .isCloseTo(220, within(1e-3));
        assertThat(turned.footprint().getWidth()).isCloseTo(10, within(1e-3));
        assertThat(turned.footprint().getHeight()).isCloseTo(20, within(1e-3));
        assertThat(turned.height()).hasToString("30.00");
    }

    @Test
    void a_ball_of_many_triangles_keeps_them_all() throws IOException {
        Mesh ball = new Shapes().sphere(10, 24, 48).mesh();
        String file = amf(
                "millimeter",
                "<object id=\"ball\"><mesh>" + vertices(ball, "") + "<volume>" + triangles(0, ball.triangles(), "")
                        + "</volume></mesh></object>");
        assertThat(only(read(file)).volume()).isCloseTo(ball.volume(), within(1e-3));
    }

    @Test
    void volumes_of_one_object_are_its_parts_and_support_is_none() throws IOException {
        Mesh one = new Shapes().box(0, 0, 0, 10, 10, 5).mesh();
        String volume = "<volume%s>%s" + triangles(0, one.triangles(), "") + "</volume>";
        String file = amf(
                "millimeter",
                "<object id=\"a\"><mesh>" + vertices(one, "") + volume.formatted(" type=\"support\"", "")
                        + "</mesh></object>"
                        + "<object id=\"b\">" + name("Tile") + "<mesh>"
                        + vertices(new Shapes().box(0, 0, 5, 10, 10, 5).mesh(), "")
                        + volume.formatted("", name("Glaze")) + "</mesh></object>"
                        + "<object id=\"c\">" + name("Tile") + "<mesh>" + vertices(one, "")
                        + volume.formatted("", "") + "</mesh></object>");
        assertThat(read(file).parts()).extracting(Part::name).containsExactly("Glaze", "Tile");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<v1>0</v1>|<v1>99</v1>|names a corner that is not there",
                "<v1>0</v1>||names a corner that is not there",
                "<v1>0</v1>|<v1>one</v1>|“one” on line 2 of the AMF file is no number",
                "<z>0.0</z>||has no X, Y and Z",
                "</amf>||damaged or cut short, on line 2",
                "<object id=\"lid\">||lies outside an object",
                "millimeter|ell|measures in “ell”",
                "<triangle>|<three>|holds no triangles",
                "</amf>|<constellation id=\"c\"><instance objectid=\"gone\"/></constellation></amf>|places object “gone”",
                "</amf>|<constellation id=\"c\"><instance objectid=\"d\"/></constellation><constellation id=\"d\"><instance objectid=\"d\"/></constellation></amf>|holds itself"
            })
    void what_cannot_be_read_is_refused_in_a_sentence(String good, String bad, String because) {
        String file = amf("millimeter", box("", "", "", ""));
        String changed = file.replace(good, Optional.ofNullable(bad).orElse(""));
        String closed = changed.replace("</object>", changed.contains("<object") ? "</object>" : "")
                .replace("</triangle>", changed.contains("<triangle") ? "</triangle>" : "</three>");
        assertThatThrownBy(() -> read(closed)).isInstanceOf(Refusal.class).hasMessageContaining(because);
    }
}
