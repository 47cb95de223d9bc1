package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import java.util.List;

/** The nearest a firmware can do to a step whose command it lacks. */
final class Substitutes {
    private Substitutes() {}

    /** What a firmware without {@code command} can do instead, if anything. */
    static Fault offer(Fault fault, Step step, Printer printer, Command command) {
        if (step.needs().filter(command::equals).isEmpty()) {
            return fault;
        }
        int index = fault.step();
        if (step instanceof Step.WaitForPerson || step instanceof Step.FirmwareRoutine) {
            for (Command other : List.of(Command.M0, Command.M1, Command.M25)) {
                if (other != command && printer.abilities().understands(other) && step instanceof Step.WaitForPerson) {
                    return fault.mendedBy(
                            "Wait by " + other,
                            m -> m.replace(index, m.step(index).with(new Step.WaitForPerson(other))));
                }
            }
            if (step instanceof Step.FirmwareRoutine && printer.abilities().understands(Command.M0)) {
                return fault.mendedBy("Swap at a pause instead", m -> withSteps(m, SwapMethod.PAUSE_AND_PARK));
            }
            if (printer.abilities().understands(Command.G4)) {
                return step instanceof Step.WaitForPerson
                        ? fault.mendedBy("Tone and timed wait instead", m -> m.replace(
                                        index, m.step(index).with(new Step.Dwell(120)))
                                .insert(index, MacroStep.always(new Step.Tone(880, 800))))
                        : fault.mendedBy("Swap in a timed wait instead", m -> withSteps(m, SwapMethod.TIMED_WAIT));
            }
        } else if (step instanceof Step.Dwell && printer.abilities().understands(Command.M0)) {
            return fault.mendedBy(
                    "Wait for the person instead",
                    m -> m.replace(index, m.step(index).with(new Step.WaitForPerson(Command.M0))));
        } else if (step instanceof Step.Tone || step instanceof Step.Message) {
            return fault.mendedBy(
                    "Switch this step off", m -> m.replace(index, m.step(index).turned(false)));
        }
        return fault;
    }

    /** The steps of the ready macro for the same event. */
    private static Macro withSteps(Macro macro, SwapMethod method) {
        return method.ready().macros().stream()
                .filter(m -> m.event() == macro.event())
                .findFirst()
                .map(m -> new Macro(macro.name(), macro.event(), macro.on(), macro.person(), m.steps()))
                .orElse(macro);
    }
}
