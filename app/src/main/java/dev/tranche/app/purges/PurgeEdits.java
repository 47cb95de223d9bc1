package dev.tranche.app.purges;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.MeasuredPurges;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.web.Numbers;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Volume;
import org.springframework.stereotype.Service;

/** What people change on the page of purges: the plan's settings, and what they measured on its printer. */
@Service
class PurgeEdits {
    private final Plans plans;
    private final Workshop workshop;
    private final MeasuredPurges purges;

    PurgeEdits(Plans plans, Workshop workshop, MeasuredPurges purges) {
        this.plans = plans;
        this.workshop = workshop;
        this.purges = purges;
    }

    PlanState place(String id, long seen, PlaceForm form) {
        PurgeSettings settings = form.settings();
        return plans.editAll(id, seen, "purge otherwise", c -> c.with(settings));
    }

    void measured(PlanState plan, Pair pair, String length) {
        purges.add(plan.content().printer(), pair.from(), pair.to(), Numbers.decimal("measured length", length));
    }

    void forget(PlanState plan, Pair pair) {
        workshop.forget(plan.content().printer(), pair.from(), pair.to());
    }

    void refit(PlanState plan) {
        Machine machine = machine(plan);
        Volume fitted = purges.fitted(machine)
                .orElseThrow(() -> new Refusal("Nothing was measured on this printer yet; measure a pair first."));
        Volume whole = new Volume(Math.max(1, Math.rint(fitted.cubicMillimetres())));
        workshop.edit(
                machine.id(),
                machine.version().edition(),
                "take the dead volume that was measured",
                rig -> rig.with(rig.printer().with(whole)));
    }

    private Machine machine(PlanState plan) {
        return workshop.get(plan.content().printer());
    }
}
