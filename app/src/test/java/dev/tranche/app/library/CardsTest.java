package dev.tranche.app.library;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.support.OnePlanTest;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.units.Height;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Plans as cards of the library. */
class CardsTest extends OnePlanTest {
    @Autowired
    private Cards cards;

    /** A colour that is laid otherwise on each layer. */
    private static Region traced(Spool spool, double from) {
        return new Region(
                "ring",
                new Shape.Trace(IntStream.range(0, 100)
                        .mapToObj(i -> new Shape.Trace.Course(
                                Height.ofMicrometres(200 * i),
                                Optional.of(new Shape.Zone(new Outline.Disc(from + i / 50.0), 0, 0, 0, false))))
                        .toList()),
                spool.id(),
                Range.ALL);
    }

    @Test
    void what_is_too_intricate_to_be_looked_through_at_once_stands_on_its_card() {
        PlanState plan = plan("marbled ball", new Shapes().sphere(10, 100, 120).mesh());
        plans.edit(
                plan.id(),
                plan.edition(),
                "paint",
                c -> c.with(c.regions()
                        .plus(traced(shelf.all().get(1), 9))
                        .plus(traced(shelf.all().get(0), 6))
                        .plus(traced(shelf.all().get(1), 3))));
        Workpiece work = workbench.openNow(plans.get(plan.id()));
        assertThat(work.looks().isQuick()).isFalse();
        assertThat(cards.make(plan.id()).figures()).isPresent();
        assertThat(cards.picture(plan.id())).isNotEmpty();
        assertThat(work.colouring().outlooks().known())
                .as("nobody looked through it")
                .isFalse();
    }
}
