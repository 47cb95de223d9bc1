package dev.tranche.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** Spools taken up and put where they are to print, by drag, by press and by key; parts chosen many at once. */
class DabsTest extends BrowserTest {
    /** Two blocks that touch nothing of each other. */
    private static Mesh pair() {
        return new Shapes().box(0, 0, 0, 20, 20, 3).box(30, 0, 0, 20, 20, 3).mesh();
    }

    private PlanState now(PlanState plan) {
        return plans.get(plan.id());
    }

    private void undoable(String label) {
        browser.until(() -> ("Undo: " + label).equals(browser.find("#undo").getDomAttribute("title")));
    }

    private List<String> colours(PlanState plan) {
        return now(plan).content().colours().starts().list().stream()
                .map(s -> shelf.byId().get(s.spool()).name())
                .toList();
    }

    private WebElement dab(String spool) {
        long id = shelf.all().stream()
                .filter(s -> s.name().equals(spool))
                .findFirst()
                .orElseThrow()
                .id()
                .value();
        return browser.find("#take-" + id);
    }

    private void drag(String spool, String onto) {
        browser.until(() -> {
            new Actions(browser.driver())
                    .clickAndHold(dab(spool))
                    .moveByOffset(10, 10)
                    .moveToElement(browser.find(onto))
                    .release()
                    .perform();
            return true;
        });
    }

    @Test
    void a_spool_is_dragged_onto_a_row_a_band_and_a_piece() {
        PlanState plan = plan("dabs");
        Spool light = shelf.all().get(1);
        browser.open("/plans/" + plan.id() + "?layer=20");
        drag("Light", ".stratum-list li");
        undoable("recolour to Light");
        assertThat(colours(plan)).containsExactly("Light");
        // The section's middle is a layer of the one band there is.
        drag("Dark", "svg.section .layers-of");
        undoable("recolour to Dark");
        assertThat(colours(plan)).containsExactly("Dark");
        // Where it falls on nothing, nothing happens.
        long edition = now(plan).edition();
        drag("Light", "#ledger h2");
        drag("Light", "svg.layer-plan[data-layer] .plastic");
        undoable("colour parts in Light");
        assertThat(now(plan).edition()).isEqualTo(edition + 1);
        assertThat(now(plan).content().colours().regions().list())
                .extracting(Region::spool)
                .containsExactly(light.id());
        assertThat(browser.all(".carried")).isEmpty();
    }

    @Test
    void a_spool_is_dragged_onto_a_part_a_zone_and_the_row_of_a_region() {
        PlanState plan = plan("dabs on parts", pair());
        browser.open("/plans/" + plan.id() + "?side=parts");
        drag("Light", ".part-row:nth-child(2)");
        undoable("colour parts in Light");
        assertThat(now(plan).content().colours().regions().list())
                .singleElement()
                .satisfies(r -> assertThat(r.shape()).isEqualTo(new Shape.Parts(List.of(1))));
        // One that is ticked stands for all that are.
        browser.click("#part-0");
        browser.click("#part-1");
        drag("Dark", ".part-row:nth-child(1)");
        undoable("colour parts in Dark");
        assertThat(now(plan).content().colours().regions().list())
                .flatExtracting(r -> ((Shape.Parts) r.shape()).numbers())
                .containsExactlyInAnyOrder(0, 1);
        browser.click("#side-regions");
        browser.find(".region-row");
        drag("Light", ".region-row");
        undoable("recolour a region");
        assertThat(now(plan).content().colours().regions().list())
                .extracting(Region::spool)
                .contains(shelf.all().get(1).id());
    }

    @Test
    void a_spool_in_hand_is_put_by_key_and_by_press_and_let_go_by_escape() {
        PlanState plan = plan("dabs by key");
        browser.open("/plans/" + plan.id() + "?layer=3");
        dab("Light").sendKeys(Keys.ENTER);
        assertThat(dab("Light").getDomAttribute("aria-pressed")).isEqualTo("true");
        browser.press(Keys.ESCAPE);
        assertThat(dab("Light").getDomAttribute("aria-pressed")).isEqualTo("false");
        dab("Light").sendKeys(Keys.ENTER);
        browser.find("#section").sendKeys(Keys.ENTER);
        undoable("recolour to Light");
        assertThat(colours(plan)).containsExactly("Light");
        dab("Dark").click();
        browser.click(".stratum-list li .caption");
        undoable("recolour to Dark");
        // Empty-handed again, a press is a press.
        assertThat(browser.all("body.carrying")).isEmpty();
    }

    @Test
    void parts_are_chosen_by_name_file_and_colour_all_none_and_the_others() throws IOException {
        PlanState plan = plan("chosen parts", pair());
        browser.open("/plans/" + plan.id());
        browser.click(".step summary[title='The model of this plan']");
        give(
                "#add-file",
                file(
                        "knob.stl",
                        StlWriter.binary(new Shapes().box(60, 0, 0, 4, 4, 5).mesh())));
        browser.click("#add-model");
        browser.see(".sides", "Parts 3");
        browser.click("#side-parts");
        choose("all", 0, 1, 2);
        choose("none");
        choose("chosen parts.stl", 0, 1);
        choose("the others", 2);
        browser.type("#parts-named", "KNOB");
        ticked(2);
        browser.choose("#parts-spool", "Light");
        browser.click("#colour-parts");
        undoable("colour parts in Light");
        browser.click("#side-parts");
        choose("none");
        choose("B Light", 2);
        choose("by height", 0, 1);
    }

    private void choose(String what, Integer... parts) {
        browser.choose("#choose-parts", what);
        ticked(parts);
    }

    private void ticked(Integer... parts) {
        browser.until(() -> browser.all(".part-row [name=parts]:checked").stream()
                .map(e -> Integer.valueOf(e.getDomAttribute("value")))
                .toList()
                .equals(List.of(parts)));
    }
}
