package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;

/**
 * How many times as long a machine prints as is reckoned for it; swaps and halts apart.
 *
 * @param fromModel where that is estimated from the model, 0.2 to 5
 * @param fromFile where it is the motion of a sliced file, 0.2 to 5
 */
public record Pace(double fromModel, double fromFile) {
    /** Just what is reckoned. */
    public static final Pace AS_RECKONED = new Pace(1, 1);

    private static final double LEAST = 0.2;
    private static final double MOST = 5;

    public Pace {
        check(fromModel);
        check(fromFile);
    }

    private static void check(double factor) {
        if (!isPossible(factor)) {
            throw Refusal.of(
                    "Printing that takes %s times what is reckoned is out of range; give %s to %s, and 1 for just that.",
                    factor, LEAST, MOST);
        }
    }

    /** Whether a machine can be so much slower, or faster, than reckoned. */
    public static boolean isPossible(double factor) {
        return factor >= LEAST && factor <= MOST;
    }
}
