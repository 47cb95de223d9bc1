package dev.tranche.app.plate;

import dev.tranche.app.web.Numbers;
import dev.tranche.core.geometry.Shift;

/** How far a part is moved and turned from where its file has it, as typed, mm and degrees; what is left out is nothing. */
record ShiftForm(String x, String y, String z, String turn) {
    Shift shift() {
        return new Shift(number("X", x), number("Y", y), number("Z", z), number("turn", turn));
    }

    private static double number(String what, String typed) {
        return typed == null ? 0 : Numbers.decimal(what, typed);
    }
}
