package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.machine.Drive;

/** A drive. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredDrive.Direct.class, name = "Direct"),
    @JsonSubTypes.Type(value = StoredDrive.Tube.class, name = "Tube")
})
sealed interface StoredDrive {
    Drive drive();

    static StoredDrive of(Drive value) {
        if (value instanceof Drive.Direct known) {
            return new Direct(known.gearsToNozzle());
        }
        if (value instanceof Drive.Tube known) {
            return new Tube(known.gearsToNozzle());
        }
        throw new IllegalArgumentException("stored in no way yet: " + value);
    }

    record Direct(double gearsToNozzle) implements StoredDrive {
        @Override
        public Drive drive() {
            return new Drive.Direct(gearsToNozzle);
        }
    }

    record Tube(double gearsToNozzle) implements StoredDrive {
        @Override
        public Drive drive() {
            return new Drive.Tube(gearsToNozzle);
        }
    }
}
