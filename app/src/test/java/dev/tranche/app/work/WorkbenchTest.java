package dev.tranche.app.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.check.Finding;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.rig.Beginning;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** What an edit does not touch is not worked out anew. */
class WorkbenchTest extends OnePlanTest {
    @Autowired
    private Mends mends;

    @Test
    void how_a_piece_looks_stays_known_while_only_its_plate_changes_and_not_when_its_colours_do() {
        PlanState plan = plan("looks");
        Workpiece before = workbench.openNow(plan);
        PlanState more = plans.editAll(
                plan.id(), plan.edition(), "more", c -> c.with(c.plate().times(2)));
        assertThat(workbench.openNow(more).looks()).isSameAs(before.looks());
        PlanState other = plans.edit(
                plan.id(),
                more.edition(),
                "start",
                p -> p.startAt(
                        Height.ofMillimetres(2),
                        shelf.all().get(1).id(),
                        LayerSettings.COMMON.on(Height.ofMillimetres(5))));
        assertThat(workbench.openNow(other).looks()).isNotSameAs(before.looks());
    }

    @Test
    void a_mend_of_the_printer_is_an_edit_of_the_printer_and_leaves_the_plan_as_it_is() {
        long blending = workshop.add(Beginning.BLENDING.rig("Blends")).id();
        LayerGrid grid = LayerSettings.COMMON.on(Height.ofMillimetres(5));
        Spool third = shelf.add(named(shelf.all().get(0), "A third at two inputs"));
        PlanState plan = plan("three at two inputs");
        PlanState three = plans.editAll(plan.id(), plan.edition(), "three", c -> c.on(blending)
                .with(c.colours()
                        .startAt(Height.ofMillimetres(2), shelf.all().get(1).id(), grid)
                        .startAt(Height.ofMillimetres(4), third.id(), grid)));
        assertThat(keys(three)).contains("nobody-stops");
        PlanState mended = mends.mend(three.id(), three.edition(), "nobody-stops");
        assertThat(mended.edition()).isEqualTo(three.edition());
        assertThat(keys(mended)).doesNotContain("nobody-stops");
        assertThat(workshop.get(blending).version().undo()).contains("wait for the person at each swap of Blends");
        assertThatThrownBy(() -> mends.mend(three.id(), three.edition(), "nobody-stops"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("no longer there");
    }

    private List<String> keys(PlanState plan) {
        return workbench.openNow(plan).findings().stream().map(Finding::key).toList();
    }

    @Test
    void a_spool_that_is_given_another_colour_looks_otherwise() {
        PlanState plan = plan("recoloured");
        Workpiece before = workbench.openNow(plan);
        Spool first = shelf.all().get(0);
        Spool lighter = named(first, "A lighter one");
        shelf.change(lighter);
        try {
            Workpiece after = workbench.openNow(plan);
            assertThat(after).isNotSameAs(before);
            assertThat(after.looks()).isNotSameAs(before.looks());
        } finally {
            shelf.change(first);
        }
    }

    /** What was looked at often must not crowd out what somebody waits for. */
    @Test
    void plans_are_opened_by_several_at_once_after_an_hour_of_edits() throws Exception {
        PlanState often = plan("looked at often");
        for (int i = 0; i < 70; i++) {
            often = copies(often, 2 + i % 2);
            for (int look = 0; look < 4; look++) {
                workbench.openNow(often);
            }
        }
        ExecutorService people = Executors.newFixedThreadPool(4);
        try {
            List<Future<?>> all = new ArrayList<>();
            for (int person = 0; person < 4; person++) {
                PlanState own = plan("of person " + person);
                all.add(people.submit(() -> {
                    PlanState now = own;
                    for (int i = 0; i < 40; i++) {
                        now = copies(now, 2 + i % 2);
                        assertThat(workbench.openNow(now).plan().edition()).isEqualTo(now.edition());
                    }
                }));
            }
            for (Future<?> one : all) {
                one.get();
            }
        } finally {
            people.shutdownNow();
        }
    }

    private PlanState copies(PlanState plan, int copies) {
        return plans.editAll(
                plan.id(), plan.edition(), "more", c -> c.with(c.plate().times(copies)));
    }
}
