package dev.tranche.app.stored;

import dev.tranche.core.purge.MeasuredPurge;

/** A purge measured on a printer. */
public record StoredMeasure(SpoolNumber out, SpoolNumber in, CubicMillimetres volume) {

    public static StoredMeasure of(MeasuredPurge m) {
        return new StoredMeasure(SpoolNumber.of(m.out()), SpoolNumber.of(m.in()), CubicMillimetres.of(m.volume()));
    }

    public MeasuredPurge purge() {
        return new MeasuredPurge(out.id(), in.id(), volume.volume());
    }
}
