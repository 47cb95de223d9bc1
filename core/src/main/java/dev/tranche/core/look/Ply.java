package dev.tranche.core.look;

import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.SpoolId;

/**
 * Plastic of one spool, or of one shade of a mixture, in a stack.
 *
 * @param micrometres of it; {@link #THICK} where it is so thick that nothing beyond it makes a difference
 */
public record Ply(Paints.Shaded paint, int micrometres) {
    public static final int THICK = 0;

    public Ply(SpoolId spool, int micrometres) {
        this(new Paints.Shaded(spool, 0), micrometres);
    }

    public SpoolId spool() {
        return paint.paint();
    }

    public boolean isThick() {
        return micrometres == THICK;
    }

    public double millimetres() {
        return micrometres / 1000.0;
    }
}
