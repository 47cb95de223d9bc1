package dev.tranche.app.stored;

import dev.tranche.core.units.Filament;

/** Filament, by its diameter in mm. */
record Diameter(double diameter) {

    static Diameter of(Filament f) {
        return new Diameter(f.diameter());
    }

    public Filament filament() {
        return new Filament(diameter);
    }
}
