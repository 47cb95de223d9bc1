package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Mixtures;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a colour may be printed with: the plan's own spools first, then those used last, then the rest of the shelf, and the mixtures of the plan as the spools they would be. */
@Component
class Choices {
    private final Shelf shelf;
    private final Plans plans;

    Choices(Shelf shelf, Plans plans) {
        this.shelf = shelf;
        this.plans = plans;
    }

    List<Spool> of(PlanState plan) {
        Mixtures mixtures = plan.content().colours().mixtures();
        List<SpoolId> order = new ArrayList<>(plan.content().colours().paletteInUse());
        plans.lastUsed().stream().filter(id -> !order.contains(id)).forEach(order::add);
        List<Spool> all = new ArrayList<>(shelf.all());
        all.sort(Comparator.comparingInt(s -> order.contains(s.id()) ? order.indexOf(s.id()) : order.size()));
        Map<SpoolId, Spool> known = mixtures.onto(shelf.byId());
        mixtures.list().stream().map(Mixture::id).map(known::get).forEach(all::add);
        return all;
    }

    Spool get(PlanState plan, long id) {
        return Optional.ofNullable(
                        plan.content().colours().mixtures().onto(shelf.byId()).get(new SpoolId(id)))
                .orElseThrow(() -> new Refusal("That spool is not on the shelf; choose another."));
    }
}
