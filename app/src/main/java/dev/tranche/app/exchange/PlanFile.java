package dev.tranche.app.exchange;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.StoredPlan;
import dev.tranche.app.stored.SpoolNumber;
import dev.tranche.app.stored.StoredMeasure;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.app.stored.StoredSpool;
import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

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
    /**
     * The sliced file.
     *
     * @param tools spools that its owner gave to its tools, by their numbers
     * @param stops what becomes of its stops, by their index
     * @param accepted findings that he knows and accepts, each by its key and how it read
     */
    record Sliced(
            String hash,
            String name,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Map<Integer, SpoolNumber>> tools,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Map<Integer, String>> stops,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<List<String>> accepted) {
        static Sliced of(PlanState.Gcode gcode) {
            Map<Integer, SpoolNumber> tools = new TreeMap<>();
            gcode.said().tools().forEach((tool, spool) -> tools.put(tool, SpoolNumber.of(spool)));
            Map<Integer, String> stops = new TreeMap<>();
            gcode.said().stops().forEach((stop, choice) -> stops.put(stop, choice.name()));
            return new Sliced(
                    gcode.hash(),
                    gcode.name(),
                    Optional.of(tools).filter(t -> !t.isEmpty()),
                    Optional.of(stops).filter(t -> !t.isEmpty()),
                    Optional.of(gcode.said().accepted().stream().sorted().toList())
                            .filter(t -> !t.isEmpty()));
        }

        /** @param numbers of the spools here, by those in the file */
        PlanState.Gcode gcode(Map<SpoolId, SpoolId> numbers) {
            Map<Integer, SpoolId> known = new TreeMap<>();
            tools.orElse(Map.of()).forEach((tool, spool) -> {
                if (spool.id().isMixture()) {
                    known.put(tool, spool.id());
                } else if (numbers.containsKey(spool.id())) {
                    known.put(tool, numbers.get(spool.id()));
                }
            });
            Map<Integer, StopTable.Choice> choices = new TreeMap<>();
            stops.orElse(Map.of()).forEach((stop, choice) -> choices.put(stop, StopTable.Choice.valueOf(choice)));
            return new PlanState.Gcode(hash, name, new Said(known, choices, Set.copyOf(accepted.orElse(List.of()))));
        }
    }

    static final String FORMAT = "tranche-plan";
    static final int VERSION = 1;
    static final String ENTRY = "plan.json";
    static final String MODELS = "models/";
    static final String GCODE = "gcode/";
}
