package dev.tranche.core.rig;

import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Kinds of machine to begin with: invented values that most of a kind share, to be corrected by their owner. */
public enum Beginning {
    TUBE_ROUTINE("Tube-fed, with a filament-change routine", SwapMethod.FIRMWARE_ROUTINE, 1) {
        @Override
        Printer printer(String name) {
            Hotend hotend = new Hotend(0.4, 1, 260, Duration.ofMinutes(30), Hotend.COMMON.deadVolume(), 3);
            return over(
                    name,
                    new Bed.Rectangular(220, 220),
                    240,
                    new Drive.Tube(420),
                    new Point(10, 205),
                    hotend,
                    Abilities.of("M600 XYZUL", "M0", "M117", "M300 SP", "G4 S", "M104 S", "M109 S", "M400"));
        }
    },
    DIRECT_PAUSE("Direct drive, with a plain pause", SwapMethod.PAUSE_AND_PARK, 1) {
        @Override
        Printer printer(String name) {
            return over(
                    name,
                    new Bed.Rectangular(180, 180),
                    180,
                    new Drive.Direct(65),
                    new Point(5, 5),
                    Hotend.COMMON,
                    Abilities.of("M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
        }
    },
    TIMED_WAITS("No usable pause, so timed waits", SwapMethod.TIMED_WAIT, 1) {
        @Override
        Printer printer(String name) {
            return over(
                    name,
                    new Bed.Round(170),
                    200,
                    new Drive.Tube(380),
                    new Point(0, -78),
                    Hotend.COMMON,
                    Abilities.of("G4 P", "M117", "M300 SP", "M104 S", "M109 S").withoutComments());
        }
    },
    HOST("A host computer that pauses and resumes", SwapMethod.HOST_SCRIPTS, 1) {
        @Override
        Printer printer(String name) {
            return over(
                    name,
                    new Bed.Rectangular(235, 235),
                    250,
                    new Drive.Direct(80),
                    new Point(5, 225),
                    Hotend.COMMON,
                    Abilities.of("M25", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400")
                            .behindHost(Command.M25));
        }
    },
    FEEDER("A feeder with slots", SwapMethod.FEEDER, 4) {
        @Override
        Printer printer(String name) {
            return over(
                    name,
                    new Bed.Rectangular(250, 210),
                    210,
                    new Drive.Tube(600),
                    new Point(245, 205),
                    Hotend.COMMON,
                    Abilities.of("T", "M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
        }
    },
    SELECTOR("A selector box worked by the carriage", SwapMethod.SELECTOR, 4) {
        @Override
        Printer printer(String name) {
            Bed bed = new Bed.Rectangular(330, 300);
            return new Printer(
                    name,
                    bed,
                    new Travel(0, 350, 0, 310),
                    Height.ofMillimetres(300),
                    Corner.FRONT_LEFT,
                    Hotend.COMMON,
                    Filament.COMMON,
                    new Drive.Tube(700),
                    Optional.of(new Point(5, 305)),
                    Optional.of(new Selector(new Lever(Axis.X, 350, 3, false), 0.5, List.of(1, 2, 3, 4))),
                    Motion.COMMON,
                    Abilities.of("M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
        }
    },
    BLENDING("A nozzle with two inputs, which blends", SwapMethod.BLENDING, 4) {
        @Override
        Printer printer(String name) {
            Hotend hotend = new Hotend(0.4, 2, 260, Duration.ofMinutes(10), Hotend.COMMON.deadVolume(), 3);
            return over(
                    name,
                    new Bed.Rectangular(200, 200),
                    200,
                    new Drive.Tube(450),
                    new Point(5, 195),
                    hotend,
                    Abilities.of(
                            "T",
                            "M163 SP",
                            "M164 S",
                            "M166 AZIJS",
                            "M0",
                            "M117",
                            "M300 SP",
                            "G4 SP",
                            "M104 S",
                            "M109 S",
                            "M400"));
        }
    };

    private final String title;
    private final SwapMethod method;
    private final int extruders;

    Beginning(String title, SwapMethod method, int extruders) {
        this.title = title;
        this.method = method;
        this.extruders = extruders;
    }

    public String title() {
        return title;
    }

    public SwapMethod method() {
        return method;
    }

    /** A machine of this kind under {@code name}. */
    public Rig rig(String name) {
        Printer printer = printer(name);
        Rack rack = Rack.of(printer, extruders);
        if (printer.hotend().blends()) {
            rack = rack.replace(2, rack.extruder(2).blending(new Blend(List.of(0.67, 0.33))))
                    .replace(3, rack.extruder(3).blending(new Blend(List.of(0.33, 0.67))));
        }
        return new Rig(printer, rack, method.ready());
    }

    abstract Printer printer(String name);

    private static Printer over(
            String name, Bed bed, double height, Drive drive, Point park, Hotend hotend, Abilities abilities) {
        return new Printer(
                name,
                bed,
                Travel.over(bed),
                Height.ofMillimetres(height),
                Corner.FRONT_LEFT,
                hotend,
                Filament.COMMON,
                drive,
                Optional.of(park),
                Optional.empty(),
                Motion.COMMON,
                abilities);
    }
}
