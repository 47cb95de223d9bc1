package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/** How a swap is carried out, each with macros to begin with. */
public enum SwapMethod {
    FIRMWARE_ROUTINE("By hand, at the firmware's filament change", "M600 parks, unloads, waits, loads and comes back") {
        @Override
        Step[] swap() {
            return new Step[] {new Step.Tone(880, 300), Step.Message.LOAD, Step.FirmwareRoutine.PLAIN};
        }
    },
    PAUSE_AND_PARK("By hand, at a pause", "the macro parks, M0 waits, the macro purges and comes back") {
        @Override
        Step[] swap() {
            return beside(
                    new Step.Tone(880, 300),
                    Step.Message.LOAD,
                    new Step.WaitForPerson(Command.M0),
                    new Step.Heat(HeatFor.INCOMING));
        }
    },
    TIMED_WAIT(
            "By hand, during a timed wait",
            "a tone, a wait that is always the same, a tone; for firmware without a pause") {
        @Override
        Step[] swap() {
            return beside(
                    new Step.Tone(880, 800),
                    Step.Message.LOAD,
                    new Step.Dwell(150),
                    new Step.Tone(440, 800),
                    new Step.Dwell(15),
                    new Step.Heat(HeatFor.INCOMING));
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
        Step[] swap() {
            return new Step[] {Step.Message.LOAD, new Step.WaitForPerson(Command.M25)};
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
                    Macro.of(Event.HOST_RESUME, new Step.Prime(30, 4), new Step.Retract(2), new Step.Return()));
        }
    },
    FEEDER("By a feeder with slots", "the feeder hears the extruder's number and changes the filament itself") {
        @Override
        Step[] swap() {
            return beside(new Step.SelectExtruder(), new Step.Heat(HeatFor.INCOMING));
        }

        @Override
        Duration person() {
            return Duration.ZERO;
        }
    },
    SELECTOR("By a selector box", "the carriage presses the box's switch until the slot is the right one") {
        @Override
        Step[] swap() {
            return beside(
                    new Step.Heat(HeatFor.HOTTER),
                    new Step.Unload(20, 30),
                    new Step.PressSwitch(),
                    new Step.Park(),
                    new Step.Load(20, 30),
                    new Step.Heat(HeatFor.INCOMING));
        }

        @Override
        Duration person() {
            return Duration.ZERO;
        }
    },
    BLENDING("By blending in the nozzle", "nothing is swapped: the inputs' weights change, and the melt is cleared") {
        @Override
        Step[] swap() {
            return beside(new Step.SelectExtruder());
        }

        @Override
        Duration person() {
            return Duration.ZERO;
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
        macros.add(Macro.of(Event.SWAP, swap()).taking(person()));
        macros.addAll(others());
        return new MacroBook(this, macros, HostNames.COMMON, HookNames.COMMON);
    }

    abstract Step[] swap();

    /** Steps done at the park spot, with the way there, the purge and the way back round them. */
    private static Step[] beside(Step... steps) {
        return Stream.of(
                        Stream.of(new Step.Retract(2), new Step.Lift(5), new Step.Park()),
                        Arrays.stream(steps),
                        Stream.of(new Step.Purge(4), new Step.Retract(2), new Step.Return()))
                .flatMap(s -> s)
                .toArray(Step[]::new);
    }

    /** What a person takes at a stop of the swap. */
    Duration person() {
        return this == TIMED_WAIT ? Duration.ZERO : Macro.BY_HAND;
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
                        new Step.Return()));
    }
}
