package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.Part;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import org.springframework.beans.factory.annotation.Autowired;

/** Colours by region at the desk, by mouse and by keyboard, on models made here. */
class RegionPagesTest extends BrowserTest {
    @Autowired
    private Shelf shelf;

    private static final byte[] STAR =
            "<svg xmlns='http://www.w3.org/2000/svg' width='24mm' height='20mm' viewBox='0 0 24 20'><path d='M0 0h24v20h-24z M6 5v10h12v-10z'/></svg>"
                    .getBytes(StandardCharsets.UTF_8);

    private static Mesh tag() {
        return new Shapes().box(0, 0, 0, 60, 30, 2.4).mesh();
    }

    /** Four panes of 20 × 20 × 1 mm in a row, and a frame behind them: five objects, two colours. */
    private static byte[] panel() throws IOException {
        ThreeMfWriter.Thing[] things = new ThreeMfWriter.Thing[5];
        for (int i = 0; i < 4; i++) {
            things[i] = new ThreeMfWriter.Thing(
                    "Pane",
                    "light",
                    Srgb.parse("#F2F1EC"),
                    List.of(new Shapes().box(20 * i, 0, 0, 20, 20, 1).mesh()));
        }
        things[4] = new ThreeMfWriter.Thing(
                "Frame",
                "dark",
                Srgb.parse("#26272A"),
                List.of(new Shapes().box(0, 20, 0, 80, 60, 3).mesh()));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ThreeMfWriter.write("Panel", List.of(things), bytes);
        return bytes.toByteArray();
    }

    private void give(String name, byte[] bytes) throws IOException {
        browser.open("/");
        give("#model-file", file(name, bytes));
        browser.until(() ->
                browser.path().startsWith("/plans/") && !browser.all("#desk").isEmpty());
    }

    private String id() {
        return browser.path().replaceAll("^/plans/([0-9a-f]+).*", "$1");
    }

    private PlanState plan() {
        return plans.get(id());
    }

    private List<Region> regions() {
        return plan().content().colours().regions().list();
    }

    private void undoable(String label) {
        browser.until(() -> ("Undo: " + label).equals(browser.find("#undo").getDomAttribute("title")));
    }

    /** Presses keys on an element, again if it is being replaced. */
    private void press(String css, CharSequence... keys) {
        browser.until(() -> {
            browser.find(css).sendKeys(keys);
            return true;
        });
    }

    /** Over what stands in a field, as people type: a field that was emptied first would already be sent. */
    private void retype(String css, CharSequence text) {
        press(css, Keys.chord(Keys.CONTROL, "a"), text, Keys.TAB);
    }

    private void side(String side) {
        browser.click("#side-" + side);
        browser.until(() -> "true".equals(browser.find("#side-" + side).getDomAttribute("aria-current")));
    }

    /** Clicks on the layer plan at a place of the model, mm. */
    private void clickAt(double x, double y) {
        Actions to = new Actions(browser.driver());
        pointAt(to, x, y).click().perform();
    }

    private Actions pointAt(Actions to, double x, double y) {
        browser.script("window.scrollTo(0, 0)");
        @SuppressWarnings("unchecked")
        List<Number> at = (List<Number>) browser.script(
                "const m = document.querySelector('svg.layer-plan[data-layer] .mm').getScreenCTM();"
                        + "const p = new DOMPoint(arguments[0], arguments[1]).matrixTransform(m);"
                        + "return [Math.round(p.x), Math.round(p.y)]",
                x,
                y);
        return to.moveToLocation(at.get(0).intValue(), at.get(1).intValue());
    }

    private static Mesh fence(int hairs) {
        Shapes shapes = new Shapes();
        for (int i = 0; i < hairs; i++) {
            shapes.box(i % 30 * 2, i / 30 * 4, 0, 0.3, 3, 1);
        }
        return shapes.mesh();
    }

    /** What is quickly found comes with the drawing; what is not, once the layer stands still, and is kept from then on. */
    private static Shape.Trace.Course course(double from, double x) {
        return new Shape.Trace.Course(
                Height.ofMillimetres(from), Optional.of(new Shape.Zone(new Outline.Box(10, 8), x, 15, 0, false)));
    }

    @Test
    void what_is_traced_of_a_file_is_recoloured_and_stays_where_it_lies() throws IOException {
        give("traced.stl", StlWriter.binary(tag()));
        PlanState plan = plan();
        SpoolId chalk = shelf.all().get(1).id();
        plans.edit(
                plan.id(),
                plan.edition(),
                "trace",
                p -> p.with(p.regions()
                        .plus(new Region(
                                "T1", new Shape.Trace(List.of(course(0, 15), course(1.2, 40))), chalk, Range.ALL))));
        browser.open("/plans/" + plan.id() + "?side=regions&layer=9");
        browser.see(".region-row", "2 traced outlines");
        browser.click("#region-0");
        browser.until(() -> browser.all(".layer-plan .zone.chosen").size() == 1);
        assertThat(browser.find(".layer-plan .zone.chosen").getDomAttribute("data-zone"))
                .isNull();
        assertThat(browser.all("#r-x, #r-mirror")).isEmpty();
        clickAt(40, 15);
        browser.see("#piece", "T1");
        SpoolId soot = shelf.all().get(0).id();
        browser.click("#dab-" + soot.value());
        browser.until(() -> regions().get(0).spool().equals(soot));
        assertThat(regions().get(0).shape()).isEqualTo(new Shape.Trace(List.of(course(0, 15), course(1.2, 40))));
    }

    @Test
    void where_a_layer_is_too_thin_is_marked_however_intricate_it_is() {
        for (int hairs : new int[] {30, 600}) {
            PlanState plan = plan("fence of " + hairs, fence(hairs));
            String page = "/plans/" + plan.id();
            browser.open(page + "?layer=2");
            browser.until(() -> browser.all("svg.layer-plan .narrow").size() == Math.min(hairs, 40));
            assertThat(browser.find("svg.layer-plan .narrow text").getText()).isEqualTo("0.30");
            browser.press("b");
            browser.until(() -> browser.all("svg.layer-plan").size() == 2
                    && browser.all("svg.layer-plan .narrow").size() == 2 * Math.min(hairs, 40));
        }
    }

    @Test
    void a_tag_of_two_colours_from_an_svg_outline_in_one_go() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.choose("#region-spool", "Light");
        browser.click(".inlay summary");
        give("#inlay-file", file("star.svg", STAR));
        browser.type("#inlay-layers", "1");
        browser.click("#add-inlay");
        undoable("inlay star face down");
        browser.see(".region-row", "layer 1");
        browser.see("#ledger", "2 colours");
        Shape.Zone zone = (Shape.Zone) regions().get(0).shape();
        assertThat(zone.mirrored()).isTrue();
        assertThat(zone.outline().width()).isEqualTo(24);
        assertThat(browser.all(".layer-plan .plastic")).hasSize(2);
        // 24 × 20 mm less the hole of 12 × 10.
        browser.see(".plan-foot", "Light 360.0 mm²");
        browser.see(".plan-foot", "Dark 1440.0 mm²");
        browser.see("#findings", "shines through");
        browser.click("#findings .finding:has(.btn) .btn");
        browser.until(() -> !browser.text("#findings").contains("shines through"));

        browser.click("#to-hand-off");
        browser.click("#coloured-3mf");
        byte[] written = Files.readAllBytes(browser.download("tag.3mf"));
        PartedModel back = ModelReader.read(new ByteArrayInputStream(written), written.length, Progress.UNHEARD);
        assertThat(back.parts()).extracting(p -> p.colour().orElseThrow().hex()).contains("#26272A", "#F2F1EC");
        assertThat(back.parts()).extracting(Part::called).containsOnly("Dark", "Light");
        assertThat(back.body().volume()).isBetween(60 * 30 * 2.4 - 0.5, 60 * 30 * 2.4 + 0.5);
        browser.click("#coloured-stl");
        Path zip = browser.download("tag-colours.zip");
        try (ZipFile file = new ZipFile(zip.toFile())) {
            assertThat(file.stream().map(Object::toString))
                    .containsExactlyInAnyOrder("tag-A-Dark.stl", "tag-B-Light.stl");
        }
    }

    @Test
    void a_panel_comes_with_its_colours_and_a_pane_is_recoloured_by_a_click() throws IOException {
        give("panel.3mf", panel());
        assertThat(browser.text(".sides")).contains("Parts 5");
        assertThat(regions()).singleElement().satisfies(r -> assertThat(r.shape())
                .isEqualTo(new Shape.Parts(List.of(0, 1, 2, 3))));
        browser.see("#plan-title", "Layer 1");
        clickAt(30, 10);
        browser.see("#piece", "Pane 2");
        browser.click("#piece .dab[title=Dark]");
        undoable("colour parts in Dark");
        assertThat(regions()).extracting(Region::name).containsExactly("Light parts", "Pane 2");
        assertThat(((Shape.Parts) regions().get(0).shape()).numbers()).containsExactly(0, 2, 3);
        browser.click("#undo");
        browser.until(() -> regions().size() == 1);
    }

    @Test
    void parts_are_coloured_hidden_grouped_and_named_by_keyboard() throws IOException {
        give("panel.3mf", panel());
        press("#side-parts", Keys.ENTER);
        press("#part-0", Keys.SPACE);
        press("#part-1", Keys.SPACE);
        press("#parts-spool", "Dark");
        press("#colour-parts", Keys.ENTER);
        undoable("colour parts in Dark");
        assertThat(regions())
                .extracting(r -> ((Shape.Parts) r.shape()).numbers())
                .contains(List.of(0, 1), List.of(2, 3));

        press("#part-4", Keys.SPACE);
        press("#hide-parts", Keys.ENTER);
        undoable("hide parts");
        browser.see(".steps", "80.0 × 20.0 × 1.00 mm");
        press("#part-4", Keys.SPACE);
        press("#show-parts", Keys.ENTER);
        undoable("show parts");
        browser.see(".steps", "80.0 × 80.0 × 3.00 mm");

        retype("#part-name-0", "Leftmost");
        undoable("name a part");
        press("#part-0", Keys.SPACE);
        press("#part-group", "Panes");
        press("#group-parts", Keys.ENTER);
        undoable("group parts");
        browser.see(".part-group", "Panes");
        assertThat(plan().content().parts().of(0).name()).isEqualTo("Leftmost");

        press("#colour-parts", Keys.ENTER);
        browser.see("#notice, #refused", "Choose at least one part");
    }

    @Test
    void a_buried_region_is_found_and_mended_by_its_button() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.choose("#region-spool", "Light");
        browser.click("#add-disc");
        undoable("add a region in Light");
        browser.click(".adding summary");
        browser.click("#add-box");
        browser.until(() -> browser.all(".region-row").size() == 2);
        retype("#r-width", "40");
        browser.until(() -> browser.find("#r-width").getDomProperty("value").equals("40"));
        browser.until(() -> ((Shape.Zone) regions().get(1).shape()).outline().width() == 40);
        retype("#r-depth", "25");
        browser.until(() -> ((Shape.Zone) regions().get(1).shape()).outline().equals(new Outline.Box(40, 25)));
        browser.until(() -> browser.find("#r-depth").getDomAttribute("value").equals("25"));
        browser.see("#findings", "“Disc” is buried");
        browser.see(".region-row", "buried 2.40");
        browser.click("[id^=finding-buried] .btn");
        undoable("let it win over them");
        assertThat(regions()).extracting(Region::name).containsExactly("Box", "Disc");
        browser.until(() -> !browser.text("#findings").contains("buried"));
    }

    @Test
    void regions_are_made_moved_ranked_and_removed_by_keyboard_alone() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        press("#side-regions", Keys.ENTER);
        press("#corners", "10 5, 30 5, 30 20, 10 15", Keys.ENTER);
        undoable("add a region in Light");
        assertThat(((Shape.Zone) regions().get(0).shape()).outline().width()).isEqualTo(20);
        press(".adding summary", Keys.ENTER);
        press("#add-box", Keys.ENTER);
        browser.until(() -> regions().size() == 2);

        browser.until(() -> browser.all("#region-1[aria-expanded=true]").size() == 1);
        double x = ((Shape.Zone) regions().get(1).shape()).x();
        press("#region-1", Keys.chord(Keys.SHIFT, Keys.ARROW_LEFT));
        undoable("nudge a region");
        assertThat(((Shape.Zone) regions().get(1).shape()).x()).isEqualTo(x - 0.5);

        retype("#r-from", "L3");
        undoable("change a region");
        retype("#r-to", "L5");
        browser.see(".region-row", "layers 3–5");
        press("#r-mirror", Keys.ENTER);
        undoable("mirror a region");
        press("#region-1", Keys.chord(Keys.ALT, Keys.ARROW_DOWN));
        undoable("reorder the regions");
        assertThat(regions()).extracting(Region::name).containsExactly("Box", "Polygon");
        browser.until(() ->
                "region-0".equals(browser.driver().switchTo().activeElement().getDomAttribute("id")));
        press("#r-copy", Keys.ENTER);
        undoable("copy a region");
        assertThat(regions()).extracting(Region::name).containsExactly("Box", "Polygon", "Box 2");
        press("#r-remove", Keys.ENTER);
        undoable("remove a region");
        browser.leaveFields();
        browser.press(Keys.chord(Keys.CONTROL, "z"));
        browser.until(() -> regions().size() == 3);
    }

    @Test
    void a_zone_is_drawn_and_dragged_on_the_layer_plan() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.click("#draw-polygon");
        for (double[] corner : new double[][] {{10, 5}, {20, 5}, {20, 15}, {10, 15}}) {
            clickAt(corner[0], corner[1]);
        }
        browser.until(() -> browser.all(".corner").size() == 4);
        browser.leaveFields();
        browser.press(Keys.ENTER);
        undoable("add a region in Light");
        Shape.Zone drawn = (Shape.Zone) regions().get(0).shape();
        assertThat(drawn.outline().width()).isBetween(9.5, 10.5);
        assertThat(drawn.x()).isBetween(14.5, 15.5);

        Actions drag = new Actions(browser.driver());
        pointAt(drag, 15, 10).clickAndHold();
        pointAt(drag, 25, 14);
        pointAt(drag, 35, 20).release().perform();
        undoable("move a region");
        Shape.Zone moved = (Shape.Zone) regions().get(0).shape();
        assertThat(moved.x()).as("on the grid of half a millimetre").isEqualTo(Math.rint(moved.x() * 2) / 2);
        assertThat(moved.x()).isBetween(34.0, 36.0);
        assertThat(moved.y()).isBetween(19.0, 21.0);
    }

    @Test
    void precedence_is_dragged_in_the_list() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.click("#add-disc");
        undoable("add a region in Light");
        browser.click(".adding summary");
        browser.click("#add-box");
        browser.until(() -> browser.all(".region-row").size() == 2);
        WebElement lower = browser.find(".region-row[data-index='0'] .grip");
        WebElement upper = browser.find(".region-row[data-index='1'] .grip");
        new Actions(browser.driver())
                .clickAndHold(lower)
                .moveToElement(upper)
                .release()
                .perform();
        undoable("reorder the regions");
        assertThat(regions()).extracting(Region::name).containsExactly("Box", "Disc");
    }

    @Test
    void a_second_file_is_aligned_by_its_own_origin() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        browser.click(".step summary[title='The model of this plan']");
        give(
                "#add-file",
                file(
                        "knob.stl",
                        StlWriter.binary(new Shapes().box(5, 5, 0, 4, 4, 5).mesh())));
        browser.click("#add-model");
        browser.see(".sides", "Parts 2");
        browser.see(".steps", "60.0 × 30.0 × 5.00 mm");
        undoable("add knob.stl");
        assertThat(plan().content().files()).hasSize(2);
        browser.click("#undo");
        browser.see(".steps", "60.0 × 30.0 × 2.40 mm");
    }

    @Test
    void what_cannot_be_is_refused_in_a_sentence_and_nothing_typed_is_lost() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.type("#corners", "here and there", Keys.ENTER);
        browser.see("#notice, #refused", "“here and there” is no corner");
        assertThat(browser.find("#corners").getDomProperty("value")).isEqualTo("here and there");
        give("#svg-file", file("words.svg", "<svg><text>Leek</text></svg>".getBytes(StandardCharsets.UTF_8)));
        browser.click("#add-svg");
        browser.see("#notice, #refused", "convert text and strokes to filled paths");
        give("#svg-file", file("words.svg", "a recipe".getBytes(StandardCharsets.UTF_8)));
        browser.click("#add-svg");
        browser.see("#notice, #refused", "cannot be read as SVG");
        give(
                "#svg-file",
                file(
                        "both.svg",
                        "<svg><text>Leek</text><rect width='30' height='20'/></svg>".getBytes(StandardCharsets.UTF_8)));
        browser.click("#add-svg");
        browser.see("#notice, #refused", "1 element of the drawing was passed over");
        browser.click("#undo");
        browser.until(() -> regions().isEmpty());
        browser.click("#add-disc");
        undoable("add a region in Light");
        retype("#r-width", "-3");
        browser.see("#notice, #refused", "diameter of -3.0 mm is out of range");
        retype("#r-width", "8");
        undoable("change a region");
        retype("#r-from", "2");
        browser.until(() -> browser.find("#r-from").getDomProperty("value").equals("2.00"));
        retype("#r-to", "1");
        browser.see("#notice, #refused", "a range from 2.00 to 1.00 mm holds nothing".substring(2));
        retype("#r-to", Keys.BACK_SPACE);
        retype("#r-x", "900");
        browser.see("#findings", "meets nothing of the model");
    }

    @Test
    void the_first_layer_is_shown_drawn_in_and_its_gaps_are_a_finding() throws IOException {
        give("panel.3mf", panel());
        browser.click(".step summary[title='First-layer height and layer height']");
        browser.click("details:has(> #raft) summary");
        browser.type("#shrink", "0.15");
        browser.type("#raft", "1.2");
        browser.click("#cut-layers");
        browser.see("#findings", "a gap of 0.30 mm along");
        browser.see("#layer-plan", "with the raft to");
        browser.press(Keys.ESCAPE);
        browser.click("#draw-in");
        browser.until(() -> "true".equals(browser.find("#draw-in").getDomAttribute("aria-pressed")));
        browser.click("[id^=finding-first-layer-gaps] .btn");
        browser.until(() -> browser.all("#draw-in").isEmpty());
    }

    @Test
    void a_zone_goes_along_with_a_model_that_is_turned_and_stays_where_it_is_laid_on_a_side() throws IOException {
        give("tag.stl", StlWriter.binary(tag()));
        side("regions");
        browser.type("#corners", "10 5, 20 5, 20 15", Keys.ENTER);
        undoable("add a region in Light");
        browser.click(".step summary[title='The model of this plan']");
        browser.type("#turn", "90");
        browser.click("#place-model");
        undoable("scale or turn the model");
        Shape.Zone turned = (Shape.Zone) regions().get(0).shape();
        assertThat(turned.x()).isEqualTo(-10);
        assertThat(turned.y()).isEqualTo(15);
        assertThat(browser.all("#notice .notice")).isEmpty();
        browser.click("#flip-model");
        browser.see("#notice, #refused", "Zones stayed where they were");
    }

    @Test
    void where_the_model_is_open_the_line_that_closes_it_is_drawn() throws IOException {
        Shapes open = new Shapes().box(0, 0, 0, 60, 30, 2.4);
        for (int i = 0; i < 3; i++) {
            open.dropLastTriangle();
        }
        give("open.obj", obj(open.mesh()));
        browser.see("#findings", "The model has holes");
        browser.find(".layer-plan .closing path");
    }

    /** A box without some of its sides, too wide to be closed for it. */
    private static byte[] obj(Mesh mesh) {
        StringBuilder text = new StringBuilder();
        for (int c = 0; c < 3 * mesh.triangles(); c++) {
            text.append("v %s %s %s\n".formatted(mesh.x(c), mesh.y(c), mesh.z(c) / 1000.0));
        }
        for (int t = 0; t < mesh.triangles(); t++) {
            text.append("f %d %d %d\n".formatted(3 * t + 1, 3 * t + 2, 3 * t + 3));
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }
}
