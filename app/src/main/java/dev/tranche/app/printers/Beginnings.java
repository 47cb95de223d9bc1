package dev.tranche.app.printers;

import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Printers to begin with: values most hobby machines share, to be corrected by their owner. */
public final class Beginnings {
    private Beginnings() {}

    /** A machine nobody has measured yet; its id is 0, as it is not stored. */
    public static Workshop.Machine plainPrinter() {
        return new Workshop.Machine(
                0, smallDirectDrive("My printer"), SwapMacro.ready(SwapMethod.PAUSE_AND_PARK), List.of());
    }

    /** Direct drive and a firmware that can pause. */
    public static Printer smallDirectDrive(String name) {
        return new Printer(
                name,
                new Bed.Rectangular(180, 180),
                Height.ofMillimetres(180),
                0.4,
                Filament.COMMON,
                new Drive.Direct(65),
                Optional.of(new Point(5, 5)),
                Duration.ofMinutes(10),
                new Volume(60),
                Motion.COMMON,
                Abilities.of("M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
    }

    /** Gears on the frame, a tube to the nozzle, and a firmware with a filament-change routine. */
    public static Printer tubeFedBench(String name) {
        return new Printer(
                name,
                new Bed.Rectangular(220, 220),
                Height.ofMillimetres(240),
                0.4,
                Filament.COMMON,
                new Drive.Tube(420),
                Optional.of(new Point(10, 205)),
                Duration.ofMinutes(30),
                new Volume(60),
                Motion.COMMON,
                Abilities.of("M600 XYZUL", "M0", "M117", "M300 SP", "G4 S", "M104 S", "M109 S", "M400"));
    }

    static Printer variantOf(Printer p) {
        String name = p.name() + " (variant)";
        return new Printer(
                name.length() <= 60 ? name : p.name(),
                p.bed(),
                p.maxHeight(),
                p.nozzle(),
                p.filament(),
                p.drive(),
                p.parkSpot(),
                p.heaterLimit(),
                p.deadVolume(),
                p.motion(),
                p.abilities());
    }
}
