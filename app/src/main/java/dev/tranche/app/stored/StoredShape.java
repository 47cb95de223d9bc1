package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.plan.Shape;
import java.util.List;
import java.util.Optional;

/** What a region colours. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredShape.Parts.class, name = "Parts"),
    @JsonSubTypes.Type(value = StoredShape.Zone.class, name = "Zone"),
    @JsonSubTypes.Type(value = StoredShape.Trace.class, name = "Trace")
})
sealed interface StoredShape {
    Shape shape();

    static StoredShape of(Shape value) {
        if (value instanceof Shape.Parts known) {
            return new Parts(known.numbers());
        }
        if (value instanceof Shape.Zone known) {
            return Zone.of(known);
        }
        if (value instanceof Shape.Trace known) {
            return new Trace(known.courses().stream().map(Course::of).toList());
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
        static Zone of(Shape.Zone zone) {
            return new Zone(StoredOutline.of(zone.outline()), zone.x(), zone.y(), zone.turn(), zone.mirrored());
        }

        @Override
        public Shape.Zone shape() {
            return new Shape.Zone(outline.outline(), x, y, turn, mirrored);
        }
    }

    record Trace(List<Course> courses) implements StoredShape {
        @Override
        public Shape shape() {
            return new Shape.Trace(courses.stream().map(Course::course).toList());
        }
    }

    /** What is traced over some heights; without a zone, nothing. */
    record Course(Micrometres from, @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Zone> zone) {
        static Course of(Shape.Trace.Course course) {
            return new Course(Micrometres.of(course.from()), course.zone().map(Zone::of));
        }

        Shape.Trace.Course course() {
            return new Shape.Trace.Course(from.height(), zone.map(Zone::shape));
        }
    }
}
