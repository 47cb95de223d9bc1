package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;

/** A place over the bed, mm. */
public record Point(double x, double y) {
    public Point {
        if (!(Math.abs(x) <= 10_000 && Math.abs(y) <= 10_000)) {
            throw Refusal.of("A place at X %s Y %s is not on any machine; give millimetres on the bed.", x, y);
        }
    }
}
