package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;
import org.springframework.beans.factory.annotation.Autowired;

/** What is typed, ticked and chosen arrives, or it is said why not; and the hand stays where it was. */
class FieldsTest extends BrowserTest {
    @Autowired
    private Jobs jobs;

    @AfterEach
    void connected() {
        network(0, false);
    }

    private void answersTake(int milliseconds) {
        network(milliseconds, false);
    }

    private void nobodyAnswers() {
        network(0, true);
    }

    private void network(int latency, boolean offline) {
        browser.driver().executeCdpCommand("Network.enable", Map.of());
        browser.driver()
                .executeCdpCommand(
                        "Network.emulateNetworkConditions",
                        Map.of(
                                "offline",
                                offline,
                                "latency",
                                latency,
                                "downloadThroughput",
                                -1,
                                "uploadThroughput",
                                -1));
    }

    /** A nameplate in two colours, the second from 2.4 mm up, with its desk open. */
    private PlanState twoColours(String name) {
        zinc();
        PlanState plan = plan(name);
        Spool second = shelf.all().get(1);
        plan = plans.edit(
                plan.id(),
                plan.edition(),
                "start",
                p -> p.startAt(Height.parse("2.4"), second.id(), p.layers().on(Height.parse("5"))));
        browser.open("/plans/" + plan.id());
        browser.find("#height-1");
        return plan;
    }

    @Test
    void work_that_a_page_waits_for_is_asked_about_again_once_somebody_answers() {
        CountDownLatch over = new CountDownLatch(1);
        Job work = jobs.start("Cutting a model", progress -> {
            try {
                over.await();
            } catch (InterruptedException closing) {
                Thread.currentThread().interrupt();
            }
            throw new Refusal("It holds no triangles.");
        });
        browser.open("/");
        browser.script(
                "fetch(arguments[0]).then(a => a.text()).then(html => { content.innerHTML = html; htmx.process(content); })",
                "/jobs/" + work.id());
        browser.see("#job", "Cutting a model");
        nobodyAnswers();
        browser.see("#notice", "Tranche does not answer");
        over.countDown();
        network(0, false);
        browser.see("#job", "It holds no triangles.");
        browser.until(() -> browser.all("#notice .unanswered").isEmpty());

        browser.script("content.innerHTML = document.getElementById('job').outerHTML.replace(/<p.*p>/s, "
                + "'<div hx-get=\"/jobs/gone\" hx-trigger=\"load\" hx-target=\"#job\" hx-swap=\"outerHTML\"></div>');"
                + "htmx.process(content)");
        browser.see("#job", "started anew");
    }

    private String value(String css) {
        return browser.until(() -> browser.find(css).getDomProperty("value"));
    }

    /** Types into a field, as a hand that takes out what was there; the field is not left. */
    private void fill(String css, String text) {
        browser.until(() -> {
            browser.find(css).click();
            browser.script("arguments[0].select()", browser.find(css));
            browser.find(css).sendKeys(text);
            return text.equals(browser.find(css).getDomProperty("value"));
        });
    }

    private void seeUndo(String what) {
        browser.until(() -> browser.find("#undo").getDomAttribute("title").startsWith("Undo: " + what));
    }

    private String focused() {
        return (String) browser.script("return document.activeElement.id || document.activeElement.localName");
    }

    private List<String> heights(PlanState plan) {
        return plans.get(plan.id()).content().colours().starts().list().stream()
                .map(s -> s.wished().toString())
                .toList();
    }

    @Test
    void every_menu_of_spools_offers_the_whole_shelf() {
        twoColours("all of the shelf");
        // A nozzle with one input blends nothing, and is offered none.
        assertThat(browser.all("#paints")).isEmpty();
        browser.choose("#spool-1", "Zinc");
        seeUndo("recolour");
        browser.script("document.getElementById('spool-0').dispatchEvent(new Event('pointerover', {bubbles: true}))");
        assertThat(new Select(browser.find("#spool-0")).getOptions())
                .extracting(WebElement::getText)
                .containsAll(shelf.all().stream().map(Spool::name).toList())
                .hasSize(shelf.all().size() + 1)
                .endsWith("new spool…");
    }

    @Test
    void a_height_left_by_tab_or_by_a_click_elsewhere_is_sent() {
        PlanState plan = twoColours("left by tab");
        fill("#height-1", "3");
        browser.press(Keys.TAB);
        browser.until(() -> heights(plan).contains("3.00") && "3.00".equals(value("#height-1")));
        fill("#height-1", "3.4");
        browser.click("#ledger h2");
        browser.until(() -> heights(plan).contains("3.40") && "3.40".equals(value("#height-1")));
    }

    @Test
    void what_is_refused_is_said_at_the_field_which_keeps_it_and_escape_brings_back_what_holds() {
        PlanState plan = twoColours("refused at the field");
        for (String wrong : List.of("99", "abc")) {
            fill("#height-1", wrong);
            browser.press(Keys.TAB);
            browser.until(() -> browser.find("#refused").isDisplayed()
                    && "true".equals(browser.find("#height-1").getDomAttribute("aria-invalid")));
            assertThat(value("#height-1")).isEqualTo(wrong);
            int under = browser.find("#height-1").getRect().y
                    + browser.find("#height-1").getRect().height;
            assertThat(browser.find("#refused").getRect().y).isBetween(under, under + 12);
            browser.find("#height-1").click();
            browser.press(Keys.ESCAPE);
            assertThat(value("#height-1")).isEqualTo("2.40");
            browser.until(() -> !browser.find("#refused").isDisplayed());
        }
        assertThat(heights(plan)).contains("2.40");
    }

    @Test
    void what_was_refused_stays_in_its_field_while_other_things_are_done_and_is_not_sent_again() {
        twoColours("refused and left");
        fill("#height-1", "99");
        browser.press(Keys.TAB);
        browser.until(() -> browser.find("#refused").isDisplayed());
        String said = browser.text("#refused");
        browser.click(".stratum-list select");
        browser.choose("#spool-1", zinc().name());
        seeUndo("recolour");
        assertThat(value("#height-1")).isEqualTo("99");
        assertThat(browser.find("#height-1").getDomAttribute("aria-invalid")).isEqualTo("true");
        assertThat(browser.text("#refused")).isEqualTo(said);
    }

    @Test
    void a_form_that_is_applied_as_a_whole_goes_when_the_hand_leaves_it() {
        PlanState plan = twoColours("applied as a whole");
        browser.click(".steps summary[title^='First-layer']");
        fill("#first-layer", "0.3");
        browser.press(Keys.TAB);
        assertThat(focused()).isEqualTo("layer-height");
        fill("#layer-height", "0.25");
        browser.click("#ledger h2");
        browser.see(".steps", "of 0.25 mm");
        LayerSettings layers = plans.get(plan.id()).content().colours().layers();
        assertThat(layers.firstLayer()).hasToString("0.30");

        browser.open("/settings");
        fill("#tariff", "many");
        browser.click("h1");
        browser.until(() -> browser.find("#refused").isDisplayed());
        assertThat(value("#tariff")).isEqualTo("many");
    }

    @Test
    void ticks_made_faster_than_answers_come_all_arrive() {
        long id = workshop.variant(workshop.all().get(0).id(), "Ticked quickly").id();
        browser.open("/printers/" + id + "/abilities");
        List<String> ticks = browser.until(() -> browser.all("#abilities-form input[name=ability]:enabled").stream()
                .filter(e -> !e.getDomAttribute("value").contains(":"))
                .filter(e -> !e.isSelected())
                .map(e -> e.getDomAttribute("id"))
                .limit(5)
                .toList());
        assertThat(ticks).hasSizeGreaterThan(2);
        answersTake(250);
        for (String tick : ticks) {
            browser.script("document.getElementById(arguments[0]).click()", tick);
        }
        browser.until(() -> ticks.stream().allMatch(t -> workshop.get(id)
                .printer()
                .abilities()
                .understands(dev.tranche.core.machine.Command.valueOf(t.substring("can-".length())))));
        browser.until(() -> ticks.stream().allMatch(t -> browser.find("#" + t).isSelected()));
    }

    @Test
    void what_is_done_while_nobody_answers_is_kept_and_sent_when_somebody_does() {
        PlanState plan = twoColours("nobody answers");
        nobodyAnswers();
        fill("#height-1", "3");
        browser.press(Keys.TAB);
        browser.see("#notice", "1 change is kept here");
        browser.choose("#spool-0", zinc().name());
        browser.see("#notice", "2 changes are kept here");
        assertThat(value("#height-1")).isEqualTo("3");
        network(0, false);
        browser.until(() -> heights(plan).contains("3.00")
                && plans.get(plan.id())
                        .content()
                        .colours()
                        .starts()
                        .list()
                        .get(0)
                        .spool()
                        .equals(zinc().id()));
        assertThat(value("#height-1")).isEqualTo("3.00");
    }

    @Test
    void what_takes_longer_than_a_moment_shows_that_it_is_under_way() {
        twoColours("under way");
        browser.script("window.sawBusy = 0; new MutationObserver(() => { if (!document.getElementById('busy').hidden"
                + " && document.getElementById('content').getAttribute('aria-busy') === 'true') window.sawBusy++; })"
                + ".observe(document.getElementById('content'), { attributes: true, attributeFilter: ['aria-busy'] })");
        answersTake(600);
        browser.choose("#spool-0", zinc().name());
        browser.until(() -> ((Long) browser.script("return window.sawBusy")) > 0);
        browser.until(() -> !browser.find("#busy").isDisplayed());
    }

    @Test
    void the_hand_stays_where_it_was() {
        twoColours("the hand stays");
        browser.click(".steps details.step summary");
        browser.click("#plan-name");
        browser.press(Keys.ESCAPE);
        assertThat(browser.script(
                        "return document.activeElement.localName + ' ' + document.activeElement.parentElement.open"))
                .isEqualTo("summary false");

        browser.script("document.getElementById('spool-1').focus()");
        browser.choose("#spool-1", zinc().name());
        seeUndo("recolour");
        assertThat(focused()).isEqualTo("spool-1");

        browser.script("document.getElementById('undo').focus()");
        browser.press(Keys.ENTER);
        browser.until(() -> browser.find("#redo").isEnabled());
        assertThat(focused()).isEqualTo("undo");

        browser.script("document.querySelector('.stratum-list button[title=Merge]').focus()");
        browser.press(Keys.ENTER);
        browser.until(() -> browser.all(".stratum-list li").size() == 1);
        assertThat(browser.script("return document.querySelector('.stratum-list').contains(document.activeElement)"))
                .isEqualTo(true);
    }

    @Test
    void a_link_is_followed_only_when_what_was_typed_has_arrived() {
        PlanState plan = twoColours("leaving");
        answersTake(300);
        fill("#height-1", "3.2");
        browser.click("#to-order");
        browser.until(() -> browser.path().endsWith("/order"));
        assertThat(heights(plan)).contains("3.20");
    }

    @Test
    void a_third_colour_is_put_on_the_shelf_and_chosen_without_leaving_the_desk() {
        PlanState plan = twoColours("a third colour");
        browser.choose("#spool-1", "new spool…");
        browser.type("#quick-name", "Poppy");
        browser.type("#quick-colour", "scarlet-ish", Keys.ENTER);
        browser.until(() -> browser.find("#refused").isDisplayed());
        assertThat(browser.text("#refused")).contains("is not a colour");
        browser.type("#quick-colour", "tomato", Keys.ENTER);
        seeUndo("recolour to Poppy");
        Spool poppy = shelf.byId()
                .get(plans.get(plan.id())
                        .content()
                        .colours()
                        .starts()
                        .list()
                        .get(1)
                        .spool());
        assertThat(poppy.colour().hex()).isEqualTo("#FF6347");
        // What was used last is offered first.
        browser.open("/plans/" + plan("another of poppies").id());
        assertThat(new Select(browser.find("#start-spool")).getOptions())
                .extracting(WebElement::getText)
                .startsWith(shelf.all().get(0).name(), "Poppy")
                .endsWith("new spool…");
    }

    @Test
    void a_printer_in_use_says_by_which_plans_and_a_removed_one_is_brought_back() {
        long id = workshop.variant(workshop.all().get(0).id(), "Spare bench").id();
        PlanState plan = twoColours("printed on a spare");
        plans.editAll(plan.id(), plan.edition(), "print elsewhere", c -> c.on(id));
        browser.open("/printers/" + id);
        browser.click("details.step summary");
        browser.see(".users", "Printed on by printed on a spare");
        assertThat(browser.find(".users a").getDomAttribute("href")).isEqualTo("/plans/" + plan.id());
        plans.delete(plan.id());
        browser.open("/printers/" + id);
        browser.click("details.step summary");
        browser.click(".users button");
        browser.see("main", "Spare bench was removed");
        browser.click("#bring-back");
        browser.until(() -> browser.path().equals("/printers/" + id));
        assertThat(workshop.removed()).noneMatch(m -> m.id() == id);
    }
}
