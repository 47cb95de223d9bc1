package dev.tranche.core.geometry;

import dev.tranche.core.speech.Refusal;

/**
 * By how much a solid is moved from where its file has it.
 *
 * @param x mm as the model is placed, as {@code y}
 * @param z mm upwards
 */
public record Shift(double x, double y, double z) {
    public static final Shift NONE = new Shift(0, 0, 0);

    private static final double FARTHEST = 5000;

    public Shift {
        for (double mm : new double[] {x, y, z}) {
            if (!(Math.abs(mm) <= FARTHEST)) {
                throw Refusal.of("A part cannot be moved by %s mm; give at most %.0f mm.", mm, FARTHEST);
            }
        }
    }
}
