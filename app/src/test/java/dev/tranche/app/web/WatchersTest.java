package dev.tranche.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

class WatchersTest {
    /** A phone that fell asleep: the container has ended it already, and says so to whoever ends it again. */
    private static final class Asleep extends SseEmitter {
        @Override
        public void send(SseEventBuilder builder) throws IOException {
            throw new IOException("Broken pipe");
        }

        @Override
        public void complete() {
            throw new IllegalStateException("an error had occurred and the call to onError() had returned");
        }
    }

    private static final class Awake extends SseEmitter {
        private final List<String> heard = new ArrayList<>();

        @Override
        public void send(SseEventBuilder builder) {
            builder.build().forEach(part -> heard.add(part.getData().toString()));
        }
    }

    @Test
    void a_page_that_went_away_keeps_nothing_from_the_others() {
        Watchers watchers = new Watchers();
        Awake awake = new Awake();
        watchers.watch("4f2a", new Asleep());
        watchers.watch("4f2a", awake);
        assertThatCode(() -> watchers.tell("4f2a", "told", "7")).doesNotThrowAnyException();
        assertThat(awake.heard).contains("7");
        assertThatCode(watchers::close).doesNotThrowAnyException();
    }

    @Test
    void a_plan_that_nobody_looks_at_any_more_is_not_told() {
        Watchers watchers = new Watchers();
        watchers.watch("4f2a", new Asleep());
        assertThat(watchers.plans()).containsExactly("4f2a");
        assertThatCode(() -> watchers.tell("4f2a", "beat", "")).doesNotThrowAnyException();
        assertThat(watchers.plans()).isEmpty();
    }
}
