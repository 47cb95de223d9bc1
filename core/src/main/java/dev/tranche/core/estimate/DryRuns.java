package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.rig.Rig;
import java.util.HashMap;
import java.util.Map;

/**
 * Dry runs of a rig's macros, each run once: between the same spools they differ in nothing but their height, and in
 * what their messages say, as long as there is room above and no lines of the owner's own.
 */
final class DryRuns {
    private record Question(Event event, Moment anywhere) {}

    private final Rig rig;
    private final Map<Question, DryRun> known = new HashMap<>();

    DryRuns(Rig rig) {
        this.rig = rig;
    }

    DryRun of(Event event, Moment moment) {
        Macro macro = rig.macros().answer(event).orElseGet(() -> Macro.of(event));
        double rise = macro.steps().stream().mapToDouble(s -> s.step().rise()).sum();
        boolean roomAbove =
                moment.entry().z() + rise < rig.printer().maxHeight().millimetres();
        return roomAbove && macro.steps().stream().noneMatch(s -> s.step().hasOwnLines())
                ? known.computeIfAbsent(new Question(event, moment.anyHeight()), q -> run(macro, moment))
                : run(macro, moment);
    }

    private DryRun run(Macro macro, Moment moment) {
        return DryRun.of(macro, rig.macros(), rig.printer(), moment);
    }
}
