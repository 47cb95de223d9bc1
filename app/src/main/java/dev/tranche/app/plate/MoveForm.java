package dev.tranche.app.plate;

import dev.tranche.core.geometry.Shift;
import dev.tranche.core.plate.Spot;

/** By how much something is moved, mm and degrees; what is left out is nothing. */
record MoveForm(Double dx, Double dy, Double dturn) {
    Spot from(Spot before) {
        return before.by(or(dx), or(dy), or(dturn));
    }

    /** Of a part, where the copy it is shown in is turned by so many degrees. */
    Shift from(Shift before, double turned) {
        return before.by(new Shift(or(dx), or(dy), 0, or(dturn)).along(1, -turned));
    }

    private static double or(Double given) {
        return given == null ? 0 : given;
    }
}
