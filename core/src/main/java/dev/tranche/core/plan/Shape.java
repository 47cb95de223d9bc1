package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import org.locationtech.jts.algorithm.Angle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** What a region colours: parts of the model, or a zone over it. */
public sealed interface Shape {

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

        /** Scaled about the origin, then turned about it, with the model. */
        Zone along(double factor, double degrees) {
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
}
