package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;

/** How filament gets from the gears to the nozzle. */
public sealed interface Drive {
    /** mm of filament from the gears to the tip of the nozzle. */
    double gearsToNozzle();

    /** The same, measured anew. */
    default Drive reaching(double length) {
        return this instanceof Tube ? new Tube(length) : new Direct(length);
    }

    /** Gears on the carriage. */
    record Direct(double gearsToNozzle) implements Drive {
        public Direct {
            check(gearsToNozzle, 10, 300);
        }
    }

    /** Gears on the frame, and a tube to the nozzle. */
    record Tube(double gearsToNozzle) implements Drive {
        public Tube {
            check(gearsToNozzle, 50, 3000);
        }
    }

    private static void check(double length, double least, double most) {
        if (!(length >= least && length <= most)) {
            throw Refusal.of(
                    "From gears to nozzle of %s mm is out of range here; measure again, %.0f to %.0f mm.",
                    length, least, most);
        }
    }
}
