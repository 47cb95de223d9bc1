package dev.tranche.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.app.storage.Room;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.ui.ConcurrentModel;
import org.springframework.util.unit.DataSize;

class DownloadsTest {
    private static final long LONG_ENOUGH = 20_000;
    private static final String TYPE = "model/3mf";

    @TempDir
    Path data;

    private final Jobs jobs = new Jobs();
    private TrancheProperties properties;
    private Downloads downloads;

    @BeforeEach
    void roomy() throws IOException {
        DataSize enough = DataSize.ofMegabytes(1);
        properties = new TrancheProperties(data, enough, enough, enough, "EUR", "");
        downloads = downloads(new Room(properties));
    }

    private Downloads downloads(Room room) throws IOException {
        return new Downloads(jobs, new TemporaryFiles(properties, room));
    }

    @AfterEach
    void close() {
        jobs.close();
    }

    private Path temporary() {
        return data.resolve("temporary");
    }

    private MockHttpServletResponse fetched(Job job) throws IOException {
        MockHttpServletResponse response = new MockHttpServletResponse();
        String place = job.destination().orElseThrow();
        downloads.send(place.substring(place.lastIndexOf('/') + 1), response);
        return response;
    }

    @Test
    void a_page_sees_it_made_and_fetches_it_as_often_as_it_likes() throws IOException {
        Job job = downloads.make("tag", "tag.3mf", TYPE, (out, progress) -> out.write("tag".getBytes()));
        MockHttpServletRequest page = new MockHttpServletRequest();
        page.addHeader("HX-Request", "true");
        MockHttpServletResponse answer = new MockHttpServletResponse();
        assertThat(JobPages.fetch(job, page, new ConcurrentModel(), answer)).isEqualTo("jobs/progress :: made");
        assertThat(answer.getHeaderNames())
                .as("nobody is sent away from the page")
                .isEmpty();
        for (int times = 0; times < 2; times++) {
            assertThat(fetched(job).getContentAsString()).isEqualTo("tag");
        }
        assertThat(fetched(job).getHeader("Content-Disposition")).isEqualTo("attachment; filename=\"tag.3mf\"");
        assertThat(fetched(job).getContentLength()).isEqualTo(3);
    }

    @Test
    void whoever_has_no_page_waits_for_it_or_for_why_there_is_none() {
        MockHttpServletRequest link = new MockHttpServletRequest();
        Job job = downloads.make("tag", "tag.3mf", TYPE, (out, progress) -> out.write(1));
        assertThat(JobPages.fetch(job, link, new ConcurrentModel(), new MockHttpServletResponse()))
                .isEqualTo("forward:" + job.destination().orElseThrow());
        Job refused = downloads.make("tag", "tag.3mf", TYPE, (out, progress) -> {
            throw new Refusal("Nothing of it is left; colour something.");
        });
        assertThatThrownBy(() -> JobPages.fetch(refused, link, new ConcurrentModel(), new MockHttpServletResponse()))
                .isInstanceOf(Refusal.class)
                .hasMessage("Nothing of it is left; colour something.");
        assertThat(temporary()).isDirectoryNotContaining(f -> f.toFile().length() == 0);
    }

    @Test
    void what_is_cancelled_while_it_is_written_stops_and_leaves_nothing() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch stopped = new CountDownLatch(1);
        Job job = downloads.make("tag", "tag.3mf", TYPE, (out, progress) -> {
            try {
                while (true) {
                    out.write(1);
                    begun.countDown();
                }
            } finally {
                stopped.countDown();
            }
        });
        begun.await();
        job.cancel();
        stopped.await();
        for (int i = 0; i < LONG_ENOUGH && temporary().toFile().list().length > 0; i++) {
            Thread.sleep(1);
        }
        assertThat(temporary()).isEmptyDirectory();
        assertThat(job.failure()).contains("Cancelled; nothing was changed.");
    }

    @Test
    void what_fills_the_disk_is_refused_with_the_sentence_and_leaves_nothing() throws IOException {
        downloads = downloads(new Room(properties) {
            @Override
            public Optional<String> sentence(long bytes) {
                return bytes > 0 ? Optional.of("The disk is full; make room.") : Optional.empty();
            }
        });
        Job job = downloads.make("tag", "tag.3mf", TYPE, (out, progress) -> {
            while (true) {
                out.write(new byte[1 << 20]);
            }
        });
        assertThat(job.endsWithin(LONG_ENOUGH)).isTrue();
        assertThat(job.failure()).contains("The disk is full; make room.");
        assertThat(temporary()).isEmptyDirectory();
    }

    @Test
    void the_newest_are_kept_and_one_that_has_gone_says_so() throws IOException {
        List<Job> all = new ArrayList<>();
        for (int number = 0; number < 30; number++) {
            all.add(downloads.make(number, "tag.3mf", TYPE, (out, progress) -> out.write(1)));
            all.get(number).endsWithin(LONG_ENOUGH);
        }
        assertThat(temporary().toFile().list()).hasSize(8);
        assertThat(fetched(all.get(22)).getContentLength()).isEqualTo(1);
        assertThatThrownBy(() -> fetched(all.get(21)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(
                        "That file is gone; it was kept for 15 minutes at most. Make it once more at the hand-off.");
    }
}
