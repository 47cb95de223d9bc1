package dev.tranche.core.rig;

import dev.tranche.core.machine.Point;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import java.util.Optional;

/**
 * One of several views onto the one nozzle.
 *
 * @param spool that it prints with, if one is settled
 * @param firstLayerTemperature °C, as {@code temperature} for the rest and {@code standby} while it waits
 * @param liftOnRetract mm the nozzle rises at every retraction; 0.3 and 0.8 are in use (common practice)
 * @param nozzle diameter it believes in, mm, as {@code filament}
 * @param offset it believes its nozzle has from the first one, mm
 * @param blend of the inputs, on a nozzle that blends
 */
public record VirtualExtruder(
        Optional<SpoolId> spool,
        int firstLayerTemperature,
        int temperature,
        int standby,
        double liftOnRetract,
        double nozzle,
        double filament,
        Point offset,
        Optional<Blend> blend) {
    static final Point NO_OFFSET = new Point(0, 0);

    public VirtualExtruder {
        temperature("first-layer temperature", firstLayerTemperature, 150);
        temperature("temperature", temperature, 150);
        temperature("standby temperature", standby, 0);
        if (!(liftOnRetract >= 0 && liftOnRetract <= 10)) {
            throw Refusal.of("A lift on retract of %s mm is out of range; give 0 to 10 mm.", liftOnRetract);
        }
        if (!(nozzle >= 0.1 && nozzle <= 2 && filament >= 1 && filament <= 4)) {
            throw Refusal.of(
                    "A nozzle of %s mm for filament of %s mm cannot be; give 0.1 to 2 mm and 1 to 4 mm.",
                    nozzle, filament);
        }
    }

    /** An extruder that agrees with {@code printer} and has no spool yet. */
    public static VirtualExtruder of(Printer printer) {
        return new VirtualExtruder(
                Optional.empty(),
                210,
                205,
                150,
                0.3,
                printer.nozzle(),
                printer.filament().diameter(),
                NO_OFFSET,
                Optional.empty());
    }

    /** Loaded with {@code other}, at its temperatures. */
    public VirtualExtruder with(Spool other) {
        return new VirtualExtruder(
                Optional.of(other.id()),
                other.firstLayerTemperature(),
                other.temperature(),
                standby,
                liftOnRetract,
                nozzle,
                filament,
                offset,
                blend);
    }

    /** For another spool, at the temperatures it has. */
    VirtualExtruder holding(Optional<SpoolId> other) {
        return new VirtualExtruder(
                other, firstLayerTemperature, temperature, standby, liftOnRetract, nozzle, filament, offset, blend);
    }

    public VirtualExtruder blending(Blend weights) {
        return new VirtualExtruder(
                spool,
                firstLayerTemperature,
                temperature,
                standby,
                liftOnRetract,
                nozzle,
                filament,
                offset,
                Optional.of(weights));
    }

    VirtualExtruder agreeingWith(Printer printer) {
        return new VirtualExtruder(
                spool,
                firstLayerTemperature,
                temperature,
                standby,
                liftOnRetract,
                printer.nozzle(),
                printer.filament().diameter(),
                NO_OFFSET,
                blend);
    }

    private static void temperature(String what, int celsius, int least) {
        if (celsius < least || celsius > 500) {
            throw Refusal.of("A %s of %d °C is out of range; give %d to 500.", what, celsius, least);
        }
    }
}
