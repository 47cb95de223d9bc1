package dev.tranche.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.speech.Refusal;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class JobsTest {
    private static final long LONG_ENOUGH = 20_000;

    private final Jobs jobs = new Jobs();

    @AfterEach
    void close() {
        jobs.close();
    }

    @Test
    void work_that_is_cancelled_stops_and_says_that_nothing_changed() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        Job job = jobs.start("Cutting", progress -> {
            for (long done = 0; ; done++) {
                progress.at(done, Long.MAX_VALUE);
                begun.countDown();
            }
        });
        begun.await();
        assertThat(job.total()).isEqualTo(Long.MAX_VALUE);
        assertThat(job.destination()).isEmpty();
        job.cancel();
        assertThat(job.endsWithin(LONG_ENOUGH)).isTrue();
        assertThat(job.failure()).contains("Cancelled; nothing was changed.");
    }

    @Test
    void work_that_succeeds_says_where_to_go_and_work_that_is_refused_says_why() {
        Job good = jobs.start("Reading", progress -> "/plans/1");
        Job refused = jobs.start("Reading", progress -> {
            throw new Refusal("The file is empty; give another.");
        });
        Job broken = jobs.start("Reading", progress -> {
            throw new IllegalStateException("inner workings");
        });
        for (Job job : new Job[] {good, refused, broken}) {
            assertThat(job.endsWithin(LONG_ENOUGH)).isTrue();
        }
        assertThat(good.destination()).contains("/plans/1");
        assertThat(refused.failure()).contains("The file is empty; give another.");
        assertThat(broken.failure().orElseThrow())
                .doesNotContain("inner workings")
                .contains("nothing was changed");
        assertThat(jobs.find(good.id())).contains(good);
        assertThat(jobs.find("none")).isEmpty();
    }

    /** Each as long as nothing, and asked after as pages do. */
    private void done(int times) {
        for (int i = 0; i < times; i++) {
            Job job = jobs.start("Reading", progress -> "/plans/1");
            assertThat(job.endsWithin(LONG_ENOUGH)).isTrue();
            for (int look = 0; look < 5; look++) {
                jobs.find(job.id());
            }
        }
    }

    @Test
    void work_is_found_by_its_page_however_much_else_is_done_meanwhile() {
        done(5_000);
        CountDownLatch enough = new CountDownLatch(1);
        Job slow = jobs.start("Reading", progress -> {
            enough.await();
            return "/plans/2";
        });
        done(1_500);
        assertThat(jobs.find(slow.id())).contains(slow);
        enough.countDown();
        assertThat(slow.endsWithin(LONG_ENOUGH)).isTrue();
        done(20);
        assertThat(jobs.find(slow.id())).contains(slow);
    }
}
