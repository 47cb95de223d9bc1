package dev.tranche.app.plate;

import dev.tranche.core.geometry.Shift;
import dev.tranche.core.plate.Spot;
import org.locationtech.jts.geom.Coordinate;

/** By how much something is moved, mm and degrees; what is left out is nothing. */
record MoveForm(Double dx, Double dy, Double dturn) {
    Spot from(Spot before) {
        return before.by(or(dx), or(dy), or(dturn));
    }

    /** Of a part, where the copy it is shown in is turned by so many degrees. */
    Shift from(Shift before, double turned) {
        Coordinate by = new Spot(0, 0, turned).into(or(dx), or(dy));
        return before.by(new Shift(by.x, by.y, 0, or(dturn)));
    }

    private static double or(Double given) {
        return given == null ? 0 : given;
    }
}
