package dev.tranche.core.rehearse;

import dev.tranche.core.gcode.Heater;

/** How hot a nozzle is as time goes by: towards its target at full power, towards the room without. Not for two threads. */
final class Warmth {
    /** Below this firmwares move no filament, °C (common practice). */
    private static final double COLD = 150;
    /** A heater that is told to give up has been off for as long, s. */
    private static final double LEAST_OFF = 90;

    private double temperature = Heater.ROOM;
    private double target;
    private double since;

    /** Brings it to what it is at {@code now}, s. */
    void at(double now) {
        temperature = target > temperature
                ? Heater.NOZZLE.after(temperature, target, now - since)
                : Math.max(target, Heater.NOZZLE.cooled(temperature, now - since));
        since = now;
    }

    void aim(double other, double now) {
        at(now);
        target = Math.max(0, other);
    }

    /**
     * Seconds until it has a temperature, which it is given.
     *
     * @param downToo whether it is waited for where it has to cool, too
     */
    double wait(double other, boolean downToo, double now) {
        aim(other, now);
        double up = Heater.NOZZLE.secondsFrom(temperature, target);
        double down = downToo ? Heater.NOZZLE.secondsDown(temperature, target) : 0;
        temperature = down > 0 ? target : Math.max(target, temperature);
        since = now + up + down;
        return up + down;
    }

    /** It has a temperature, however it came to it. */
    void isAsHotAs(double other, double now) {
        target = other;
        temperature = other;
        since = now;
    }

    /** Off for so many seconds, and not switched on again. */
    void giveUp(double seconds) {
        temperature = Heater.NOZZLE.cooled(temperature, Math.max(LEAST_OFF, seconds));
        target = 0;
    }

    boolean isCold() {
        return temperature < COLD;
    }

    double temperature() {
        return temperature;
    }

    double target() {
        return target;
    }
}
