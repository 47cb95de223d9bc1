package dev.tranche.app.work;

import dev.tranche.app.history.Broken;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.PrintedPlans;
import dev.tranche.core.estimate.Swap;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What the pages of a printer ask of plans. */
@Component
class PlansOnPrinters implements PrintedPlans {
    private final Plans plans;
    private final Workbench workbench;

    PlansOnPrinters(Plans plans, Workbench workbench) {
        this.plans = plans;
        this.workbench = workbench;
    }

    @Override
    public List<Named> on(long printer) {
        return plans.listed().stream()
                .filter(p -> p.printer() != null && p.printer() == printer)
                .map(p -> new Named(p.id(), p.title()))
                .toList();
    }

    @Override
    public Optional<Loaded> loaded(String id) {
        PlanState plan = plans.get(id);
        try {
            return workbench
                    .open(plan)
                    .map(w -> new Loaded(
                            w.ledger().loading(),
                            w.ledger().swaps().stream().map(Swap::layer).toList(),
                            w.shelf()));
        } catch (Broken saidOnItsOwnPage) {
            return Optional.empty();
        }
    }
}
