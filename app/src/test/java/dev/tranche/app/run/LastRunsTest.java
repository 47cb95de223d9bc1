package dev.tranche.app.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import org.junit.jupiter.api.Test;

/** However much was rehearsed, what is under way goes on, and what ended last is told of. */
class LastRunsTest {
    private final LastRuns runs = new LastRuns();

    private Run run(String plan, boolean over) {
        Run run = mock(Run.class);
        when(run.isOver()).thenReturn(over);
        runs.put(plan, run);
        return run;
    }

    /** So many plans that all were looked at, each a few times. */
    private void rehearsed(int plans) {
        for (int i = 0; i < plans; i++) {
            run("over " + i, true);
            for (int look = 0; look < 5; look++) {
                runs.of("over " + i);
            }
        }
    }

    @Test
    void a_rehearsal_under_way_is_stopped_by_no_other_plans() {
        rehearsed(30);
        Run first = run("first", false);
        Run second = run("second", false);
        rehearsed(30);
        verify(first, never()).cancel();
        verify(second, never()).cancel();
        assertThat(runs.of("first")).containsSame(first);
        assertThat(runs.of("second")).containsSame(second);
    }

    @Test
    void the_last_that_ended_are_told_of_and_not_the_first() {
        rehearsed(30);
        Run last = run("last", true);
        run("one more", true);
        assertThat(runs.of("last")).containsSame(last);
        assertThat(runs.of("over 0")).isEmpty();
    }

    @Test
    void another_rehearsal_of_a_plan_takes_the_place_of_the_one_before() {
        Run before = run("plan", false);
        Run now = run("plan", false);
        verify(before).cancel();
        verify(now, never()).cancel();
        assertThat(runs.of("plan")).containsSame(now);
        assertThat(runs.all()).containsExactly(now);
    }
}
