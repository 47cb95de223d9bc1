package dev.tranche.app.costs;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.settings.DayTime;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.storage.Restored;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Ordering;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.ApplicationEventPublisher;

/** Orders, purge, clock and comparison of a block of two colours side by side, as people use them. */
class CostPagesTest extends BrowserTest {
    @Autowired
    private Settings settings;

    @Autowired
    private ApplicationEventPublisher events;

    private static Mesh block() {
        return new Shapes().box(0, 0, 0, 30, 20, 8).mesh();
    }

    /** Forty layers, the left half in the second spool. */
    private PlanState halves(String name) {
        PlanState plan = plan(name, block());
        SpoolId second = spool(1).id();
        return plans.edit(
                plan.id(),
                plan.edition(),
                "half",
                p -> p.with(p.regions()
                        .plus(new Region(
                                "half",
                                new Shape.Zone(new Outline.Box(15, 20), 7.5, 10, 0, false),
                                second,
                                Range.ALL))));
    }

    private Spool spool(int place) {
        return shelf.all().get(place);
    }

    private Ordering ordering(PlanState plan) {
        return plans.get(plan.id()).content().colours().ordering();
    }

    private String figure(String row) {
        return browser.text("#order-" + row + " .order-figures dd").replaceAll("\\D+", "");
    }

    @Test
    void following_the_advice_at_the_desk_brings_a_swap_a_layer_down_to_less_than_a_third() {
        PlanState plan = halves("advice");
        browser.open("/plans/" + plan.id());
        browser.see("#ledger", "40");
        browser.see("#finding-side-by-side", "40 of 40 layers, which takes 40 swaps");
        browser.click("#finding-side-by-side button.btn");
        browser.see("#to-order", "bands");
        browser.until(() -> browser.all("#finding-side-by-side").isEmpty());
        int swaps = Integer.parseInt(browser.find("#ledger .opens summary b").getText());
        assertThat(swaps).isPositive().isLessThanOrEqualTo(40 / 3);
        browser.see("#finding-order-needs-tools", "slice the coloured model with a tool for each spool");
        assertThat(ordering(plan).rule()).isEqualTo(Ordering.Rule.BANDS);
    }

    @Test
    void three_orders_stand_side_by_side_and_one_is_taken_by_keyboard() {
        PlanState plan = halves("orders");
        browser.open("/plans/" + plan.id() + "/order");
        assertThat(figure("numbered")).isEqualTo("40");
        assertThat(figure("best")).isEqualTo("40");
        assertThat(Integer.parseInt(figure("bands"))).isLessThan(14);
        assertThat(browser.all(".bracket").size()).isGreaterThan(1);
        browser.find("#plan-bands").sendKeys(Keys.ENTER);
        browser.see("#order-bands", "the plan's");
        assertThat(ordering(plan).rule()).isEqualTo(Ordering.Rule.BANDS);
        browser.find("#plan-best").sendKeys(Keys.SPACE);
        browser.see("#order-best", "the plan's");
        browser.choose("#aim", "purge, then swaps");
        browser.until(() -> ordering(plan).aim() == Ordering.Aim.PURGE);
    }

    @Test
    void one_action_takes_the_best_numbering() {
        PlanState plan = halves("numbering");
        SpoolId third = zinc().id();
        plan = plans.edit(
                plan.id(),
                plan.edition(),
                "stripe",
                p -> p.with(p.regions()
                        .plus(new Region(
                                "stripe",
                                new Shape.Zone(new Outline.Box(5, 20), 25, 10, 0, false),
                                third,
                                Range.ofLayers(p.layers().on(dev.tranche.core.units.Height.ofMillimetres(8)), 1, 1)))));
        String id = plan.id();
        browser.open("/plans/" + id + "/order");
        String before = figure("numbered");
        String best = figure("best");
        assertThat(browser.all("#order-numbering")).hasSize(1);
        browser.click("#adopt-numbering");
        browser.until(() -> browser.all("#order-numbering").isEmpty());
        assertThat(figure("numbered")).isEqualTo(best).isNotEqualTo(before);
    }

    /** Two of one colour: nothing has to be washed out, and the nozzle has to be filled again all the same. */
    @Test
    void a_pair_that_needs_only_what_the_nozzle_does_says_so() {
        PlanState plan = halves("least");
        Spool first = spool(0);
        Spool twin = shelf.add(new Spool(
                new SpoolId(0),
                "Twin",
                first.material(),
                first.colour(),
                first.density(),
                first.pricePerKilogram(),
                first.firstLayerTemperature(),
                first.temperature(),
                500));
        plans.edit(
                plan.id(),
                plan.edition(),
                "a quarter",
                p -> p.with(p.regions()
                        .plus(new Region(
                                "quarter",
                                new Shape.Zone(new Outline.Box(8, 20), 26, 10, 0, false),
                                twin.id(),
                                Range.ALL))));
        browser.open("/plans/" + plan.id() + "/purge?out=" + first.id().value() + "&in="
                + twin.id().value());
        browser.see(".pair-facts", "At least, to fill the nozzle again");
    }

    @Test
    void a_measured_purge_overrides_its_pair_and_refits_the_dead_volume() {
        PlanState plan = halves("purge");
        browser.open("/plans/" + plan.id() + "/purge");
        browser.click("#pair-AB");
        browser.see("#pair-title", spool(1).name());
        assertThat(browser.all(".curve .washed")).hasSize(1);
        assertThat(browser.all(".curve rect").size()).isGreaterThan(10);
        String computed = browser.text("#pair-AB .num");
        for (String bad : new String[] {"-5", "0", "99999", "many"}) {
            browser.type("#measured", bad);
            assertThat(browser.find("#refused").isDisplayed()).isFalse();
            browser.click("#keep-measured");
            browser.until(() -> browser.find("#refused").isDisplayed());
            assertThat(browser.find("#measured").getDomProperty("value")).isEqualTo(bad);
        }
        browser.type("#measured", "321");
        browser.click("#keep-measured");
        browser.see("#pair-AB", "measured");
        assertThat(browser.text("#pair-AB .num")).isEqualTo("321").isNotEqualTo(computed);
        Workshop.Machine before = workshop.get(plan.content().printer());
        try {
            browser.click("#refit");
            browser.until(() -> !workshop.get(before.id())
                    .printer()
                    .deadVolume()
                    .equals(before.printer().deadVolume()));
            browser.click("#forget-measured");
            browser.until(() -> !browser.text("#pair-AB").contains("measured"));
        } finally {
            // Plans of other tests are on that printer, too.
            workshop.edit(before.id(), workshop.get(before.id()).version().edition(), "as it was", now -> before.rig());
        }
    }

    @Test
    void a_tower_shows_its_cost_before_it_is_chosen_and_a_factor_of_nothing_is_refused() {
        PlanState plan = halves("tower");
        browser.open("/plans/" + plan.id() + "/purge");
        browser.see(".places", "Onto a tower");
        browser.click("#place-tower");
        browser.type("#tower-width", "40");
        browser.click("#purge-like-this");
        // What was typed stands there before it is sent, too: only the edition tells that it was taken.
        browser.until(() -> !String.valueOf(plan.edition())
                .equals(browser.find("#purge-place input[name=seen]").getDomProperty("value")));
        assertThat(browser.find("#place-tower").isSelected()).isTrue();
        assertThat(browser.find("#tower-width").getDomProperty("value")).isEqualTo("40");
        browser.type("#factor", "0");
        browser.click("#purge-like-this");
        browser.see("#notice, #refused", "factor of 0.0 is out of range");
        browser.open("/plans/" + plan.id());
        browser.see("#ledger", "Waste, with tower");
    }

    @Test
    void the_clock_marks_swaps_in_quiet_time_and_suggests_a_start_and_gives_a_calendar() throws Exception {
        PlanState plan = halves("clock");
        browser.open("/settings");
        browser.type("#quiet", "22:30-6:30");
        browser.type("#tariff", "0.30");
        browser.type("#zone", "Europe/Berlin");
        browser.click("#keep-settings");
        browser.see(".notice", "Kept");
        // As they are read anew they are the same to the letter: what was reckoned with them is kept by their words.
        String kept = settings.now().toString();
        events.publishEvent(new Restored());
        assertThat(settings.now()).hasToString(kept);
        browser.open("/plans/" + plan.id() + "/clock");
        start("2026-11-28T22:00");
        // At night the page advises before any start is set, too.
        browser.see("#content", "Begins on Saturday 28 November, 22:00");
        browser.see("#clock-advice", "while nobody is there");
        assertThat(browser.all("tr.missed").size()).isGreaterThan(10);
        browser.click("#take-suggested");
        browser.until(() -> browser.all("tr.missed").isEmpty());
        assertThat(plans.get(plan.id()).content().start().orElseThrow().getHour())
                .isLessThan(12);
        browser.click("#calendar");
        Path file = browser.download("clock-swaps.ics");
        Calendar calendar = new CalendarBuilder().build(Files.newInputStream(file));
        List<VEvent> events = calendar.getComponents("VEVENT");
        assertThat(events).hasSize(40);
        calendar.validate(true);
        assertThat(events.get(0).getAlarms()).hasSize(1);
        assertThat(events.get(0).getDescription().getValue()).contains("in layer 1");
        browser.open("/plans/" + plan.id());
        browser.see("#ledger", "Cost, with current");
        assertThat(browser.text("#to-clock")).doesNotContain("–");
    }

    @Test
    void whoever_counts_twelve_hours_sees_them_on_every_page_and_the_browser_proposes_what_it_counts() {
        PlanState plan = halves("by twelve hours");
        browser.open("/settings");
        browser.type("#zone", "Europe/Berlin");
        browser.choose("#hours", "24 hours, 16:30");
        browser.click("#keep-settings");
        browser.see(".notice", "Kept");
        // This browser speaks American English.
        browser.see("#browser-hours", "Use 12 hours");
        browser.click("#browser-hours");
        browser.until(() -> settings.now().hours() == DayTime.HOURS_12);
        try {
            browser.open("/plans/" + plan.id() + "/clock");
            start("2026-11-28T18:05");
            browser.see("#content", "Begins on Saturday 28 November, 6:05 pm");
            assertThat(browser.text("table[data-table=clock] tbody tr"))
                    .contains("Sat 6:")
                    .contains(" pm");
            browser.open("/plans/" + plan.id());
            assertThat(browser.text("#to-clock")).contains("6:05 pm");
            browser.open("/plans/" + plan.id() + "/swap-list");
            assertThat(browser.text(".lead")).contains("6:05 pm").doesNotContain("18:05");
        } finally {
            settings.set("EUR", "", "", "Europe/Berlin", DayTime.HOURS_24);
        }
    }

    private void start(String local) {
        browser.script(
                "const f = document.getElementById('start'); f.value = arguments[0]; f.dispatchEvent(new Event('input'))",
                local);
        browser.click("#set-start");
    }

    @Test
    void an_hour_that_clocks_skip_is_no_start() {
        PlanState plan = halves("skipped");
        browser.open("/settings");
        browser.type("#zone", "Europe/Berlin");
        browser.click("#keep-settings");
        browser.see(".notice", "Kept");
        browser.open("/plans/" + plan.id() + "/clock");
        start("2027-03-28T02:30");
        browser.see(
                "#notice, #refused",
                "Clocks go forward on 2027-03-28, and 02:30 does not come; give a time from 03:00 on.");
        assertThat(plans.get(plan.id()).content().start()).isEmpty();
    }

    @Test
    void three_variants_are_compared_one_is_dropped_and_one_adopted() {
        PlanState plan = halves("variants");
        browser.open("/plans/" + plan.id() + "/compare");
        attempt("#try-order", "in bands", "In bands", 1);
        attempt("#try-place", "onto a tower", "with a tower", 2);
        browser.type("#try-copies", "6");
        browser.type("#try-layer", "0.3");
        browser.click("#try-it");
        browser.until(() -> browser.all("#compare-table thead th").size() == 4);
        browser.see("#compare-table", "layers of 0.30 mm, 6 copies");
        assertThat(browser.all("#compare-table td.best").size()).isGreaterThan(5);
        browser.see("#compare-table", "Cost, each");
        browser.click("#drop-2");
        browser.until(() -> browser.all("#compare-table thead th").size() == 3);
        browser.click("#bring-back");
        browser.until(() -> browser.all("#compare-table thead th").size() == 4);
        browser.click("#adopt-1");
        browser.until(() -> ordering(plan).rule() == Ordering.Rule.BANDS);
        browser.open("/plans/" + plan.id());
        browser.until(() -> "Undo: adopt in bands".equals(browser.find("#undo").getDomAttribute("title")));
        browser.open("/");
        browser.see(".plan-cards", "3 variants");
        assertThat(IntStream.range(0, 3)
                        .mapToObj(i -> plans.variants(plan.id()).get(i).root()))
                .containsOnly(plan.id());
    }

    private void attempt(String field, String choice, String named, int count) {
        browser.choose(field, choice);
        browser.click("#try-it");
        browser.until(() -> browser.all("#compare-table thead th").size() == count + 1);
        assertThat(browser.text("#compare-table thead").toLowerCase()).contains(named.toLowerCase());
    }

    @Test
    void a_dozen_copies_share_one_set_of_swaps_and_all_figures_go_out_as_csv() throws IOException {
        PlanState plan = halves("dozen");
        browser.open("/plans/" + plan.id());
        browser.click(".step summary");
        browser.type("#copies", "12");
        browser.click("#set-copies");
        browser.see("#ledger .each", "12 copies");
        browser.see("#ledger", "40");
        browser.click("#ledger a[href$='ledger.csv']");
        String csv = Files.readString(browser.download("dozen-ledger.csv"), StandardCharsets.UTF_8);
        assertThat(csv)
                .startsWith("level,figure,value,unit,how")
                .contains("0,Swaps,40,")
                .contains("In one colour");
    }

    @Test
    void a_plan_goes_out_as_a_file_and_comes_in_with_the_same_figures() {
        PlanState plan = halves("file");
        int spools = shelf.all().size();
        int printers = workshop.all().size();
        browser.open("/plans/" + plan.id());
        String figures = browser.text("#ledger .figures");
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.click("#plan-file");
        Path file = browser.download("file.tranche");
        browser.open("/");
        give("#model-file", file);
        browser.until(
                () -> browser.path().startsWith("/plans/") && !browser.path().contains(plan.id()));
        assertThat(browser.text("#ledger .figures")).isEqualTo(figures);
        assertThat(browser.text(".step summary")).contains("file");
        // What is here already is used.
        assertThat(shelf.all()).hasSize(spools);
        assertThat(workshop.all()).hasSize(printers);
    }
}
