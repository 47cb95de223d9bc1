package dev.tranche.app.plans;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.units.Height;
import org.junit.jupiter.api.Test;

/** A plan's history, looked through. */
class HistoryTest extends BrowserTest {
    private PlanState start(PlanState plan, double height, int spool) {
        return plans.edit(
                plan.id(),
                plan.edition(),
                "start at " + height,
                p -> p.startAt(
                        Height.ofMillimetres(height),
                        shelf.all().get(spool).id(),
                        p.layers().on(Height.ofMillimetres(5))));
    }

    @Test
    void one_sees_what_was_done_compares_a_point_with_now_and_goes_back_to_it_and_forth_again() {
        PlanState plan = start(start(start(plan("past"), 1, 1), 2, 0), 3, 1);
        browser.open("/plans/" + plan.id() + "/history");
        // A plan that is opened for the first time shows its progress before.
        browser.find(".past .what");
        assertThat(browser.all(".past .what"))
                .extracting(e -> e.getText())
                .containsExactly("start at 3.0", "start at 2.0", "start at 1.0", "the beginning");
        browser.click("#point-1 a");
        browser.see("#then-title", "after “start at 1.0”");
        assertThat(browser.text("#compare-table").replaceAll("\\s+", " ")).contains("Swaps 3 best: 1");
        browser.click("#point-1 button");
        browser.find("#ledger");
        assertThat(plans.get(plan.id()).content().colours().starts().size()).isEqualTo(2);
        browser.open("/plans/" + plan.id() + "/history");
        assertThat(browser.text("#point-3")).contains("undone");
        browser.click("#point-3 button");
        browser.find("#ledger");
        assertThat(plans.get(plan.id()).content()).isEqualTo(plan.content());
        assertThat(plans.past(plan.id())).allMatch(p -> p.at() != null);
    }
}
