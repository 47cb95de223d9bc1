package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.gcode.SmallGcode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.Point;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** The main job in a real browser, on files made here. */
class FirstPlanTest extends BrowserTest {
    /** Start heights and spools of the list, from the top. */
    private List<String> colours() {
        return browser.until(() -> browser.all(".stratum-list li").stream()
                .map(li -> {
                    List<WebElement> height = li.findElements(By.cssSelector("input"));
                    String spool = new org.openqa.selenium.support.ui.Select(li.findElement(By.cssSelector("select")))
                            .getFirstSelectedOption()
                            .getText();
                    return spool + " "
                            + (height.isEmpty() ? "bed" : height.get(0).getDomProperty("value"));
                })
                .toList());
    }

    private void seeColours(String... expected) {
        browser.until(() -> colours().equals(List.of(expected)));
    }

    private void startColour(String height, String spool) {
        browser.type("#start-height", height);
        browser.choose("#start-spool", spool);
        browser.click("#start-here");
    }

    private void seeLayer(int layer) {
        browser.until(
                () -> String.valueOf(layer).equals(browser.find("#layer-plan").getDomAttribute("data-layer")));
    }

    /** What a screen reader is given to say. */
    private void hear(String beginning) {
        browser.until(() -> browser.find("#heard").getDomProperty("textContent").startsWith(beginning));
    }

    private void addSpool(String name, String colour) {
        browser.open("/shelf");
        browser.type("#new-name", name);
        browser.type("#new-colour", colour);
        browser.click("#add-spool");
        browser.until(() -> browser.all("#spools tbody input[name=name]").stream()
                .anyMatch(e -> name.equals(e.getDomProperty("value"))));
    }

    @Test
    void from_a_model_file_to_swaps_in_a_print_file() throws IOException {
        addSpool("Brick", "#A33B2A");
        Path stl = file("nameplate.stl", StlWriter.binary(nameplate().mesh()));

        browser.open("/");
        give("#model-file", stl);
        browser.see(".steps", "nameplate");
        assertThat(browser.text(".steps")).contains("30.0 × 20.0 × 5.00 mm").contains("25 of 0.20 mm");
        assertThat(browser.all(".flat-list .chip"))
                .extracting(WebElement::getText)
                .containsExactly("2.40", "4.00");

        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");
        startColour("L21", "Brick");
        seeColours("Brick 4.00", "Light 2.40", "Dark bed");
        seeLayer(21);
        assertThat(browser.text("#ledger")).contains("time is an estimate");

        browser.click("#to-hand-off");
        byte[] original = sliced(new SmallGcode()).bytes();
        give("#gcode-file", file("nameplate.gcode", original));
        browser.see(".file-facts", "one for one");
        browser.see("main", "M117 Swap 1 of 2: load B Light");
        browser.click("#write-swaps");
        byte[] written = Files.readAllBytes(browser.download("nameplate-with-swaps.gcode"));
        String text = new String(written, StandardCharsets.ISO_8859_1);
        assertThat(text).contains("M117 Swap 1 of 2: load B Light").contains("M117 Swap 2 of 2: load C Brick");
        int first = text.indexOf("\nM0\n");
        int second = text.indexOf("\nM0\n", first + 1);
        assertThat(text.indexOf("\nM0\n", second + 1)).isNegative();
        assertThat(text.indexOf("G1 Z2.40000")).isBetween(0, first);
        assertThat(text.indexOf("G1 Z2.60000")).isBetween(first, second);
        assertThat(text.indexOf("G1 Z4.20000")).isGreaterThan(second);

        browser.click("#open-list");
        browser.see(".swap-table", "Brick");
        assertThat(browser.all(".swap-table tbody tr:not(.acts)")).hasSize(2);
        assertThat(browser.all(".swap-table tbody tr:not(.acts)").get(1).getText())
                .contains("21", "20", "4.00 mm", "Light", "Brick");
        assertThat(browser.text(".first-spool")).contains("Dark");

        browser.open(browser.path().replace("/swap-list", "/hand-off"));
        give("#gcode-file", browser.download("nameplate-with-swaps.gcode"));
        browser.see(".file-facts", "Holds swaps of Tranche");
        browser.click("#take-swaps-out");
        assertThat(Files.readAllBytes(browser.download("nameplate-without-swaps.gcode")))
                .isEqualTo(original);
    }

    @Test
    void colours_are_moved_merged_recoloured_and_taken_back() {
        String id = plan("edits").id();
        browser.open("/plans/" + id);
        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");

        browser.type("#height-1", "3", Keys.ENTER);
        seeColours("Light 3.00", "Dark bed");
        browser.choose("#spool-0", "Light");
        seeColours("Light 3.00", "Light bed");
        browser.see("#findings", "nothing is swapped there");
        browser.click(".finding-actions .btn");
        seeColours("Light bed");

        browser.click("#undo");
        seeColours("Light 3.00", "Light bed");
        browser.open("/plans/" + id);
        seeColours("Light 3.00", "Light bed");
        browser.click("#undo");
        seeColours("Light 3.00", "Dark bed");
        browser.click("#redo");
        seeColours("Light 3.00", "Light bed");
    }

    @Test
    void what_cannot_be_handed_off_is_not_offered_as_if_it_could() throws IOException {
        String id = plan("too coarse").id();
        browser.open("/plans/" + id);
        assertThat(browser.text("#to-hand-off")).isEqualTo("Hand off");
        startColour("2.4", "Light");
        browser.open("/plans/" + id + "/hand-off");
        give(
                "#gcode-file",
                file(
                        "coarse.gcode",
                        new SmallGcode().sized(30, 20).grid(0.3, 0.3, 16).bytes()));
        browser.see("main", "Not ready to hand off");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
        browser.open("/plans/" + id);
        assertThat(browser.text("#to-hand-off")).contains("1 to mend");
        for (String page : List.of("/print", "/rehearse")) {
            browser.open("/plans/" + id + page);
            assertThat(browser.text("#obstacles")).contains("cannot be handed off as it is");
        }
        browser.click("#obstacles a");
        browser.until(() -> browser.path().equals("/plans/" + id + "/hand-off"));
    }

    @Test
    void what_is_asked_while_an_answer_is_on_its_way_is_not_lost() {
        String id = plan("quick hands").id();
        browser.open("/plans/" + id);
        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");
        startColour("4", "Dark");
        seeColours("Dark 4.00", "Light 2.40", "Dark bed");
        browser.script("for (let i = 0; i < 2; i++) document.getElementById('undo').click();");
        seeColours("Dark bed");
        browser.script("const redo = document.getElementById('redo'); redo.disabled = false;"
                + "for (let i = 0; i < 2; i++) redo.click();");
        seeColours("Dark 4.00", "Light 2.40", "Dark bed");
        browser.script("const field = document.getElementById('copies'); field.value = '3';"
                + "field.form.requestSubmit(); document.getElementById('undo').click();");
        browser.until(() -> browser.find("#redo").getDomAttribute("title").equals("Redo: print 3 copies"));
        assertThat(plans.get(id).content().copies()).isEqualTo(1);
    }

    @Test
    void a_double_click_takes_one_colour_away_and_not_the_next_one_too() {
        String id = plan("double click").id();
        browser.open("/plans/" + id);
        startColour("1", "Light");
        seeColours("Light 1.00", "Dark bed");
        startColour("2.4", "Dark");
        seeColours("Dark 2.40", "Light 1.00", "Dark bed");
        startColour("4", "Light");
        seeColours("Light 4.00", "Dark 2.40", "Light 1.00", "Dark bed");
        // The last click waits for the others, and is the one that says that all of them are through.
        browser.script("const merge = document.querySelector('[hx-post$=\"/starts/2/merge\"]');"
                + "for (let i = 0; i < 2; i++) merge.click();"
                + "const copies = document.getElementById('copies'); copies.value = '2'; copies.form.requestSubmit();");
        browser.until(() -> plans.get(id).content().copies() == 2);
        assertThat(plans.get(id).content().colours().starts().list()).hasSize(3);
    }

    /** Where the middle of a layer lies on the screen: the section is drawn true to its own numbers. */
    private Point placeOfLayer(int layer) {
        List<?> at = (List<?>) browser.driver()
                .executeScript(
                        """
                const field = document.querySelector(".layers-of");
                const { bottom, first, each } = field.dataset;
                const up = arguments[0] === 1 ? first / 2 : Number(first) + (arguments[0] - 1.5) * each;
                const at = new DOMPoint(Number(field.getAttribute("x")) + 20, bottom - up).matrixTransform(field.getScreenCTM());
                return [Math.round(at.x), Math.round(at.y)];
                """,
                        layer);
        return new Point(((Number) at.get(0)).intValue(), ((Number) at.get(1)).intValue());
    }

    @Test
    void a_border_is_dragged_from_layer_to_layer() {
        String id = plan("drag").id();
        browser.open("/plans/" + id);
        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");
        // A press at a border can land on the handle's middle only.
        new Actions(browser.driver())
                .clickAndHold(browser.find(".border-handle .grip"))
                .moveToLocation(placeOfLayer(19).x, placeOfLayer(19).y)
                .release()
                .perform();
        seeColours("Light 3.60", "Dark bed");
        // A hand does not keep to the drawing's width.
        new Actions(browser.driver())
                .clickAndHold(browser.find(".border-handle .grip"))
                .moveToLocation(placeOfLayer(14).x + 300, placeOfLayer(14).y)
                .release()
                .perform();
        seeColours("Light 2.60", "Dark bed");
        // What is given up was never moved, nor was the layer pressed that lay beneath.
        int before = Integer.parseInt(browser.find("#desk-state [name=layer]").getDomProperty("value"));
        new Actions(browser.driver())
                .clickAndHold(browser.find(".border-handle .grip"))
                .moveToLocation(placeOfLayer(19).x, placeOfLayer(19).y)
                .sendKeys(Keys.ESCAPE)
                .release()
                .perform();
        assertThat(browser.find(".border-handle").getDomAttribute("transform")).isNull();
        browser.press(Keys.ARROW_UP);
        seeLayer(before + 1);
        assertThat(plans.get(id).edition()).isEqualTo(3);
    }

    @Test
    void a_whole_plan_is_made_with_the_keyboard_alone() {
        browser.open("/plans/" + plan("keys").id());
        seeLayer(13);
        browser.press(Keys.HOME);
        seeLayer(1);
        browser.press(Keys.PAGE_UP);
        seeLayer(11);
        hear("Layer 11 of 25, 2.00 to 2.20 mm: A Dark.");
        browser.press(Keys.ARROW_UP);
        browser.press(Keys.ARROW_UP);
        seeLayer(13);
        browser.until(() -> "2.40".equals(browser.find("#start-height").getDomProperty("value")));
        browser.press("s");
        browser.press(Keys.TAB);
        browser.press("Light");
        browser.press(Keys.TAB);
        browser.press(Keys.ENTER);
        seeColours("Light 2.40", "Dark bed");
        hear("1 swap, purge ");
        assertThat(browser.find("#ledger .opens summary").getAccessibleName()).endsWith("Swaps 1");
        browser.leaveFields();
        browser.press(Keys.END);
        seeLayer(25);
        browser.press("[");
        seeLayer(13);
        browser.press(Keys.chord(Keys.CONTROL, "z"));
        seeColours("Dark bed");
        browser.press(Keys.chord(Keys.CONTROL, Keys.SHIFT, "z"));
        seeColours("Light 2.40", "Dark bed");
        browser.press("?");
        browser.see("#keys", "one layer up or down");
        browser.press(Keys.ESCAPE);
        browser.click("#side-regions");
        browser.see(".regions", "Add a region");
        browser.leaveFields();
        browser.press(Keys.ARROW_UP);
        seeLayer(14);
        browser.until(() -> browser.path().endsWith("?layer=14&side=regions"));
        browser.press("s");
        browser.until(() -> "2.60".equals(browser.find("#start-height").getDomProperty("value")));
    }

    @Test
    void the_layers_drawings_and_addresses_keep_in_step() {
        String id = plan("step").id();
        browser.open("/plans/" + id + "?layer=22");
        seeLayer(22);
        assertThat(browser.text("#layer-plan")).contains("4.20–4.40 mm", "from 0: 21", "112.0 mm²");
        Object before = browser.find("#section-cursor .cursor").getDomAttribute("y");
        browser.leaveFields();
        browser.press(Keys.PAGE_DOWN);
        seeLayer(12);
        browser.until(
                () -> !before.equals(browser.find("#section-cursor .cursor").getDomAttribute("y")));
        browser.until(() -> browser.path().endsWith("?layer=12"));
        new Actions(browser.driver())
                .moveToLocation(placeOfLayer(3).x, placeOfLayer(3).y)
                .click()
                .perform();
        browser.see("#pointed", "layer 3 (2 from 0), 0.40–0.60 mm");
        seeLayer(3);
        browser.click("#score button[title^='Show less']");
        browser.until(() -> "2".equals(browser.find("#score").getDomAttribute("data-zoom")));
    }

    @Test
    void what_cannot_be_is_said_and_what_was_typed_stays() {
        browser.open("/plans/" + plan("refusals").id());
        browser.type("#start-height", "99", Keys.ENTER);
        browser.see("#notice, #refused", "99.00 mm is above the last layer");
        assertThat(browser.find("#start-height").getDomProperty("value")).isEqualTo("99");
        browser.type("#start-height", "high", Keys.ENTER);
        browser.see("#notice, #refused", "“high” is not a height");
        browser.type("#start-height", "-1", Keys.ENTER);
        browser.see("#notice, #refused", "below the bed");
        seeColours("Dark bed");
        startColour("3", "Light");
        seeColours("Light 3.00", "Dark bed");
        browser.until(() -> browser.find("#notice").getText().isEmpty()
                && !browser.find("#refused").isDisplayed());
    }

    @Test
    void the_later_of_two_tabs_is_told_and_shown_what_changed() {
        String id = plan("tabs").id();
        browser.open("/plans/" + id);
        plans.edit(
                id,
                0,
                "start Light at 3.00 mm",
                p -> p.startAt(
                        dev.tranche.core.units.Height.ofMillimetres(3),
                        shelf.all().get(1).id(),
                        p.layers().on(dev.tranche.core.units.Height.ofMillimetres(5))));
        browser.type("#start-height", "1", Keys.ENTER);
        browser.see("#notice, #refused", "changed in another tab (start Light at 3.00 mm)");
        seeColours("Light 3.00", "Dark bed");
        browser.see("#notice, #refused", "Your last change was not made");
    }

    @Test
    void a_file_on_other_layers_is_refused_for_writing_with_the_reason() throws IOException {
        String id = plan("other").id();
        browser.open("/plans/" + id + "/hand-off");
        give(
                "#gcode-file",
                file("coarse.gcode", new SmallGcode().grid(0.3, 0.3, 16).bytes()));
        browser.see("main", "Not ready to hand off");
        assertThat(browser.text("main")).contains("The G-code has 16 layers and the plan 25");
        assertThat(browser.find("#write-swaps").isEnabled()).isFalse();
    }

    @Test
    void a_file_that_is_no_model_is_refused_on_the_page_of_plans() throws IOException {
        browser.open("/");
        give(
                "#model-file",
                file(
                        "page.stl",
                        "<!DOCTYPE html><title>not a model</title>".repeat(5).getBytes()));
        browser.see("#new-job", "it looks like a web page");
        give("#model-file", file("ok.stl", nameplate().ascii().getBytes()));
        browser.see(".steps", "ok");
    }

    @Test
    void a_purge_measured_on_a_printer_overrides_the_model() {
        long machine = workshop.add(dev.tranche.core.rig.Beginning.DIRECT_PAUSE.rig("Measured"))
                .id();
        browser.open("/printers/" + machine);
        browser.choose("#measured-out", "Dark");
        browser.choose("#measured-in", "Light");
        browser.type("#measured-length", "77");
        browser.click("#keep-measured");
        browser.see("#purges", "77 mm");
        browser.click("#take-fitted");
        assertThat(browser.find("input[name=deadVolume]").getDomProperty("value"))
                .isNotEqualTo("60");

        String id = plan("measured").id();
        browser.open("/plans/" + id);
        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");
        browser.click("details.step:nth-of-type(3) summary");
        browser.choose("#printer", "Measured");
        browser.see("#ledger", "77 mm");
        browser.click("details.step:nth-of-type(5) summary");
        browser.type("#factor", "1.2", Keys.ENTER);
        browser.see("#ledger", "92 mm");
        browser.click("#undo");
        browser.see("#ledger", "77 mm");
    }

    @Test
    void files_given_on_the_desk_are_told_apart_by_what_they_hold() throws IOException {
        String id = plan("desk files").id();
        browser.open("/plans/" + id);
        give("#dropped-file", file("model.txt", sliced(new SmallGcode()).bytes()));
        browser.see(".file-facts", "one for one");
        browser.open("/plans/" + id);
        browser.see("#ledger", "timed from the G-code");
        give("#dropped-file", file("bracket.gcode", StlWriter.binary(nameplate().mesh())));
        browser.see(".steps", "bracket");
    }

    @Test
    void a_piece_of_a_layer_can_be_coloured_by_a_click_and_a_finding_leads_to_its_layer() {
        String id = plan("pieces").id();
        browser.open("/plans/" + id + "?layer=20");
        browser.click("path.plastic");
        browser.see("#piece", "pieces 2");
        browser.click("#piece .dab[title=Light]");
        browser.until(
                () -> "Undo: colour parts in Light".equals(browser.find("#undo").getDomAttribute("title")));
        browser.click("#findings-known summary");
        browser.click("#finding-first-spool [data-go]");
        seeLayer(1);
    }

    @Test
    void a_plan_is_renamed_duplicated_deleted_and_brought_back() {
        String id = plan("first name").id();
        browser.open("/plans/" + id);
        browser.click("details.step summary");
        browser.type("#plan-name", "second name", Keys.ENTER);
        browser.see(".steps", "second name");
        browser.click("form[hx-post$='/duplicate'] button");
        browser.see(".steps", "second name (copy)");
        browser.open("/plans/" + id);
        browser.click("details.step summary");
        browser.click("form[hx-post$='/delete'] button");
        browser.see("main", "The plan was deleted");
        browser.click(".notice button");
        seePlan("second name");
        plans.delete(id);
        browser.open("/");
        browser.find(".away summary").sendKeys(Keys.ENTER);
        browser.find("[aria-label='Bring back second name']").sendKeys(Keys.ENTER);
        seePlan("second name");
    }

    private void seePlan(String name) {
        browser.until(() ->
                browser.all(".card-plan h2").stream().anyMatch(h -> h.getText().equals(name)));
    }

    private static final String WEDGE_OBJ =
            """
            v 0 0 0
            v 40 0 0
            v 40 20 0
            v 0 20 0
            v 0 0 10
            v 0 20 10
            f 4 3 2 1
            f 1 2 5
            f 4 6 3
            f 1 5 6 4
            f 2 3 6 5
            """;

    @Test
    void an_obj_model_is_looked_over_scaled_and_laid_on_another_side_and_its_colours_move_along() throws IOException {
        browser.open("/");
        give("#model-file", file("wedge.obj", WEDGE_OBJ.getBytes()));
        browser.see(".steps", "40.0 × 20.0 × 10.00 mm");
        startColour("5", "Light");
        seeColours("Light 5.00", "Dark bed");

        browser.click("details.step:nth-of-type(2) summary");
        browser.see("#model-fold", "Closed, and every triangle faces outwards");
        assertThat(browser.text("#model-fold")).contains("4.00 cm³");
        browser.type("#scale", "50", Keys.ENTER);
        browser.see(".steps", "20.0 × 10.0 × 5.00 mm");
        seeColours("Light 2.50", "Dark bed");

        // The fold stays open while the hand is in it.
        browser.click("#model-fold .laying summary");
        browser.until(() -> browser.all("#model-fold .laying button.link").stream()
                .filter(b -> b.getText().startsWith("front"))
                .findFirst()
                .map(b -> {
                    b.click();
                    return true;
                })
                .orElse(null));
        browser.see(".steps", "× 10.00 mm");
        seeColours("Light 2.50", "Dark bed");
        browser.click("#undo");
        browser.see(".steps", "20.0 × 10.0 × 5.00 mm");
        browser.click("details.step:nth-of-type(2) summary");
        browser.click("#flip-model");
        browser.until(() -> browser.find("#undo").getDomAttribute("title").contains("upside down"));
        browser.type("#scale", "0", Keys.ENTER);
        browser.see("#notice, #refused", "A scale of 0.0 is out of range");
    }

    @Test
    void layers_that_fit_the_colours_are_offered_and_taken_or_the_colours_are_moved() {
        String id = plan("fitting").id();
        browser.open("/plans/" + id);
        startColour("2.47", "Light");
        browser.see("#findings", "2.47");
        browser.click("details.step:nth-of-type(4) summary");
        browser.see(".fit", "2.47 prints at 2.40 (-0.07)");
        browser.click("#onto-grid");
        seeColours("Light 2.40", "Dark bed");
        browser.click("#undo");
        seeColours("Light 2.47", "Dark bed");
        browser.click("details.step:nth-of-type(4) summary");
        browser.until(() -> !browser.all("#fit-0").isEmpty());
        String first = browser.text(".fit tbody tr td:nth-child(1)");
        String layer = browser.text(".fit tbody tr td:nth-child(2)");
        browser.click("#fit-0");
        browser.see(".steps", "of " + layer + " mm");
        assertThat(browser.find("#first-layer").getDomProperty("value")).isEqualTo(first);
        assertThat(browser.all("#findings [id^=finding-off-grid]")).isEmpty();
    }

    @Test
    void the_first_layer_of_a_colour_is_seen_beside_the_one_below_it() {
        String id = plan("compared").id();
        browser.open("/plans/" + id + "?layer=12");
        browser.click("#keep-beside");
        browser.until(() -> browser.all("#layer-plan svg.layer-plan").size() == 2);
        browser.leaveFields();
        browser.press(Keys.ARROW_UP);
        seeLayer(13);
        assertThat(browser.all(".layer-shown figcaption"))
                .extracting(WebElement::getText)
                .satisfiesExactly(
                        below -> assertThat(below).contains("Layer 12:").contains("600.0 mm²"),
                        here -> assertThat(here).contains("Layer 13:").contains("336.0 mm²"));
        browser.driver().navigate().refresh();
        browser.until(() -> browser.all("#layer-plan svg.layer-plan").size() == 2);
        startColour("2.4", "Light");
        seeColours("Light 2.40", "Dark bed");
        assertThat(browser.all("#layer-plan svg.layer-plan")).hasSize(2);
        browser.leaveFields();
        browser.press("b");
        browser.until(() -> browser.all("#layer-plan svg.layer-plan").size() == 1);
    }
}
