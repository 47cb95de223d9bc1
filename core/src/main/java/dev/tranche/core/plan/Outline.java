package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** The shape of a zone about its own middle, mm. */
public sealed interface Outline {
    /** A disc's sides stay within this of its circle, mm. */
    double ROUND = 0.002;

    double SMALLEST = 0.1;
    double LARGEST = 2000;

    /** What it covers, its middle at the origin. */
    MultiPolygon area();

    /** How wide it is, mm. */
    double width();

    /** The same shape, {@code width} mm wide. */
    Outline wide(double width);

    /** What it is called where nobody gave it a name. */
    String title();

    record Disc(double diameter) implements Outline {
        public Disc {
            size("diameter", diameter);
        }

        @Override
        public MultiPolygon area() {
            int sidesOfQuarter = (int) Math.ceil(Math.PI / 4 / Math.acos(1 - Math.min(1, 2 * ROUND / diameter)));
            return Areas.of(
                    new GeometryFactory().createPoint(new Coordinate(0, 0)).buffer(diameter / 2, sidesOfQuarter));
        }

        @Override
        public double width() {
            return diameter;
        }

        @Override
        public Outline wide(double width) {
            return new Disc(width);
        }

        @Override
        public String title() {
            return "Disc";
        }
    }

    record Box(double width, double depth) implements Outline {
        public Box {
            size("width", width);
            size("depth", depth);
        }

        @Override
        public MultiPolygon area() {
            return Areas.of(
                    new GeometryFactory().toGeometry(new Envelope(-width / 2, width / 2, -depth / 2, depth / 2)));
        }

        @Override
        public Outline wide(double other) {
            return new Box(other, depth * other / width);
        }

        @Override
        public String title() {
            return "Box";
        }
    }

    /**
     * A polygon or a drawing brought in from elsewhere.
     *
     * @param name of the drawing
     * @param width mm to which the silhouette is drawn
     */
    record Drawing(String name, Silhouette silhouette, double width) implements Outline {
        public Drawing {
            name = Words.oneLine(name);
            size("width", width);
        }

        @Override
        public MultiPolygon area() {
            double scale = width / silhouette.width();
            return scale == 1
                    ? silhouette.area()
                    : (MultiPolygon)
                            AffineTransformation.scaleInstance(scale, scale).transform(silhouette.area());
        }

        @Override
        public Outline wide(double other) {
            return new Drawing(name, silhouette, other);
        }

        @Override
        public String title() {
            return name;
        }
    }

    private static void size(String what, double mm) {
        if (!(mm >= SMALLEST && mm <= LARGEST)) {
            throw Refusal.of("A zone's %s of %s mm is out of range; give 0.1 to 2000.", what, mm);
        }
    }
}
