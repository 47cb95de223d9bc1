package dev.tranche.app.companion;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.core.units.Height;
import org.junit.jupiter.api.Test;

/** What a person reads before a print is begun. */
class BeforePrintTest extends OnePlanTest {
    @Test
    void how_often_somebody_has_to_come_is_said_and_that_nobody_has_to() throws Exception {
        PlanState plan = plan("how often");
        assertThat(visits(plan)).startsWith("No stop needs you; done after ");
        plans.edit(
                plan.id(),
                plan.edition(),
                "Colour",
                c -> c.within(
                        Height.parse("2.4"),
                        Height.parse("5"),
                        shelf.all().get(1).id()));
        assertThat(visits(plan)).startsWith("1 stop needs you; done after ");
    }

    private String visits(PlanState plan) throws Exception {
        String page = page(plan, "print");
        String said = page.substring(page.indexOf("id=\"visits\""));
        return said.substring(said.indexOf('>') + 1, said.indexOf("</p>")).replaceAll("<[^>]*>", "");
    }
}
