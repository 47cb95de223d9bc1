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
        Fix fix = finding(id, key).fix().orElseThrow(Mends::gone);
        return apply(id, seen, fix);
    }

    /** Puts a finding aside, with why. */
    public PlanState putAside(String id, long seen, String key, String reason) {
        Finding finding = finding(id, key);
        return plans.editAll(
                id, seen, "put a finding aside", c -> c.with(c.asides().with(finding, reason)));
    }

    /** Tells it again. */
    public PlanState tellAgain(String id, long seen, String key) {
        Finding finding = finding(id, key);
        return plans.editAll(
                id, seen, "tell a finding again", c -> c.with(c.asides().without(finding.word())));
    }

    private Finding finding(String id, String key) {
        return workbench.openNow(plans.get(id)).findings().stream()
                .filter(f -> f.key().equals(key))
                .findFirst()
                .orElseThrow(Mends::gone);
    }

    private static Refusal gone() {
        return new Refusal("That finding is no longer there; it may be mended already.");
    }

    /** What a fix changes, as one edit. */
    public PlanState apply(String id, long seen, Fix fix) {
        return plans.editAll(id, seen, fix.label().toLowerCase(Locale.ROOT), c -> c.with(
                        fix.colours().apply(c.colours()))
                .with(fix.purge().apply(c.purge()))
                .with(fix.plate().apply(c.plate())));
    }
}
