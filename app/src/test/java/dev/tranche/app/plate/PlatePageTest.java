package dev.tranche.app.plate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.gcode.SmallGcode;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Ordering.Rule;
import dev.tranche.core.plate.Plate;
import dev.tranche.core.plate.Rims;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.purge.PurgePlace.SmallTower;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.Rectangle;
import org.openqa.selenium.interactions.Actions;

/** The bed from above. */
class PlatePageTest extends BrowserTest {
    private Plate plate(PlanState plan) {
        return plans.get(plan.id()).content().plate();
    }

    @Test
    void twelve_are_arranged_and_one_is_moved_by_key_by_pointer_and_by_number() {
        PlanState plan = plan("twelve");
        browser.open("/plans/" + plan.id() + "/plate");
        assertThat(browser.all(".plate .copy")).hasSize(1);
        browser.type("#plate-copies", "12");
        browser.type("#plate-gap", "4");
        browser.click("#arrange");
        browser.until(() -> browser.all(".plate .copy").size() == 12);
        assertThat(plate(plan)).isEqualTo(new Plate(12, 4, List.of()));
        assertThat(browser.all("#plate-wrong")).isEmpty();

        double x = Double.parseDouble(browser.find("#x-0").getDomProperty("value"));
        double y = Double.parseDouble(browser.find("#y-0").getDomProperty("value"));
        browser.script("document.getElementById('copy-0').focus()");
        browser.press(Keys.ARROW_LEFT);
        browser.until(() -> Double.parseDouble(browser.find("#x-0").getDomProperty("value")) < x - 0.5);
        Spot first = plate(plan).byHand().get(0);
        assertThat(first.x()).isCloseTo(x - 1, within(0.006));
        // The hand stays where it was.
        browser.press("t");
        browser.until(() -> plate(plan).byHand().get(0).turn() == 15);

        browser.until(() -> browser.find("#turn-0").getDomProperty("value").equals("15.0"));
        new Actions(browser.driver())
                .dragAndDropBy(browser.find("#copy-0 circle"), -30, 0)
                .perform();
        browser.until(() -> plate(plan).byHand().get(0).x() < x - 5);
        assertThat(plate(plan).byHand().get(0).y()).isCloseTo(y, within(1.0));

        browser.type("#x-0", "1000", Keys.TAB);
        browser.see("#plate-wrong", "Copy 1 reaches beyond the bed");
        browser.type("#x-0", "far", Keys.TAB);
        browser.see("#notice, #refused", "“far” is not a number");
        assertThat(plate(plan).byHand().get(0).x()).isEqualTo(1000);

        // The desk says so, too, and undo brings the copy back.
        browser.open("/plans/" + plan.id());
        browser.see("#finding-copies-beyond", "Copy 1 reaches beyond the bed");
        browser.click("#undo");
        browser.until(() -> browser.all("#finding-copies-beyond").isEmpty());
    }

    @Test
    void a_plate_of_twelve_row_markers_has_its_tower_moved_until_no_way_back_is_named() {
        PlanState plan = plan("row markers");
        plans.editAll(plan.id(), plan.edition(), "two colours, twelve copies, a tower", c -> c.with(c.colours()
                        .startAt(
                                Height.ofMillimetres(2.4),
                                shelf.all().get(1).id(),
                                LayerSettings.COMMON.on(Height.ofMillimetres(5))))
                .with(c.purge().into(new PurgePlace.OnTower(30)))
                .times(12));
        browser.open("/plans/" + plan.id() + "/plate");
        // It stands where the nozzle comes past, and no way back is unclean.
        browser.until(() -> browser.all(".plate .tower").size() == 1);
        assertThat(browser.all(".plate .way")).isNotEmpty();
        assertThat(browser.all(".plate .way.unclean")).isEmpty();

        // Taken into a far corner it catches nothing; the page says so, and so does the desk.
        browser.script("window.sent = 0; document.addEventListener('htmx:beforeRequest', () => window.sent++)");
        browser.type("#tower-x", "200", Keys.TAB);
        browser.until(() -> browser.all(".plate .way.unclean").size() == 1);
        browser.see("#ways", "over 4 mm of A Dark of copy 1");
        browser.see("#plate-wrong", "reaches beyond the bed");
        browser.type("#tower-x", "135", Keys.TAB);
        browser.see("#plate-wrong", "comes back over another colour before it meets the tower");
        // What was typed is not sent again and again, though the page writes it with more decimals.
        Object sent = browser.script("return window.sent");
        assertThat(browser.script("return new Promise(done => setTimeout(() => done(window.sent), 600))"))
                .isEqualTo(sent);
        browser.open("/plans/" + plan.id());
        browser.see("#finding-return-paths", "comes back over another colour");

        browser.open("/plans/" + plan.id() + "/plate");
        int tries = 0;
        while (!browser.all(".cure").isEmpty() && tries++ < 5) {
            int left = browser.all(".plate .way.unclean").size();
            browser.click(".cure");
            browser.until(() -> browser.all(".plate .way.unclean").size() < left);
        }
        assertThat(browser.all(".plate .way.unclean")).isEmpty();
        assertThat(browser.all("#plate-wrong")).isEmpty();
        assertThat(plate(plan).tower()).isPresent();

        // Nudged by key, and given back to Tranche.
        double x = plate(plan).tower().orElseThrow().x();
        browser.script("document.getElementById('tower').focus()");
        browser.press(Keys.ARROW_RIGHT);
        browser.until(() -> plate(plan).tower().orElseThrow().x() == x + 1);
        browser.click("#tower-anywhere");
        browser.until(() -> plate(plan).tower().isEmpty());
    }

    @Test
    void copies_are_planned_one_after_another_beside_the_other_orders_and_the_bed_shows_what_the_head_needs() {
        PlanState plan = plan("one after another");
        plans.editAll(plan.id(), plan.edition(), "two colours, two copies", c -> c.with(c.colours()
                        .startAt(
                                Height.ofMillimetres(2.4),
                                shelf.all().get(1).id(),
                                LayerSettings.COMMON.on(Height.ofMillimetres(5))))
                .times(2));
        browser.open("/plans/" + plan.id() + "/order");
        browser.see("#order-numbered", "swaps");
        assertThat(browser.text("#order-numbered .order-figures")).contains("1");
        assertThat(browser.text("#order-apart .order-figures")).contains("3");
        browser.see("#order-apart", "whole before the next");
        browser.click("#plan-apart");
        browser.see("#order-apart h2", "the plan's");
        assertThat(plans.get(plan.id()).content().colours().ordering().rule()).isEqualTo(Rule.ONE_AFTER_ANOTHER);

        // 5 mm high and the nozzle dips 3: copies stand as far apart as the head needs.
        browser.open("/plans/" + plan.id() + "/plate");
        browser.until(() -> browser.all(".plate .clear").size() == 1);
        double y = Double.parseDouble(browser.find("#y-0").getDomProperty("value"));
        browser.type("#y-1", String.valueOf(y + 25), Keys.TAB);
        browser.see("#plate-wrong", "the head needs 40 mm there");
        browser.click("#plate-wrong button");
        browser.until(() -> browser.all("#plate-wrong").isEmpty());
        browser.open("/plans/" + plan.id());
        browser.see("#finding-order-needs-slicing", "whole before the next");
    }

    @Test
    void parts_are_laid_side_by_side_moved_by_number_and_put_together_again() {
        PlanState plan = plan(
                "two lids",
                new Shapes().box(0, 0, 0, 20, 20, 3).box(30, 0, 0, 20, 20, 3).mesh());
        browser.open("/plans/" + plan.id() + "/plate");
        browser.until(() -> browser.all("#lay-out").size() == 1);
        browser.type("#parts-apart", "45");
        browser.click("#lay-out button");
        browser.until(() -> !plans.get(plan.id()).content().parts().shifts().isEmpty());
        browser.until(() -> browser.all("#parts-together").size() == 1);
        // They stand 45 mm apart in a row, and what was put together is laid out again by undo.
        browser.click("#part-places summary");
        browser.until(() -> browser.find("#part-x-1").getDomProperty("value").equals("35.00"));
        browser.type("#part-y-1", "70", Keys.TAB);
        browser.until(() -> plans.get(plan.id()).content().parts().of(1).shift().y() == 70);
        browser.click("#parts-together");
        browser.until(() -> plans.get(plan.id()).content().parts().shifts().isEmpty());
        browser.open("/plans/" + plan.id());
        browser.click("#undo");
        browser.until(() -> plans.get(plan.id()).content().parts().of(1).shift().y() == 70);
    }

    @Test
    void a_part_is_moved_and_turned_by_pointer_and_key_and_all_else_stays_where_it_is() {
        PlanState plan = plan(
                "lid and knob",
                new Shapes().box(0, 0, 0, 20, 20, 3).box(30, 0, 0, 10, 10, 3).mesh());
        browser.open("/plans/" + plan.id() + "/plate");
        browser.until(() -> browser.all(".plate .copy").size() == 1);
        assertThat(browser.find(".plate .pieces").isDisplayed()).isFalse();
        browser.click("#moving-parts");
        browser.until(() -> browser.find(".plate .pieces").isDisplayed());
        Rectangle lid = outline("#piece-0");
        new Actions(browser.driver())
                .dragAndDropBy(browser.find("#piece-1"), 60, 0)
                .perform();
        browser.until(() -> shift(plan, 1).x() > 5);
        browser.until(() -> !browser.find("#part-x-1").getDomProperty("value").equals("0.00"));
        assertThat(outline("#piece-1").x - lid.x).isGreaterThan(150);
        // What is moved is still chosen, and the lid stands where it stood.
        assertThat(browser.find(".plate .pieces").isDisplayed()).isTrue();
        assertThat(outline("#piece-0").x).isCloseTo(lid.x, within(1));
        assertThat(shift(plan, 0)).isEqualTo(Shift.NONE);

        double x = shift(plan, 1).x();
        browser.script("document.getElementById('piece-1').focus()");
        browser.press(Keys.chord(Keys.SHIFT, Keys.ARROW_UP));
        browser.until(() -> shift(plan, 1).y() == 10);
        browser.until(() -> browser.find("#part-y-1").getDomProperty("value").equals("10.00"));
        browser.press("t");
        browser.until(() -> shift(plan, 1).turn() == 15);
        browser.until(() -> browser.find("#part-turn-1").getDomProperty("value").equals("15.0"));
        assertThat(shift(plan, 1).x()).isEqualTo(x);

        // The model turned on the bed, a nudge to the right is still one to the right.
        browser.type("#turn-0", "90", Keys.TAB);
        browser.until(() -> plate(plan).byHand().get(0).turn() == 90);
        browser.until(() -> browser.find("#turn-0").getDomProperty("value").equals("90.0"));
        browser.script("document.getElementById('piece-1').focus()");
        browser.press(Keys.ARROW_RIGHT);
        browser.until(() -> shift(plan, 1).y() == 9);
        assertThat(shift(plan, 1).x()).isCloseTo(x, within(1e-9));

        browser.click("#part-places summary");
        browser.type("#part-turn-1", "-45", Keys.TAB);
        browser.until(() -> shift(plan, 1).turn() == 315);
        browser.until(() -> browser.find("#part-turn-1").getDomProperty("value").equals("315.0"));
        // Laid side by side it is turned as it was.
        browser.click("#lay-out button");
        browser.until(() -> shift(plan, 1).y() > 20);
        assertThat(shift(plan, 1).turn()).isEqualTo(315);
        browser.until(() -> !browser.find("#part-y-1").getDomProperty("value").equals("9.00"));
        browser.type("#part-turn-1", "round", Keys.TAB);
        browser.see("#notice, #refused", "“round” is not a number");
    }

    private Shift shift(PlanState plan, int part) {
        return plans.get(plan.id()).content().parts().of(part).shift();
    }

    private static Rectangle outline(String css) {
        return browser.until(() -> browser.find(css + " path").getRect());
    }

    @Test
    void a_small_tower_beside_a_bin_is_chosen_where_purge_goes_and_stands_on_the_plate() {
        PlanState plan = plan("small tower");
        plans.editAll(
                plan.id(),
                plan.edition(),
                "two colours",
                c -> c.with(c.colours()
                        .startAt(
                                Height.ofMillimetres(2.4),
                                shelf.all().get(1).id(),
                                LayerSettings.COMMON.on(Height.ofMillimetres(5)))));
        browser.open("/plans/" + plan.id() + "/purge");
        browser.click("#small-tower");
        browser.type("#small-volume", "20");
        browser.click("#purge-like-this");
        browser.until(() ->
                plans.get(plan.id()).content().purge().place().towerWidth().isPresent());
        assertThat(plans.get(plan.id()).content().purge().place())
                .isEqualTo(new PurgePlace.Bin(Optional.of(new SmallTower(15, new Volume(20)))));
        browser.open("/plans/" + plan.id() + "/plate");
        browser.until(() -> browser.all(".plate .tower").size() == 1);
        assertThat(browser.find("#tower-wide").getDomProperty("value")).isEqualTo("15");
    }

    @Test
    void a_sliced_file_says_itself_where_things_stand() throws IOException {
        PlanState plan = plan("in a file");
        browser.open("/plans/" + plan.id() + "/hand-off");
        give("#gcode-file", file("plate.gcode", sliced(new SmallGcode()).bytes()));
        browser.see(".file-facts h3", "plate.gcode");
        browser.open("/plans/" + plan.id() + "/plate");
        browser.see("main", "The sliced file decides where things stand");
        browser.see("main", "One copy was found in it");
        browser.until(() -> browser.all(".plate .found").size() == 1);
        assertThat(browser.all(".plate .copy")).isEmpty();
    }

    @Test
    void brim_and_skirt_are_typed_drawn_kept_and_leave_their_room() {
        PlanState plan = plan("rims");
        browser.open("/plans/" + plan.id() + "/plate");
        assertThat(browser.all(".plate .rims")).isEmpty();
        browser.type("#brim", "6", Keys.TAB);
        browser.until(() -> !browser.all(".plate .rims").isEmpty());
        browser.type("#skirt", "9", Keys.TAB);
        browser.until(() -> plate(plan).rims().equals(new Rims(6, 9)));
        browser.type("#plate-copies", "12");
        browser.click("#arrange");
        browser.until(() -> plate(plan).copies() == 12);
        assertThat(plate(plan)).isEqualTo(new Plate(12, 2, List.of(), Optional.empty(), new Rims(6, 9)));
        browser.type("#brim", "wide", Keys.TAB);
        browser.see("#refused", "brim");
        browser.press(Keys.ESCAPE);
        browser.type("#brim", "60", Keys.TAB);
        browser.see("#refused", "A brim that reaches 60");
        assertThat(plate(plan).rims()).isEqualTo(new Rims(6, 9));
    }

    @Test
    void places_by_hand_are_kept_in_plan_files_and_other_numbers_arrange_anew() {
        PlanState plan = plan("kept");
        Plate byHand = new Plate(2, 3, List.of(new Spot(60, 60, 30), new Spot(120.5, 60, 0)));
        plans.editAll(plan.id(), plan.edition(), "place", c -> c.with(byHand));
        assertThat(plate(plan)).isEqualTo(byHand);
        browser.open("/plans/" + plan.id() + "/plate");
        assertThat(browser.find("#x-1").getDomProperty("value")).isEqualTo("120.50");
        browser.type("#plate-copies", "3");
        browser.click("#arrange");
        browser.until(() -> plate(plan).copies() == 3);
        assertThat(plate(plan).byHand()).isEmpty();
        browser.type("#plate-copies", "0");
        browser.click("#arrange");
        browser.see("#notice, #refused", "0 copies cannot be printed at once");
        assertThat(plate(plan).copies()).isEqualTo(3);
    }
}
