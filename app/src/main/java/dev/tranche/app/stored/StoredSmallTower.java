package dev.tranche.app.stored;

import dev.tranche.core.purge.PurgePlace.SmallTower;
import dev.tranche.core.units.Volume;

/**
 * A small tower.
 *
 * @param width mm
 * @param volume mm³ of each purge
 */
record StoredSmallTower(double width, double volume) {
    static StoredSmallTower of(SmallTower value) {
        return new StoredSmallTower(value.width(), value.volume().cubicMillimetres());
    }

    SmallTower tower() {
        return new SmallTower(width, new Volume(volume));
    }
}
