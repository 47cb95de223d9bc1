package dev.tranche.app.stored;

import dev.tranche.core.units.Volume;

/** A volume, mm³. */
record CubicMillimetres(double cubicMillimetres) {

    static CubicMillimetres of(Volume v) {
        return new CubicMillimetres(v.cubicMillimetres());
    }

    public Volume volume() {
        return new Volume(cubicMillimetres);
    }
}
