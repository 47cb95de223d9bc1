package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.purge.PurgePlace;
import java.util.Optional;

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
            return new Routine(known.length(), known.last().map(StoredSmallTower::of));
        }
        return new Bin(((PurgePlace.Bin) value).last().map(StoredSmallTower::of));
    }

    record OnTower(double width) implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.OnTower(width);
        }
    }

    record Routine(double length, @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<StoredSmallTower> smallTower)
            implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.Routine(length, smallTower.map(StoredSmallTower::tower));
        }
    }

    record Bin(@JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<StoredSmallTower> smallTower)
            implements StoredPlace {
        @Override
        public PurgePlace place() {
            return new PurgePlace.Bin(smallTower.map(StoredSmallTower::tower));
        }
    }
}
