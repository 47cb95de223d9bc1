package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.algorithm.Angle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** What a region colours: parts of the model, a zone over it, or what is traced of a file. */
public sealed interface Shape {

    /** Whether it lies where its parts lie; else it is drawn over the model. */
    default boolean isByPart() {
        return this instanceof Parts;
    }

    /** What it is on {@code layer}, from 1: parts, a zone, or nothing. */
    default Optional<Shape> on(int layer, LayerGrid grid) {
        return Optional.of(this);
    }

    /** With a model that is scaled about the origin in the plane, and turned about it. */
    default Shape along(double factor, double degrees) {
        return this;
    }

    /** With a model that is made higher or lower. */
    default Shape scaledInHeight(double factor) {
        return this;
    }

    /**
     * Solids of the model.
     *
     * @param numbers from 0, rising
     */
    record Parts(List<Integer> numbers) implements Shape {
        public Parts {
            numbers = numbers.stream().distinct().sorted().toList();
            if (numbers.isEmpty()) {
                throw new Refusal("A region by part needs at least one part.");
            }
        }
    }

    /**
     * Whatever of the model lies under an outline.
     *
     * @param x of its middle in the model's own axes, mm, as {@code y}
     * @param turn degrees, counter-clockwise seen from above
     * @param mirrored left to right, before it is turned
     */
    record Zone(Outline outline, double x, double y, double turn, boolean mirrored) implements Shape {
        /** As far from the origin as models are read. */
        private static final double FARTHEST = 1_500_000;

        public Zone {
            if (!(Math.abs(x) <= FARTHEST && Math.abs(y) <= FARTHEST)) {
                throw Refusal.of("A zone at X %s Y %s mm is nowhere near a model; give −1 500 000 to 1 500 000.", x, y);
            }
            if (!(Math.abs(turn) <= 360)) {
                throw Refusal.of("A turn of %s° is out of range; give −360 to 360.", turn);
            }
        }

        /** An area of the model's axes, mm, as it lies. */
        public static Zone over(MultiPolygon area, String name) {
            Silhouette silhouette = Silhouette.of(area);
            Coordinate middle = area.getEnvelopeInternal().centre();
            return new Zone(new Outline.Drawing(name, silhouette, silhouette.width()), middle.x, middle.y, 0, false);
        }

        /** What it covers, in the model's axes, mm. */
        public MultiPolygon area() {
            AffineTransformation put = new AffineTransformation();
            if (mirrored) {
                put.scale(-1, 1);
            }
            put.rotate(Math.toRadians(turn)).translate(x, y);
            return Areas.of(put.transform(outline.area()));
        }

        public Zone at(double newX, double newY) {
            return new Zone(outline, newX, newY, turn, mirrored);
        }

        public Zone of(Outline other) {
            return new Zone(other, x, y, turn, mirrored);
        }

        public Zone turned(double degrees) {
            return new Zone(outline, x, y, degrees, mirrored);
        }

        /** Left and right exchanged, where it is. */
        public Zone mirroredOver() {
            return new Zone(outline, x, y, turn == 0 ? 0 : -turn, !mirrored);
        }

        @Override
        public Zone along(double factor, double degrees) {
            double r = Math.toRadians(degrees);
            double c = Angle.cosSnap(r);
            double s = Angle.sinSnap(r);
            double px = factor * x;
            double py = factor * y;
            return new Zone(
                    outline.wide(outline.width() * factor),
                    c * px - s * py,
                    s * px + c * py,
                    (turn + degrees) % 360,
                    mirrored);
        }
    }

    /**
     * Whatever of the model lies under outlines that take turns as the print grows.
     *
     * @param courses from below; the first reaches down as far as its region, the last up as far
     */
    record Trace(List<Course> courses) implements Shape {
        public static final int MOST = 5_000;

        public Trace {
            courses = List.copyOf(courses);
            if (courses.isEmpty() || courses.size() > MOST) {
                throw Refusal.of(
                        "A region traced of a file has 1 to %d outlines, and this one %d.", MOST, courses.size());
            }
            for (int i = 1; i < courses.size(); i++) {
                if (!courses.get(i).from().isAbove(courses.get(i - 1).from())) {
                    throw Refusal.of(
                            "The outlines of a region have to follow one another upwards, and one at %s mm comes after one at %s mm.",
                            courses.get(i).from(), courses.get(i - 1).from());
                }
            }
        }

        /**
         * The outline over some heights.
         *
         * @param from where it takes over from the one beneath
         * @param zone empty where there is nothing
         */
        public record Course(Height from, Optional<Zone> zone) {}

        @Override
        public Optional<Shape> on(int layer, LayerGrid grid) {
            int middle = grid.middle(layer).micrometres();
            int low = 0;
            int high = courses.size() - 1;
            while (low < high) {
                int half = (low + high + 1) / 2;
                if (courses.get(half).from().micrometres() < middle) {
                    low = half;
                } else {
                    high = half - 1;
                }
            }
            return courses.get(low).zone().map(Shape.class::cast);
        }

        /** How many outlines it has. */
        public long outlines() {
            return courses.stream().filter(c -> c.zone().isPresent()).count();
        }

        /** Outlines that get smaller than any zone are left out. */
        @Override
        public Trace along(double factor, double degrees) {
            return new Trace(courses.stream()
                    .map(c -> new Course(
                            c.from(),
                            c.zone()
                                    .filter(z -> z.outline().width() * factor >= Outline.SMALLEST)
                                    .map(z -> z.along(factor, degrees))))
                    .toList());
        }

        /** Outlines that come to lie within a thousandth of a millimetre of the next are left out. */
        @Override
        public Trace scaledInHeight(double factor) {
            List<Course> scaled = new ArrayList<>();
            for (Course course : courses) {
                Height from = Height.ofMillimetres(course.from().millimetres() * factor);
                if (!scaled.isEmpty()
                        && !from.isAbove(scaled.get(scaled.size() - 1).from())) {
                    scaled.remove(scaled.size() - 1);
                }
                scaled.add(new Course(from, course.zone()));
            }
            return new Trace(scaled);
        }
    }
}
