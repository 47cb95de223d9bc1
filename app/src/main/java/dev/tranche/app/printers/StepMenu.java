package dev.tranche.app.printers;

import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.HeatFor;
import dev.tranche.core.macro.Step;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.List;

/** Every kind of step that can be added, with values to begin with, in the order a swap has them. */
final class StepMenu {
    static final List<Step> ALL = List.of(
            new Step.Tone(880, 300),
            Step.Message.LOAD,
            new Step.Retract(2),
            new Step.Lift(5),
            new Step.Park(),
            new Step.Unload(0, 30),
            new Step.Cut(Axis.X, 0, 5),
            new Step.PressSwitch(),
            new Step.SelectExtruder(),
            Step.FirmwareRoutine.PLAIN,
            new Step.WaitForPerson(Command.M0),
            new Step.OwnPause("M226"),
            new Step.Dwell(150),
            new Step.Cool(),
            new Step.Heat(HeatFor.INCOMING),
            new Step.SetHeat(HeatFor.INCOMING),
            new Step.Load(0, 30),
            new Step.Prime(5, 4),
            new Step.Purge(4),
            Step.Wipe.USUAL,
            new Step.Home(Step.Home.Axes.BOTH),
            new Step.WaitForMoves(),
            new Step.Return(),
            new Step.Raw("; your own lines"));

    private StepMenu() {}

    static Step named(String title) {
        return ALL.stream()
                .filter(s -> s.title().equals(title))
                .findFirst()
                .orElseThrow(() -> Refusal.of("“%s” is no step; choose one from the list.", Words.quoted(title)));
    }
}
