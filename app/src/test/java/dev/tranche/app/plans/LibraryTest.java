package dev.tranche.app.plans;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.plan.Spool;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** Plans as a library: found, sorted, renamed, tagged, copied and put away, one or many. */
class LibraryTest extends BrowserTest {
    private List<String> shown() {
        return browser.until(() ->
                browser.all(".card-plan h2").stream().map(WebElement::getText).toList());
    }

    private void find(String words) {
        browser.type("#q", words);
    }

    private void see(String... names) {
        browser.until(() -> shown().equals(List.of(names)));
    }

    @Test
    void plans_are_found_by_name_tag_spool_and_printer_and_every_word_counts() {
        Spool teal = shelf.add(named(shelf.all().get(0), "Teal of the library"));
        PlanState gate = plan("Gate sign");
        PlanState gift = plan("Gift box");
        plans.edit(gift.id(), gift.edition(), "recolour", p -> p.recolour(0, teal.id()));
        plans.tag(gate.id(), t -> Tags.parse("Garden, spring"));
        browser.open("/");
        find("gate");
        see("Gate sign");
        find("teal library");
        see("Gift box");
        find("garden");
        see("Gate sign");
        find("garden teal");
        browser.until(() -> browser.all(".card-plan").isEmpty());
        assertThat(browser.text("#plans .empty")).contains("“garden teal”");
        find("sign " + workshop.all().get(0).printer().name());
        see("Gate sign");
        // The address finds the same.
        browser.open(browser.path());
        see("Gate sign");
    }

    @Test
    void a_plan_is_renamed_tagged_copied_and_deleted_from_its_card_and_brought_back() {
        PlanState plan = plan("Hook for hats");
        browser.open("/?q=hats");
        browser.click("#acts-" + plan.id() + " summary");
        browser.type("#name-" + plan.id(), "Hook for straw hats", Keys.ENTER);
        browser.see("#card-" + plan.id() + " h2", "Hook for straw hats");
        browser.type("#tags-" + plan.id(), "hall, gifts");
        browser.press(Keys.TAB);
        browser.see("#card-" + plan.id() + " .tags", "gifts");
        assertThat(plans.listed(plan.id()).tags()).isEqualTo(Tags.parse("hall,gifts"));
        browser.type("#name-" + plan.id(), " ", Keys.ENTER);
        browser.until(() -> browser.find("#refused").isDisplayed());
        browser.press(Keys.ESCAPE);
        browser.click("#acts-" + plan.id() + " button[hx-post*='COPY']");
        browser.until(() -> shown().size() == 2);
        browser.open("/?q=hats+hall");
        browser.click("#acts-" + plan.id() + " summary");
        browser.click("#acts-" + plan.id() + " button[hx-post*='DELETE']");
        browser.see("#plans", "The plan was deleted");
        browser.click("#plans .notice button");
        browser.until(() -> browser.path().equals("/"));
        assertThat(plans.listed(plan.id()).name()).isEqualTo("Hook for straw hats");
    }

    @Test
    void many_are_chosen_and_tagged_and_deleted_together_and_brought_back_together() {
        List<PlanState> three = List.of(plan("Peg one"), plan("Peg two"), plan("Peg three"));
        browser.open("/?q=peg");
        browser.until(() -> shown().size() == 3);
        for (PlanState plan : three.subList(0, 2)) {
            browser.script("document.querySelector('#card-" + plan.id() + " input[name=plan]').click()");
        }
        assertThat(browser.text("#chosen-count")).isEqualTo("2");
        browser.type("#many-tags", "washing line");
        browser.click("#many-tag");
        browser.until(() -> browser.all(".tag").size() == 2);
        browser.open("/?q=washing");
        see("Peg two", "Peg one");
        for (PlanState plan : three.subList(0, 2)) {
            browser.script("document.querySelector('#card-" + plan.id() + " input[name=plan]').click()");
        }
        browser.click("#many-delete");
        browser.see("#plans", "2 plans were deleted");
        browser.click("#plans .notice button");
        browser.until(() -> browser.path().equals("/"));
        assertThat(plans.listed()).extracting(Plans.Listed::name).contains("Peg one", "Peg two", "Peg three");
    }

    @Test
    void what_was_ticked_and_begun_on_a_card_outlasts_its_figures_another_name_a_search_and_a_sort() {
        PlanState plan = plan("Slow to draw");
        String card = "#card-" + plan.id();
        // As on a slow machine: the figures do not come before something was done with the card. Those of others do.
        Object holding = browser.beforeEveryPage(
                """
                document.addEventListener("htmx:confirm", event => {
                  if (window.arrived || !event.detail.path.endsWith("/%s/card")) return;
                  event.preventDefault();
                  // A card that is not done by then asks again.
                  window.arrive = () => { window.arrived = true; event.detail.issueRequest(); };
                });"""
                        .formatted(plan.id()));
        try {
            browser.open("/?q=slow");
            browser.see(card, "Being drawn");
            browser.script("document.querySelector('" + card + " input[name=plan]').click()");
            browser.click("#acts-" + plan.id() + " summary");
            browser.type("#name-" + plan.id(), "Etched at la");
            browser.until(() -> browser.script("return Boolean(window.arrive)").equals(true));
            browser.script("window.arrive()");
            browser.see(card, "whole print");
            assertThat(browser.text("#chosen-count")).isEqualTo("1");
            browser.press("st", Keys.ENTER);
            browser.see(card + " h2", "Etched at last");
            assertThat(browser.find(card + " input[name=plan]").isSelected()).isTrue();
            assertThat(browser.find(card + " input[name=plan]").getAccessibleName())
                    .isEqualTo("Choose Etched at last");
            find("etched");
            browser.until(() -> browser.path().contains("q=etched"));
            see("Etched at last");
            browser.choose("#sort", "name");
            browser.until(() -> browser.path().contains("sort=NAME"));
            see("Etched at last");
            assertThat(browser.find(card + " input[name=plan]").isSelected()).isTrue();
            assertThat(browser.text("#chosen-count")).isEqualTo("1");
        } finally {
            browser.noMore(holding);
        }
    }

    @Test
    void a_hundred_plans_come_a_page_at_a_time() {
        for (int i = 0; i < 60; i++) {
            plan("Crowd " + i);
        }
        browser.open("/?q=crowd&sort=NAME");
        assertThat(browser.all(".card-plan").size()).isBetween(24, 60);
        browser.script("window.scrollTo(0, document.body.scrollHeight)");
        browser.until(() -> {
            browser.script("window.scrollTo(0, document.body.scrollHeight)");
            return browser.all(".card-plan").size() == 60;
        });
        assertThat(browser.all("#search")).hasSize(1);
        assertThat(shown()).startsWith("Crowd 0", "Crowd 1", "Crowd 10").doesNotHaveDuplicates();
        browser.open("/plans");
        browser.until(() -> browser.path().equals("/"));
    }

    @Test
    void a_finding_is_put_aside_with_why_and_told_again() {
        PlanState plan = plan("aside");
        browser.open("/plans/" + plan.id());
        browser.click("#findings-known summary");
        browser.click("#finding-first-spool button[hx-get$='/aside']");
        browser.type("#why-first-spool", "always in there", Keys.ENTER);
        browser.click("#findings-aside summary");
        browser.see("#findings-aside", "Put aside: always in there");
        browser.click("#findings-aside button[hx-post$='/again']");
        browser.until(() -> browser.all("#findings-aside").isEmpty());
        assertThat(plans.get(plan.id()).undo()).contains("tell a finding again");
    }
}
