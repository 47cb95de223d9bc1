package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.PrecisionModel;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import org.locationtech.jts.io.WKTWriter;

/**
 * The outline of a drawing, mm, its middle at the origin; written as well-known text (OGC Simple Feature Access) to a
 * thousandth of a millimetre.
 */
public final class Silhouette {
    /** Corners that an outline may have. */
    public static final int MOST_POINTS = 20_000;

    private static final double SMALLEST = 0.01;
    private static final GeometryFactory THOUSANDTHS = new GeometryFactory(new PrecisionModel(1000));

    private final MultiPolygon area;
    /** Written when first asked for: a plan is stored at each edit, and most of its outlines are as they were. */
    private String written;

    private Silhouette(MultiPolygon area) {
        this.area = area;
    }

    /**
     * An area's outline, put in the middle; where it crosses itself it is taken apart.
     *
     * @throws Refusal if nothing is left of it, or it has over {@value #MOST_POINTS} corners
     */
    public static Silhouette of(Geometry given) {
        if (given.getNumPoints() > MOST_POINTS) {
            throw Refusal.of(
                    "The outline has %d corners and may have %d; simplify it.", given.getNumPoints(), MOST_POINTS);
        }
        Geometry whole = given.isValid() ? given : GeometryFixer.fix(given);
        Envelope box = whole.getEnvelopeInternal();
        if (box.isNull() || whole.getArea() < SMALLEST) {
            throw new Refusal("The outline encloses no area; draw it with at least three corners that are apart.");
        }
        Geometry centred = AffineTransformation.translationInstance(-box.centre().x, -box.centre().y)
                .transform(whole);
        Geometry rounded = rounded(THOUSANDTHS.createGeometry(centred));
        return new Silhouette(Areas.of(rounded.isValid() ? rounded : rounded(GeometryFixer.fix(rounded))));
    }

    /** As it is read again. */
    private static Geometry rounded(Geometry of) {
        of.apply((Coordinate c) -> THOUSANDTHS.getPrecisionModel().makePrecise(c));
        of.geometryChanged();
        return of;
    }

    /** Corners in order, mm, as they were drawn; the last joins the first. */
    public static Silhouette polygon(List<Coordinate> corners) {
        if (corners.size() < 3) {
            throw Refusal.of("A polygon of %d corners encloses nothing; give three or more.", corners.size());
        }
        List<Coordinate> ring = new ArrayList<>(corners);
        ring.add(corners.get(0).copy());
        return of(THOUSANDTHS.createPolygon(ring.toArray(Coordinate[]::new)));
    }

    /** Reads what {@link #toString} wrote. */
    public static Silhouette parse(String wkt) {
        try {
            return new Silhouette(Areas.of(new WKTReader(THOUSANDTHS).read(wkt)));
        } catch (ParseException e) {
            throw Refusal.of("An outline of the plan cannot be read: %s.", e.getMessage());
        }
    }

    public MultiPolygon area() {
        return area;
    }

    public double width() {
        return area.getEnvelopeInternal().getWidth();
    }

    public double depth() {
        return area.getEnvelopeInternal().getHeight();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Silhouette s && s.area.equalsExact(area);
    }

    @Override
    public int hashCode() {
        return area.hashCode();
    }

    @Override
    public String toString() {
        if (written == null) {
            WKTWriter writer = new WKTWriter();
            writer.setPrecisionModel(THOUSANDTHS.getPrecisionModel());
            written = writer.write(area);
        }
        return written;
    }

    /** Its size for people: “24.0 × 10.0 mm”. */
    public String size() {
        return Words.format("%.1f × %.1f mm", width(), depth());
    }
}
