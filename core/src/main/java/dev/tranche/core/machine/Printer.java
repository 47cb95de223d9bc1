package dev.tranche.core.machine;

import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Refusal;
import dev.tranche.core.units.Volume;
import dev.tranche.core.units.Words;
import java.time.Duration;
import java.util.Optional;

/**
 * One printer, or a variant of one.
 *
 * @param name as its owner calls it
 * @param bed what is printed on
 * @param maxHeight how high it can print
 * @param nozzle diameter of the nozzle, mm
 * @param filament what it takes
 * @param drive how filament reaches the nozzle
 * @param parkSpot where the nozzle waits during a swap, if anywhere
 * @param heaterLimit how long the nozzle stays hot at a standstill
 * @param deadVolume melt that has to be diluted away at a swap
 * @param motion how it moves
 * @param abilities what its firmware understands
 */
public record Printer(
        String name,
        Bed bed,
        Height maxHeight,
        double nozzle,
        Filament filament,
        Drive drive,
        Optional<Point> parkSpot,
        Duration heaterLimit,
        Volume deadVolume,
        Motion motion,
        Abilities abilities) {
    public Printer {
        name = Words.oneLine(name);
        if (name.isEmpty() || name.length() > 60) {
            throw new Refusal("A printer needs a name of at most 60 letters.");
        }
        if (!(nozzle >= 0.1 && nozzle <= 2)) {
            throw Refusal.of("A nozzle of %s mm is out of range; give 0.1 to 2 mm.", nozzle);
        }
        if (heaterLimit.isNegative() || heaterLimit.isZero()) {
            throw new Refusal("The heater limit must be above zero; give how long the nozzle stays hot, in minutes.");
        }
        if (deadVolume.cubicMillimetres() <= 0 || deadVolume.cubicMillimetres() > 2000) {
            throw new Refusal("The dead volume must be above 0 and at most 2000 mm³; 60 is usual.");
        }
    }

    /** Width of a printed line, mm, taken as 1.125 nozzle diameters (common practice). */
    public double lineWidth() {
        return 1.125 * nozzle;
    }
}
