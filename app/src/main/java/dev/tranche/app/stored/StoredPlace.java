package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.purge.PurgePlace;

/** Where purge goes. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredPlace.OnTower.class, name = "OnTower"),
    @JsonSubTypes.Type(value = StoredPlace.Routine.class, name = "Routine"),
    @JsonSubTypes.Type(value = StoredPlace.Bin.class, name = "Bin")
})
sealed interface StoredPlace {
    PurgePlace place();

    static StoredPlace of(PurgePlace value) {
        if (value instanceof PurgePlace.OnTower known) {
            return new OnTower(known.width());
        }
        if (value instanceof PurgePlace.Routine known) {
            return new Routine(known.length());
        }
        return new Bin();
    }

    record OnTower(double width) implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.OnTower(width);
        }
    }

    record Routine(double length) implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.Routine(length);
        }
    }

    record Bin() implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.Bin();
        }
    }
}
