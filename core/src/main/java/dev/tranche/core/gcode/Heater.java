package dev.tranche.core.gcode;

/**
 * A heater as a first-order system: at full power it tends to {@code limit} with a time constant of {@code tau}.
 * The two sets of constants are typical of hobby machines, from memory.
 *
 * @param limit °C it would reach
 * @param tau s
 */
public record Heater(double limit, double tau) {
    public static final double ROOM = 20;
    public static final Heater NOZZLE = new Heater(400, 150);
    static final Heater BED = new Heater(130, 300);

    /** Seconds to get from one temperature to a higher one; 0 when it is not higher. */
    public double secondsFrom(double now, double target) {
        double reachable = Math.min(target, limit - 1);
        return reachable <= now ? 0 : tau * Math.log((limit - now) / (limit - reachable));
    }

    /** What a heater comes to on the way to a higher temperature; how it cools is left out. */
    public double after(double now, double target, double seconds) {
        return target <= now ? now : Math.min(target, limit - (limit - now) * Math.exp(-seconds / tau));
    }

    /** What it falls to without power: towards the room, with the same time constant. */
    public double cooled(double now, double seconds) {
        return ROOM + (now - ROOM) * Math.exp(-seconds / tau);
    }

    /** Seconds to fall from one temperature to a lower one without power; 0 when it is not lower. */
    public double secondsDown(double now, double target) {
        double reachable = Math.max(target, ROOM + 1);
        return reachable >= now ? 0 : tau * Math.log((now - ROOM) / (reachable - ROOM));
    }
}
