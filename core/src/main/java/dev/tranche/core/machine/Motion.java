package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;

/**
 * How fast a printer moves.
 *
 * @param travelSpeed mm/s, also the limit of any XY move
 * @param printSpeed mm/s of an ordinary line, for estimates from the model alone
 * @param liftSpeed mm/s, limit of Z
 * @param retractSpeed mm/s of filament drawn back and pushed out again
 * @param acceleration mm/s²
 * @param junctionDeviation mm, how far a corner may be cut: decides the speed through it
 * @param pace how long that takes in truth
 */
public record Motion(
        double travelSpeed,
        double printSpeed,
        double liftSpeed,
        double retractSpeed,
        double acceleration,
        double junctionDeviation,
        Pace pace) {
    public static final Motion COMMON = new Motion(120, 50, 10, 30, 800, 0.02);

    public Motion {
        check("travel speed", travelSpeed, "mm/s", 1, 2000);
        check("print speed", printSpeed, "mm/s", 1, 2000);
        check("lift speed", liftSpeed, "mm/s", 0.1, 500);
        check("retract speed", retractSpeed, "mm/s", 0.1, 300);
        check("acceleration", acceleration, "mm/s²", 10, 100_000);
        check("junction deviation", junctionDeviation, "mm", 0.001, 1);
    }

    /** Of a printer that nobody has timed. */
    public Motion(
            double travelSpeed,
            double printSpeed,
            double liftSpeed,
            double retractSpeed,
            double acceleration,
            double junctionDeviation) {
        this(travelSpeed, printSpeed, liftSpeed, retractSpeed, acceleration, junctionDeviation, Pace.AS_RECKONED);
    }

    public Motion with(Pace other) {
        return new Motion(travelSpeed, printSpeed, liftSpeed, retractSpeed, acceleration, junctionDeviation, other);
    }

    private static void check(String what, double value, String unit, double least, double most) {
        if (!(value >= least && value <= most)) {
            throw Refusal.of("A %s of %s %s is out of range; give %s to %s.", what, value, unit, least, most);
        }
    }
}
