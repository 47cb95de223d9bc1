package dev.tranche.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Height;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** What an edit does not touch is not worked out anew. */
class WorkbenchTest extends OnePlanTest {
    @Autowired
    private Workbench workbench;

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
}
