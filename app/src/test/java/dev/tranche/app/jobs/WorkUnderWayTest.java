package dev.tranche.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.BrowserTest;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Work does not depend on the page that shows it. */
class WorkUnderWayTest extends BrowserTest {
    private static final String KEPT = "return Object.keys(sessionStorage).filter(k => k.startsWith('job ')).length";

    @Autowired
    private Jobs jobs;

    private final CountDownLatch over = new CountDownLatch(1);

    @Test
    void a_page_loaded_anew_shows_the_work_that_is_under_way_and_follows_it() {
        begin();
        browser.driver().navigate().refresh();
        browser.see("#new-job", "Reading a large model");
        browser.see("#new-job button", "Cancel");
        over.countDown();
        browser.until(() -> browser.path().equals("/shelf"));
        browser.open("/");
        browser.find("#new-job");
        assertThat(browser.script(KEPT)).isEqualTo(0L);
        assertThat(browser.path()).isEqualTo("/");
    }

    @Test
    void a_page_come_back_to_shows_it_too_and_leads_nowhere_when_it_ended_meanwhile() {
        Job job = begin();
        browser.open("/settings");
        browser.driver().navigate().to(browser.driver().getCurrentUrl().replace("settings", ""));
        browser.see("#new-job", "Reading a large model");
        browser.open("/settings");
        over.countDown();
        assertThat(job.endsWithin(20_000)).isTrue();
        browser.open("/");
        browser.until(() -> browser.script(KEPT).equals(0L));
        assertThat(browser.path()).isEqualTo("/");
        assertThat(browser.all("#new-job .job")).isEmpty();
    }

    @Test
    void work_that_a_fold_would_hide_opens_it() {
        PlanState plan = plan("folded in");
        Job job = start();
        browser.open("/plans/" + plan.id() + "/hand-off");
        browser.script("document.querySelector('#gcode-job').closest('details').open = false");
        show(job, "#gcode-job");
        browser.until(() -> browser.find("#gcode-job button").isDisplayed());
        over.countDown();
        browser.until(() -> browser.path().equals("/shelf"));
    }

    /** Before there is work, there is the way of the file: what htmx says of it while it travels. */
    @Test
    void a_file_under_way_that_a_fold_would_hide_opens_it() {
        browser.open("/plans/" + plan("on its way").id() + "/hand-off");
        browser.script("const fold = document.querySelector('.another'); fold.open = false;"
                + "htmx.trigger(fold.querySelector('form'), 'htmx:xhr:progress',"
                + " { lengthComputable: true, loaded: 3, total: 10 })");
        browser.until(() -> browser.find(".another [data-abort]").isDisplayed());
        assertThat(browser.script("return document.querySelector('.another progress').position"))
                .isEqualTo(0.3);
    }

    private Job begin() {
        Job job = start();
        browser.open("/");
        show(job, "#new-job");
        browser.see("#new-job", "Reading a large model");
        return job;
    }

    /** Work that lasts until it is told to end, and leads to the shelf. */
    private Job start() {
        return jobs.start("Reading a large model", progress -> {
            over.await();
            return "/shelf";
        });
    }

    private static void show(Job job, String slot) {
        browser.script(
                "htmx.ajax('GET', arguments[0], {target: arguments[1], swap: 'innerHTML'})", "/jobs/" + job.id(), slot);
    }
}
