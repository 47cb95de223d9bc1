package dev.tranche.app.stored;

import dev.tranche.core.units.Height;

/** A height, µm. */
record Micrometres(int micrometres) {

    static Micrometres of(Height h) {
        return new Micrometres(h.micrometres());
    }

    public Height height() {
        return new Height(micrometres);
    }
}
