package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class FreshStartTest {
    private final List<Integer> ended = new ArrayList<>();
    private final FreshStart start = new FreshStart(ended::add);

    @Test
    void a_thread_that_dies_of_want_of_memory_ends_the_process_to_be_started_again() throws InterruptedException {
        Thread door = new Thread(() -> {
            throw new OutOfMemoryError("Java heap space");
        });
        door.setUncaughtExceptionHandler(start);
        door.start();
        door.join();
        assertThat(ended).containsExactly(FreshStart.AGAIN);
    }

    @Test
    void any_other_error_ends_its_own_thread_only() {
        start.uncaughtException(new Thread("work"), new IllegalStateException("its own"));
        assertThat(ended).isEmpty();
    }
}
