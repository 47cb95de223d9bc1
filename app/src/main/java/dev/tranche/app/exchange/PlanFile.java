package dev.tranche.app.exchange;

import dev.tranche.app.plans.StoredPlan;
import dev.tranche.app.stored.StoredMeasure;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.app.stored.StoredSpool;
import java.util.List;
import java.util.Optional;

/**
 * What {@code plan.json} in a plan file says; the files it names lie beside it. {@code /schemas/plan-file-1.json}
 * describes it.
 *
 * @param format always {@value #FORMAT}
 * @param version of the format, {@value #VERSION} now
 * @param name of the plan
 * @param plan whose printer is the one below, whatever its number
 * @param spools that the plan and the printer name, by the numbers they have here
 * @param printer set up for swapping
 * @param measured purges on that printer
 * @param gcode the sliced file, if there is one
 */
record PlanFile(
        String format,
        int version,
        String name,
        StoredPlan plan,
        List<StoredSpool> spools,
        StoredRig printer,
        List<StoredMeasure> measured,
        Optional<Sliced> gcode) {
    /** The sliced file. */
    record Sliced(String hash, String name) {}

    static final String FORMAT = "tranche-plan";
    static final int VERSION = 1;
    static final String ENTRY = "plan.json";
    static final String MODELS = "models/";
    static final String GCODE = "gcode/";
}
