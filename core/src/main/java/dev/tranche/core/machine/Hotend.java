package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Volume;
import java.time.Duration;

/**
 * The hot end with its one nozzle.
 *
 * @param nozzle diameter, mm
 * @param inputs how many filaments run into it; more than one means it blends
 * @param hottest °C it may be asked for
 * @param heaterLimit how long it stays hot at a standstill
 * @param deadVolume melt that has to be diluted away at a swap
 * @param reach how far it can dip beside standing plastic without hitting it, mm
 * @param head what hangs round the nozzle, higher than that
 */
public record Hotend(
        double nozzle, int inputs, int hottest, Duration heaterLimit, Volume deadVolume, double reach, Head head) {
    /** What most hobby machines have. */
    public static final Hotend COMMON = new Hotend(0.4, 1, 260, Duration.ofMinutes(10), new Volume(60), 3);

    public Hotend {
        if (!(nozzle >= 0.1 && nozzle <= 2)) {
            throw Refusal.of("A nozzle of %s mm is out of range; give 0.1 to 2 mm.", nozzle);
        }
        if (inputs < 1 || inputs > 6) {
            throw Refusal.of("A nozzle with %d inputs is out of range; give 1 to 6.", inputs);
        }
        if (hottest < 150 || hottest > 500) {
            throw Refusal.of("A hottest temperature of %d °C is out of range; give 150 to 500.", hottest);
        }
        if (heaterLimit.isNegative() || heaterLimit.isZero() || heaterLimit.compareTo(Duration.ofDays(7)) > 0) {
            throw new Refusal(
                    "The heater limit must be above zero and at most a week; give how long the nozzle stays hot, in minutes.");
        }
        if (deadVolume.cubicMillimetres() <= 0 || deadVolume.cubicMillimetres() > 2000) {
            throw new Refusal("The dead volume must be above 0 and at most 2000 mm³; 60 is usual.");
        }
        if (!(reach >= 0 && reach <= 100)) {
            throw Refusal.of("A reach of %s mm beside standing plastic is out of range; give 0 to 100 mm.", reach);
        }
    }

    /** With a head that nobody has measured. */
    public Hotend(double nozzle, int inputs, int hottest, Duration heaterLimit, Volume deadVolume, double reach) {
        this(nozzle, inputs, hottest, heaterLimit, deadVolume, reach, Head.COMMON);
    }

    public boolean blends() {
        return inputs > 1;
    }

    Hotend with(Volume other) {
        return new Hotend(nozzle, inputs, hottest, heaterLimit, other, reach, head);
    }
}
