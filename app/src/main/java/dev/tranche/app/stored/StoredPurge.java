package dev.tranche.app.stored;

import dev.tranche.core.purge.PurgeSettings;

/** How a plan wants to be purged. */
public record StoredPurge(double tolerance, double factor, StoredPlace place) {

    public static StoredPurge of(PurgeSettings p) {
        return new StoredPurge(p.tolerance(), p.factor(), StoredPlace.of(p.place()));
    }

    public PurgeSettings settings() {
        return new PurgeSettings(tolerance, factor, place.place());
    }
}
