package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.machine.Bed;

/** A bed. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredBed.Rectangular.class, name = "Rectangular"),
    @JsonSubTypes.Type(value = StoredBed.Round.class, name = "Round")
})
sealed interface StoredBed {
    Bed bed();

    static StoredBed of(Bed value) {
        if (value instanceof Bed.Rectangular known) {
            return new Rectangular(known.width(), known.depth());
        }
        if (value instanceof Bed.Round known) {
            return new Round(known.diameter());
        }
        throw new IllegalArgumentException("stored in no way yet: " + value);
    }

    record Rectangular(double width, double depth) implements StoredBed {
        @Override
        public Bed bed() {
            return new Bed.Rectangular(width, depth);
        }
    }

    record Round(double diameter) implements StoredBed {
        @Override
        public Bed bed() {
            return new Bed.Round(diameter);
        }
    }
}
