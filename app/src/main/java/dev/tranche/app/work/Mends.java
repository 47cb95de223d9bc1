package dev.tranche.app.work;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.speech.Refusal;
import java.util.Locale;
import org.springframework.stereotype.Service;

/** Mends findings, from whatever page offers it. */
@Service
public class Mends {
    private final Plans plans;
    private final Workbench workbench;

    Mends(Plans plans, Workbench workbench) {
        this.plans = plans;
        this.workbench = workbench;
    }

    /** @param seen the edition the page showed */
    public PlanState mend(String id, long seen, String key) {
        Fix fix = workbench.openNow(plans.get(id)).findings().stream()
                .filter(f -> f.key().equals(key))
                .findFirst()
                .flatMap(Finding::fix)
                .orElseThrow(() -> new Refusal("That finding is no longer there; it may be mended already."));
        return apply(id, seen, fix);
    }

    /** What a fix changes, as one edit. */
    public PlanState apply(String id, long seen, Fix fix) {
        return plans.editAll(id, seen, fix.label().toLowerCase(Locale.ROOT), c -> c.with(
                        fix.colours().apply(c.colours()))
                .with(fix.purge().apply(c.purge()))
                .with(fix.plate().apply(c.plate())));
    }
}
