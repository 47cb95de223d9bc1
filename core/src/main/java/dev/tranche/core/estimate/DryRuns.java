package dev.tranche.core.estimate;

import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Macro;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.rig.Rig;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;

/**
 * Dry runs of a rig's macros, each run once: between the same spools they differ in nothing but their height, and in
 * what their messages say, as long as there is room above and no lines of the owner's own.
 */
final class DryRuns {
    private record Question(Event event, Moment anywhere) {}

    /**
     * What answers an event.
     *
     * @param rise mm by which its steps lift the nozzle
     */
    private record Answer(Macro macro, double rise, boolean hasOwnLines) {
        static Answer of(Macro macro) {
            return new Answer(
                    macro,
                    macro.steps().stream().mapToDouble(s -> s.step().rise()).sum(),
                    macro.steps().stream().anyMatch(s -> s.step().hasOwnLines()));
        }
    }

    private final Rig rig;
    private final Map<Event, Answer> answers = new EnumMap<>(Event.class);
    private final Map<Question, DryRun> known = new HashMap<>();

    DryRuns(Rig rig) {
        this.rig = rig;
    }

    DryRun of(Event event, Moment moment) {
        Answer answer = answers.computeIfAbsent(
                event, e -> Answer.of(rig.macros().answer(e).orElseGet(() -> Macro.of(e))));
        boolean roomAbove =
                moment.hasRoom(answer.rise(), rig.printer().maxHeight().millimetres());
        return roomAbove && !answer.hasOwnLines()
                ? known.computeIfAbsent(new Question(event, moment.anyHeight()), q -> run(answer.macro(), moment))
                : run(answer.macro(), moment);
    }

    private DryRun run(Macro macro, Moment moment) {
        return DryRun.of(macro, rig.macros(), rig.printer(), moment);
    }
}
