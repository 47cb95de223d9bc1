package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Silhouette;

/** The outline of a zone. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredOutline.Disc.class, name = "Disc"),
    @JsonSubTypes.Type(value = StoredOutline.Box.class, name = "Box"),
    @JsonSubTypes.Type(value = StoredOutline.Drawing.class, name = "Drawing")
})
sealed interface StoredOutline {
    Outline outline();

    static StoredOutline of(Outline value) {
        if (value instanceof Outline.Disc known) {
            return new Disc(known.diameter());
        }
        if (value instanceof Outline.Box known) {
            return new Box(known.width(), known.depth());
        }
        if (value instanceof Outline.Drawing known) {
            return new Drawing(known.name(), known.silhouette().toString(), known.width());
        }
        throw new IllegalArgumentException("stored in no way yet: " + value);
    }

    record Disc(double diameter) implements StoredOutline {
        @Override
        public Outline outline() {
            return new Outline.Disc(diameter);
        }
    }

    record Box(double width, double depth) implements StoredOutline {
        @Override
        public Outline outline() {
            return new Outline.Box(width, depth);
        }
    }

    record Drawing(String name, String silhouette, double width) implements StoredOutline {
        @Override
        public Outline outline() {
            return new Outline.Drawing(name, Silhouette.parse(silhouette), width);
        }
    }
}
