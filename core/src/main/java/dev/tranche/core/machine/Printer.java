package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.time.Duration;
import java.util.Optional;

/**
 * One printer, or a variant of one.
 *
 * @param name as its owner calls it
 * @param bed what is printed on
 * @param travel how far the nozzle can go
 * @param maxHeight how high it can print
 * @param home where the carriage finds its place
 * @param hotend nozzle, heater and melt
 * @param filament what it takes
 * @param drive how filament reaches the nozzle
 * @param parkSpot where the nozzle waits during a swap, if anywhere
 * @param selector the box worked by the carriage, if there is one
 * @param motion how it moves
 * @param abilities what its firmware understands
 * @param watts it draws on average while it prints
 */
public record Printer(
        String name,
        Bed bed,
        Travel travel,
        Height maxHeight,
        Corner home,
        Hotend hotend,
        Filament filament,
        Drive drive,
        Optional<Point> parkSpot,
        Optional<Selector> selector,
        Motion motion,
        Abilities abilities,
        double watts) {
    /** A hobby printer with a heated bed, W; from memory. */
    public static final double USUAL_WATTS = 120;

    private static final int LEAST_HEIGHT = 1_000;

    public Printer {
        name = Words.oneLine(name);
        if (name.isEmpty() || name.length() > 60) {
            throw new Refusal("A printer needs a name of at most 60 letters.");
        }
        if (maxHeight.micrometres() < LEAST_HEIGHT) {
            throw Refusal.of(
                    "A printer that prints to %s mm prints nothing; give the height it has, in mm.", maxHeight);
        }
        if (!(watts >= 0 && watts <= 20_000)) {
            throw Refusal.of("A power of %s W is out of range; give 0 to 20 000.", watts);
        }
        selector.map(Selector::lever).ifPresent(lever -> {
            requireReach(travel, lever.axis(), lever.position());
            lever.across().ifPresent(place -> requireReach(travel, lever.axis().other(), place));
        });
    }

    private static void requireReach(Travel travel, Axis axis, double place) {
        if (place < travel.low(axis) || place > travel.high(axis)) {
            throw Refusal.of(
                    "The switch at %s %s mm is beyond the axis, which goes from %s to %s mm; "
                            + "correct the switch or the travel.",
                    axis, place, travel.low(axis), travel.high(axis));
        }
    }

    /** A printer whose power nobody has measured. */
    public Printer(
            String name,
            Bed bed,
            Travel travel,
            Height maxHeight,
            Corner home,
            Hotend hotend,
            Filament filament,
            Drive drive,
            Optional<Point> parkSpot,
            Optional<Selector> selector,
            Motion motion,
            Abilities abilities) {
        this(
                name,
                bed,
                travel,
                maxHeight,
                home,
                hotend,
                filament,
                drive,
                parkSpot,
                selector,
                motion,
                abilities,
                USUAL_WATTS);
    }

    /** Diameter of the nozzle, mm. */
    public double nozzle() {
        return hotend.nozzle();
    }

    public Duration heaterLimit() {
        return hotend.heaterLimit();
    }

    public Volume deadVolume() {
        return hotend.deadVolume();
    }

    /** Width of a printed line, mm, taken as 1.125 nozzle diameters (common practice). */
    public double lineWidth() {
        return 1.125 * hotend.nozzle();
    }

    /** Whether the nozzle can go over {@code spot}. */
    public boolean reaches(Point spot) {
        return travel.reaches(spot, bed);
    }

    public Printer named(String other) {
        return new Printer(
                other, bed, travel, maxHeight, home, hotend, filament, drive, parkSpot, selector, motion, abilities,
                watts);
    }

    public Printer with(Drive other) {
        return new Printer(
                name, bed, travel, maxHeight, home, hotend, filament, other, parkSpot, selector, motion, abilities,
                watts);
    }

    public Printer with(Abilities other) {
        return new Printer(
                name, bed, travel, maxHeight, home, hotend, filament, drive, parkSpot, selector, motion, other, watts);
    }

    public Printer with(Motion other) {
        return new Printer(
                name, bed, travel, maxHeight, home, hotend, filament, drive, parkSpot, selector, other, abilities,
                watts);
    }

    /** With another dead volume of its nozzle. */
    public Printer with(Volume deadVolume) {
        return new Printer(
                name,
                bed,
                travel,
                maxHeight,
                home,
                hotend.with(deadVolume),
                filament,
                drive,
                parkSpot,
                selector,
                motion,
                abilities,
                watts);
    }
}
