package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.InteriorPointArea;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.algorithm.construct.MaximumInscribedCircle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.index.hprtree.HPRtree;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import org.locationtech.jts.operation.distance.IndexedFacetDistance;

/**
 * What of an area is too thin for a line of plastic: what is lost when it is drawn in by half a line and let out again
 * (a morphological opening).
 *
 * @param area a stretch that is too thin, mm
 * @param width where it is widest, mm
 */
public record Thin(Polygon area, double width) {
    /** Less than this is the rounding of a corner, mm². */
    private static final double SPECK = 0.05;

    /** A mitre reaches so many times the distance by which an area is let out. */
    private static final double MITRE = 5;

    private static final BufferParameters MITRED =
            new BufferParameters(8, BufferParameters.CAP_ROUND, BufferParameters.JOIN_MITRE, MITRE);

    /** What is lost at a place is told by the rim within half a mitre and half a line; and a line more. In lines. */
    private static final double REACH = MITRE / 2 + 0.5 + 1;

    /** So many corners are drawn in at once; each takes some kilobytes. */
    private static final int AT_ONCE = 3_000;

    /** Whether a line {@code width} mm wide fits into {@code piece} anywhere. */
    public static boolean holdsLine(Polygon piece, double width) {
        double disc = width * width * Math.PI / 4;
        double area = Areas.size(piece);
        if (area < disc) {
            return false;
        }
        if (isBroad(piece, area, width / 2)) {
            return true;
        }
        // A disc of that width round the middle of the widest stretch settles it for nearly all.
        Coordinate middle = InteriorPointArea.getInteriorPoint(piece);
        if (middle != null && piece.getBoundary().distance(piece.getFactory().createPoint(middle)) >= width / 2) {
            return true;
        }
        return !piece.buffer(-width / 2).isEmpty();
    }

    /**
     * Whether area and perimeter alone prove that a disc of radius {@code r} fits. Drawn in by t, an area with n holes has a
     * rim of at most P + 2π t (n − 1): so were it all within r of its rim, its area would be at most r P + π r² (n − 1).
     *
     * <p>Source: B. Sz.-Nagy, "Über Parallelmengen nichtkonvexer ebener Bereiche", Acta Scientiarum Mathematicarum 20
     * (1959), from memory; checked against JTS.
     */
    private static boolean isBroad(Polygon piece, double area, double r) {
        return area > r * Areas.perimeter(piece) + Math.PI * r * r * Math.max(0, piece.getNumInteriorRing() - 1);
    }

    /** Every stretch of {@code area} that is thinner than {@code width} mm. */
    public static List<Thin> of(MultiPolygon area, double width) {
        return of(area, width, Integer.MAX_VALUE);
    }

    /** Not more than {@code most} of them; what comes after these is not looked at. */
    public static List<Thin> of(MultiPolygon area, double width, int most) {
        return of(area, width, most, AT_ONCE);
    }

    /** @param atOnce corners that are looked at together */
    static List<Thin> of(MultiPolygon area, double width, int most, int atOnce) {
        return Areas.polygons(area)
                .map(piece -> withoutLoneHoles(piece, width))
                .flatMap(piece -> piece.getNumPoints() <= atOnce ? lost(piece, width) : inParts(piece, width, atOnce))
                .filter(stretch -> stretch.getArea() > SPECK)
                .limit(most)
                .map(stretch -> new Thin(stretch, 2 * inscribed(stretch)))
                .toList();
    }

    /**
     * Without holes that have no say in what is lost: convex ones, a width from every other rim. For a point no further than
     * that from such a hole lies in the disc that touches the hole where it is nearest, and no other rim cuts that disc. So a
     * plate of round holes is looked at in no time.
     */
    private static Polygon withoutLoneHoles(Polygon piece, double width) {
        if (piece.getNumInteriorRing() == 0) {
            return piece;
        }
        IndexedFacetDistance rim = new IndexedFacetDistance(piece.getExteriorRing());
        HPRtree boxes = new HPRtree();
        Areas.rings(piece).skip(1).forEach(hole -> boxes.insert(hole.getEnvelopeInternal(), hole));
        LinearRing[] kept = Areas.rings(piece)
                .skip(1)
                .filter(hole -> !isConvex(hole) || rim.isWithinDistance(hole, width) || isNear(hole, boxes, width))
                .toArray(LinearRing[]::new);
        return kept.length == piece.getNumInteriorRing()
                ? piece
                : piece.getFactory().createPolygon(piece.getExteriorRing(), kept);
    }

    private static boolean isNear(LinearRing hole, HPRtree others, double width) {
        Envelope round = new Envelope(hole.getEnvelopeInternal());
        round.expandBy(width);
        boolean[] near = {false};
        others.query(
                round, other -> near[0] = near[0] || other != hole && hole.isWithinDistance((LinearRing) other, width));
        return near[0];
    }

    private static boolean isConvex(LinearRing ring) {
        Coordinate[] c = ring.getCoordinates();
        boolean left = false;
        boolean right = false;
        for (int i = 1; i < c.length; i++) {
            int turn = Orientation.index(c[i - 1], c[i], c[i + 1 < c.length ? i + 1 : 1]);
            left |= turn == Orientation.LEFT;
            right |= turn == Orientation.RIGHT;
        }
        return !(left && right);
    }

    /** Pieces lie apart, so that each is drawn in and let out alone; one that vanishes is lost as it is. */
    private static Stream<Polygon> lost(Polygon piece, double width) {
        // A hair less, so that a wall of just the width is kept.
        double half = width / 2 * 0.999;
        Geometry drawnIn = piece.buffer(-half);
        if (drawnIn.isEmpty()) {
            return Stream.of(piece);
        }
        Geometry kept = BufferOp.bufferOp(drawnIn, half * 1.002, MITRED);
        return Areas.polygons(Areas.difference(Areas.of(piece), Areas.of(kept)));
    }

    /** What lies further off has no say in what is lost, so that a piece of any size takes the memory of a part. */
    private static Stream<Polygon> inParts(Polygon piece, double width, int atOnce) {
        List<MultiPolygon> parts = new ArrayList<>();
        halve(Areas.of(piece), piece.getEnvelopeInternal(), width, atOnce, parts);
        return Areas.polygons(Areas.union(parts));
    }

    /** @param area what of a piece lies in the box and within reach of it */
    private static void halve(MultiPolygon area, Envelope box, double width, int atOnce, List<MultiPolygon> parts) {
        double reach = REACH * width;
        if (area.getNumPoints() <= atOnce || Math.max(box.getWidth(), box.getHeight()) < 2 * reach) {
            parts.add(Areas.intersection(
                    Areas.of(Areas.polygons(area)
                            .flatMap(piece -> lost(piece, width))
                            .toList()),
                    boxed(box)));
            return;
        }
        for (Envelope half : halves(box)) {
            Envelope round = new Envelope(half);
            round.expandBy(reach);
            halve(Areas.intersection(area, boxed(round)), half, width, atOnce, parts);
        }
    }

    private static List<Envelope> halves(Envelope box) {
        Coordinate middle = box.centre();
        return box.getWidth() > box.getHeight()
                ? List.of(
                        new Envelope(box.getMinX(), middle.x, box.getMinY(), box.getMaxY()),
                        new Envelope(middle.x, box.getMaxX(), box.getMinY(), box.getMaxY()))
                : List.of(
                        new Envelope(box.getMinX(), box.getMaxX(), box.getMinY(), middle.y),
                        new Envelope(box.getMinX(), box.getMaxX(), middle.y, box.getMaxY()));
    }

    private static MultiPolygon boxed(Envelope box) {
        return Areas.of(Section.PLANE.toGeometry(box));
    }

    private static double inscribed(Polygon stretch) {
        return new MaximumInscribedCircle(stretch, 0.005).getRadiusLine().getLength();
    }
}
