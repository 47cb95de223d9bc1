package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/**
 * How a swap is carried out, each with macros to begin with. Those for hands end with a wipe, and can ask whether it is clean
 * before that: the question is there, switched off.
 */
public enum SwapMethod {
    FIRMWARE_ROUTINE(
            "By hand, at the firmware's filament change", "M600 unloads, waits for you and loads, at the park spot") {
        @Override
        List<MacroStep> swap() {
            return asked(
                    new Step.WaitForPerson(Command.M0),
                    new Step.Lift(5),
                    new Step.Park(),
                    new Step.Tone(880, 300),
                    Step.Message.LOAD_AND_PUSH,
                    new Step.Heat(HeatFor.HOTTER),
                    Step.FirmwareRoutine.PLAIN,
                    new Step.Heat(HeatFor.INCOMING),
                    Step.Wipe.USUAL,
                    new Step.Return());
        }
    },
    PAUSE_AND_PARK("By hand, at a pause", "the macro parks, M0 waits, the macro purges and comes back") {
        @Override
        List<MacroStep> swap() {
            return asked(
                    new Step.WaitForPerson(Command.M0),
                    beside(
                            new Step.Tone(880, 300),
                            Step.Message.LOAD,
                            new Step.Heat(HeatFor.HOTTER),
                            new Step.WaitForPerson(Command.M0),
                            new Step.Heat(HeatFor.INCOMING)));
        }
    },
    TIMED_WAIT(
            "By hand, during a timed wait",
            "a tone, a wait that is always the same, a tone; for firmware without a pause") {
        @Override
        List<MacroStep> swap() {
            return asked(
                    new Step.Dwell(30),
                    beside(
                            new Step.Tone(880, 800),
                            Step.Message.LOAD,
                            new Step.Heat(HeatFor.HOTTER),
                            new Step.Dwell(150),
                            new Step.Tone(440, 800),
                            new Step.Dwell(15),
                            new Step.Heat(HeatFor.INCOMING)));
        }

        @Override
        Step stop() {
            return new Step.Dwell(120);
        }
    },
    HOST_SCRIPTS(
            "By hand, through a host",
            "the file pauses, the host runs its pause script, and its resume script to go on") {
        @Override
        List<MacroStep> swap() {
            return always(
                    Step.Message.LOAD_AND_PUSH,
                    new Step.SetHeat(HeatFor.HOTTER),
                    new Step.WaitForPerson(Command.M25),
                    new Step.SetHeat(HeatFor.INCOMING));
        }

        @Override
        List<Macro> others() {
            return List.of(
                    Macro.of(Event.FIRST_LOAD, LOAD_FIRST, new Step.WaitForPerson(Command.M25))
                            .turned(false),
                    Macro.of(Event.HALT, NOTE, new Step.WaitForPerson(Command.M25)),
                    Macro.of(
                            Event.HOST_PAUSE,
                            new Step.Retract(2),
                            new Step.Lift(5),
                            new Step.Park(),
                            new Step.Tone(880, 300)),
                    Macro.of(
                            Event.HOST_RESUME,
                            new Step.Prime(5, 4),
                            new Step.Retract(2),
                            Step.Wipe.USUAL,
                            new Step.Return()));
        }
    },
    FEEDER("By a feeder with slots", "the feeder hears the extruder's number and changes the filament itself") {
        @Override
        List<MacroStep> swap() {
            return always(beside(new Step.SelectExtruder(), new Step.Heat(HeatFor.INCOMING)));
        }
    },
    SELECTOR("By a selector box", "the carriage presses the box's switch until the slot is the right one") {
        @Override
        List<MacroStep> swap() {
            return always(beside(
                    new Step.Heat(HeatFor.HOTTER),
                    new Step.Unload(20, 30),
                    new Step.PressSwitch(),
                    new Step.Park(),
                    new Step.Load(20, 30),
                    new Step.Heat(HeatFor.INCOMING)));
        }
    },
    BLENDING("By blending in the nozzle", "nothing is swapped: the inputs' weights change, and the melt is cleared") {
        @Override
        List<MacroStep> swap() {
            return always(beside(new Step.SelectExtruder()));
        }
    };

    private static final Step LOAD_FIRST = new Step.Message("Load {{in}}");
    private static final Step NOTE = new Step.Message("Halt {{number}}: {{note}}");

    private final String title;
    private final String how;

    SwapMethod(String title, String how) {
        this.title = title;
        this.how = how;
    }

    public String title() {
        return title;
    }

    /** How it goes, in one line. */
    public String how() {
        return how;
    }

    /** Macros most machines of this kind can start with. */
    public MacroBook ready() {
        List<Macro> macros = new ArrayList<>();
        macros.add(new Macro(Event.SWAP.title(), Event.SWAP, true, Macro.BY_HAND, swap()));
        macros.addAll(others());
        return new MacroBook(this, macros, HostNames.COMMON, HookNames.COMMON);
    }

    abstract List<MacroStep> swap();

    private static List<MacroStep> always(Step... steps) {
        return Arrays.stream(steps).map(MacroStep::always).toList();
    }

    /** With the question whether it is clean, and a {@code wait} for the answer, before the wipe; both switched off. */
    private static List<MacroStep> asked(Step wait, Step... steps) {
        List<MacroStep> all = new ArrayList<>(always(steps));
        all.addAll(
                all.indexOf(MacroStep.always(Step.Wipe.USUAL)),
                List.of(
                        MacroStep.always(Step.Message.CLEAN).turned(false),
                        MacroStep.always(wait).turned(false)));
        return all;
    }

    /** Steps done at the park spot, with the way there, the purge, the wipe and the way back round them. */
    private static Step[] beside(Step... steps) {
        return Stream.of(
                        Stream.of(new Step.Retract(2), new Step.Lift(5), new Step.Park()),
                        Arrays.stream(steps),
                        Stream.of(new Step.Purge(4), new Step.Retract(2), Step.Wipe.USUAL, new Step.Return()))
                .flatMap(s -> s)
                .toArray(Step[]::new);
    }

    /** What stops the machine for a person who changes no spool. */
    Step stop() {
        return new Step.WaitForPerson(Command.M0);
    }

    List<Macro> others() {
        return List.of(
                Macro.of(
                                Event.FIRST_LOAD,
                                new Step.Lift(5),
                                new Step.Park(),
                                LOAD_FIRST,
                                stop(),
                                new Step.Heat(HeatFor.INCOMING),
                                new Step.Prime(30, 4),
                                new Step.Retract(2),
                                Step.Wipe.USUAL,
                                new Step.Return())
                        .turned(false),
                Macro.of(
                        Event.HALT,
                        new Step.Retract(2),
                        new Step.Lift(20),
                        new Step.Park(),
                        new Step.Tone(660, 300),
                        NOTE,
                        stop(),
                        new Step.Prime(3, 4),
                        Step.Wipe.USUAL,
                        new Step.Return()));
    }
}
