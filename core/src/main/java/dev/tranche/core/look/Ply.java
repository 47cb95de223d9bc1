package dev.tranche.core.look;

import dev.tranche.core.plan.SpoolId;

/**
 * Plastic of one spool in a stack.
 *
 * @param micrometres of it; {@link #THICK} where it is so thick that nothing beyond it makes a difference
 */
public record Ply(SpoolId spool, int micrometres) {
    public static final int THICK = 0;

    public boolean isThick() {
        return micrometres == THICK;
    }

    public double millimetres() {
        return micrometres / 1000.0;
    }
}
