package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.plan.Shape;
import java.util.List;

/** What a region colours. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredShape.Parts.class, name = "Parts"),
    @JsonSubTypes.Type(value = StoredShape.Zone.class, name = "Zone")
})
sealed interface StoredShape {
    Shape shape();

    static StoredShape of(Shape value) {
        if (value instanceof Shape.Parts known) {
            return new Parts(known.numbers());
        }
        if (value instanceof Shape.Zone known) {
            return new Zone(StoredOutline.of(known.outline()), known.x(), known.y(), known.turn(), known.mirrored());
        }
        throw new IllegalArgumentException("stored in no way yet: " + value);
    }

    record Parts(List<Integer> numbers) implements StoredShape {
        @Override
        public Shape shape() {
            return new Shape.Parts(numbers);
        }
    }

    record Zone(StoredOutline outline, double x, double y, double turn, boolean mirrored) implements StoredShape {
        @Override
        public Shape shape() {
            return new Shape.Zone(outline.outline(), x, y, turn, mirrored);
        }
    }
}
