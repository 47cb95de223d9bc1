package dev.tranche.app.plate;

import dev.tranche.core.plate.Spot;

/** By how much something is moved, mm and degrees; what is left out is nothing. */
record MoveForm(Double dx, Double dy, Double dturn) {
    Spot from(Spot before) {
        return before.by(or(dx), or(dy), or(dturn));
    }

    private static double or(Double given) {
        return given == null ? 0 : given;
    }
}
