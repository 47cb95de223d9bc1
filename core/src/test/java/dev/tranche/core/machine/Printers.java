package dev.tranche.core.machine;

import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import java.time.Duration;
import java.util.Optional;

/** Printers for tests. */
public final class Printers {
    private Printers() {}

    public static Printer plain() {
        Bed bed = new Bed.Rectangular(220, 220);
        return new Printer(
                "Test bench",
                bed,
                Travel.over(bed),
                Height.ofMillimetres(250),
                Corner.FRONT_LEFT,
                Hotend.COMMON,
                Filament.COMMON,
                new Drive.Direct(60),
                Optional.of(new Point(5, 5)),
                Optional.empty(),
                Motion.COMMON,
                Abilities.of("M600 XYZUL", "M0", "M117", "M300 SP", "G4 SP", "M104 S", "M109 S", "M400"));
    }

    public static Printer parkingAt(Printer p, Optional<Point> spot) {
        return with(p, p.travel(), p.home(), p.hotend(), spot, p.selector());
    }

    public static Printer waiting(Printer p, Duration limit) {
        Hotend h = p.hotend();
        return with(
                p,
                p.travel(),
                p.home(),
                new Hotend(h.nozzle(), h.inputs(), h.hottest(), limit, h.deadVolume(), h.reach()),
                p.parkSpot(),
                p.selector());
    }

    /** Dips so far beside what stands, mm. */
    public static Printer reaching(double reach) {
        Printer p = plain();
        Hotend h = p.hotend();
        Hotend other = new Hotend(h.nozzle(), h.inputs(), h.hottest(), h.heaterLimit(), h.deadVolume(), reach);
        return with(p, p.travel(), p.home(), other, p.parkSpot(), p.selector());
    }

    public static Printer headed(Head head) {
        Printer p = plain();
        Hotend h = p.hotend();
        Hotend other =
                new Hotend(h.nozzle(), h.inputs(), h.hottest(), h.heaterLimit(), h.deadVolume(), h.reach(), head);
        return with(p, p.travel(), p.home(), other, p.parkSpot(), p.selector());
    }

    public static Printer withTube() {
        Printer p = plain();
        return new Printer(
                p.name(),
                p.bed(),
                p.travel(),
                p.maxHeight(),
                p.home(),
                p.hotend(),
                p.filament(),
                new Drive.Tube(500),
                p.parkSpot(),
                p.selector(),
                p.motion(),
                p.abilities());
    }

    public static Printer with(
            Printer p, Travel travel, Corner home, Hotend hotend, Optional<Point> park, Optional<Selector> selector) {
        return new Printer(
                p.name(),
                p.bed(),
                travel,
                p.maxHeight(),
                home,
                hotend,
                p.filament(),
                p.drive(),
                park,
                selector,
                p.motion(),
                p.abilities());
    }
}
