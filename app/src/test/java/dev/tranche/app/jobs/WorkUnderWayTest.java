package dev.tranche.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;

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

    /** Work that lasts until it is told to end and leads to the shelf, shown on the library's page. */
    private Job begin() {
        Job job = jobs.start("Reading a large model", progress -> {
            over.await();
            return "/shelf";
        });
        browser.open("/");
        browser.script("htmx.ajax('GET', arguments[0], {target: '#new-job', swap: 'innerHTML'})", "/jobs/" + job.id());
        browser.see("#new-job", "Reading a large model");
        return job;
    }
}
