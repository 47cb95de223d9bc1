package dev.tranche.app.work;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.core.check.Finding;
import dev.tranche.core.check.Fix;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Service;

/** Mends findings, from whatever page offers it. */
@Service
public class Mends {
    private final Plans plans;
    private final Workbench workbench;
    private final Workshop workshop;

    Mends(Plans plans, Workbench workbench, Workshop workshop) {
        this.workshop = workshop;
        this.plans = plans;
        this.workbench = workbench;
    }

    /** @param seen the edition the page showed */
    public PlanState mend(String id, long seen, String key) {
        Fix fix = finding(id, key).fix().orElseThrow(Mends::gone);
        return fix.rig().map(rig -> apply(id, fix, rig)).orElseGet(() -> apply(id, seen, fix));
    }

    /** The printer is changed, and the plan stays as it is, whatever edition of it was seen. */
    private PlanState apply(String id, Fix fix, UnaryOperator<Rig> rig) {
        PlanState plan = plans.get(id);
        Workshop.Machine machine = workshop.get(plan.content().printer());
        workshop.edit(machine.id(), machine.version().edition(), label(fix), rig);
        return plan;
    }

    private static String label(Fix fix) {
        return fix.label().substring(0, 1).toLowerCase(Locale.ROOT)
                + fix.label().substring(1);
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
        return plans.editAll(id, seen, label(fix), c -> c.with(fix.colours().apply(c.colours()))
                .with(fix.purge().apply(c.purge()))
                .with(fix.plate().apply(c.plate())));
    }
}
