package dev.tranche.core.machine;

import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.util.Optional;

/** Printers for tests. */
public final class Printers {
    private Printers() {}

    public static Printer plain() {
        return new Printer(
                "Test bench",
                new Bed.Rectangular(220, 220),
                Height.ofMillimetres(250),
                0.4,
                Filament.COMMON,
                new Drive.Direct(60),
                Optional.of(new Point(5, 5)),
                Duration.ofMinutes(10),
                new Volume(60),
                Motion.COMMON,
                Abilities.of("M600 XYZUL", "M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
    }

    public static Printer with(Printer p, Abilities abilities) {
        return new Printer(
                p.name(),
                p.bed(),
                p.maxHeight(),
                p.nozzle(),
                p.filament(),
                p.drive(),
                p.parkSpot(),
                p.heaterLimit(),
                p.deadVolume(),
                p.motion(),
                abilities);
    }

    public static Printer parkingAt(Printer p, Optional<Point> spot) {
        return new Printer(
                p.name(),
                p.bed(),
                p.maxHeight(),
                p.nozzle(),
                p.filament(),
                p.drive(),
                spot,
                p.heaterLimit(),
                p.deadVolume(),
                p.motion(),
                p.abilities());
    }

    public static Printer waiting(Printer p, Duration heaterLimit) {
        return new Printer(
                p.name(),
                p.bed(),
                p.maxHeight(),
                p.nozzle(),
                p.filament(),
                p.drive(),
                p.parkSpot(),
                heaterLimit,
                p.deadVolume(),
                p.motion(),
                p.abilities());
    }
}
