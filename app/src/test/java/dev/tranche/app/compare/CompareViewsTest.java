package dev.tranche.app.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.PlanState.Gcode;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.gcode.SmallGcode;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.ui.ConcurrentModel;
import org.springframework.util.unit.DataSize;

class CompareViewsTest extends OnePlanTest {
    @Autowired
    private CompareViews views;

    private CompareViews.Row row(String name, PlanState... plans) {
        ConcurrentModel model = new ConcurrentModel();
        views.figures(Arrays.stream(plans).map(workbench::openNow).toList(), model);
        return Stream.of("ways", "costs")
                .flatMap(rows -> ((List<?>) model.getAttribute(rows)).stream())
                .map(CompareViews.Row.class::cast)
                .filter(r -> r.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private PlanState sliced(PlanState plan) throws IOException {
        FileStore.Kept kept =
                files.keep(new ByteArrayInputStream(sliced(new SmallGcode()).bytes()), DataSize.ofMegabytes(1));
        plans.giveGcode(plan.id(), new Gcode(kept.hash(), "plate.gcode"));
        return plans.get(plan.id());
    }

    @Test
    void what_is_read_from_a_sliced_file_is_told_from_what_is_estimated_and_neither_is_called_the_least()
            throws IOException {
        PlanState guessed = plan("guessed");
        PlanState read = sliced(plan("read"));
        assertThat(row("Time and plastic", guessed, read).cells())
                .extracting(CompareViews.Cell::text, CompareViews.Cell::other)
                .containsExactly(tuple("estimated", false), tuple("as sliced", true));
        for (String name : List.of("Whole print", "Filament", "Cost")) {
            assertThat(row(name, guessed, read).cells()).as(name).noneMatch(CompareViews.Cell::best);
        }
        PlanState twice = plans.variant(read.id(), "twice", c -> c.times(2));
        assertThat(row("Whole print", guessed, plans.variant(guessed.id(), "twice", c -> c.times(2)))
                        .cells())
                .extracting(CompareViews.Cell::best)
                .containsExactly(true, false);
        assertThat(twice.gcode()).isEqualTo(read.gcode());
    }

    @Test
    void a_variant_that_is_adopted_brings_its_sliced_file_where_the_plan_has_none() throws IOException {
        PlanState plan = plan("adopts");
        PlanState tried = sliced(plans.variant(plan.id(), "tried", c -> c.times(2)));
        assertThat(plans.adopt(plan.id(), plan.edition(), tried.id()).gcode()).isEqualTo(tried.gcode());
        PlanState own = sliced(plan("keeps its own"));
        PlanState without = plans.variant(own.id(), "without", c -> c.times(2));
        plans.takeGcodeAway(without.id());
        assertThat(plans.adopt(own.id(), own.edition(), without.id()).gcode()).isEqualTo(own.gcode());
    }
}
