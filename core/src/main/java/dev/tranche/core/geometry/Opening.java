package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.Orientation;
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
 * A morphological opening of one piece: what of it is lost when it is drawn in by half a width and let out again.
 *
 * <p>JTS does it, to which a piece of many corners is given in parts, so that it takes the memory of a part; and without holes
 * that have no say in it, so that a plate of round holes takes no time.
 */
final class Opening {
    /** A mitre reaches so many times the distance by which an area is let out. */
    private static final double MITRE = 5;

    private static final BufferParameters MITRED =
            new BufferParameters(8, BufferParameters.CAP_ROUND, BufferParameters.JOIN_MITRE, MITRE);

    /** What is lost at a place is told by the rim within half a mitre and half a width; and a width more. In widths. */
    private static final double REACH = MITRE / 2 + 0.5 + 1;

    /** So many corners are drawn in at once; each takes some kilobytes. */
    static final int AT_ONCE = 3_000;

    private final double width;
    private final double least;
    private final int most;
    private final int atOnce;

    private final List<MultiPolygon> parts = new ArrayList<>();
    /** What lies wholly within a part, so that nothing of it is still to come. */
    private final List<Polygon> whole = new ArrayList<>();

    /**
     * @param width mm
     * @param least what is not larger is not counted, mm²
     * @param most so many that are larger are enough
     * @param atOnce corners that are looked at together
     */
    Opening(double width, double least, int most, int atOnce) {
        this.width = width;
        this.least = least;
        this.most = most;
        this.atOnce = atOnce;
    }

    /** What of {@code piece} is lost: of a large one that loses more than is asked for, some that is larger than the least. */
    List<Polygon> lost(Polygon piece) {
        Polygon told = withoutLoneHoles(piece);
        if (told.getNumPoints() <= atOnce) {
            return atOnce(told);
        }
        halve(Areas.of(told), told.getEnvelopeInternal());
        return isEnough() ? whole : Areas.polygons(Areas.union(parts)).toList();
    }

    /**
     * Without holes that have no say in what is lost: convex ones, a width from every other rim. For a point no further than
     * that from such a hole lies in the disc that touches the hole where it is nearest, and no other rim cuts that disc.
     */
    private Polygon withoutLoneHoles(Polygon piece) {
        if (piece.getNumInteriorRing() == 0) {
            return piece;
        }
        IndexedFacetDistance rim = new IndexedFacetDistance(piece.getExteriorRing());
        HPRtree boxes = new HPRtree();
        Areas.rings(piece).skip(1).forEach(hole -> boxes.insert(hole.getEnvelopeInternal(), hole));
        LinearRing[] kept = Areas.rings(piece)
                .skip(1)
                .filter(hole -> !isConvex(hole) || rim.isWithinDistance(hole, width) || isNear(hole, boxes))
                .toArray(LinearRing[]::new);
        return kept.length == piece.getNumInteriorRing()
                ? piece
                : piece.getFactory().createPolygon(piece.getExteriorRing(), kept);
    }

    private boolean isNear(LinearRing hole, HPRtree others) {
        Envelope round = new Envelope(hole.getEnvelopeInternal());
        round.expandBy(width);
        for (Object other : others.query(round)) {
            if (other != hole && IndexedFacetDistance.isWithinDistance(hole, (LinearRing) other, width)) {
                return true;
            }
        }
        return false;
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

    /** One that vanishes is lost as it is. */
    private List<Polygon> atOnce(Polygon piece) {
        // A hair less, so that a wall of just the width is kept.
        double half = width / 2 * 0.999;
        Geometry drawnIn = piece.buffer(-half);
        if (drawnIn.isEmpty()) {
            return List.of(piece);
        }
        Geometry kept = BufferOp.bufferOp(drawnIn, half * 1.002, MITRED);
        return Areas.polygons(Areas.difference(Areas.of(piece), Areas.of(kept))).toList();
    }

    /** @param area what of a piece lies in the box and within reach of it */
    private void halve(MultiPolygon area, Envelope box) {
        double reach = REACH * width;
        if (area.getNumPoints() <= atOnce || Math.max(box.getWidth(), box.getHeight()) < 2 * reach) {
            List<Polygon> lost =
                    Areas.polygons(area).flatMap(p -> atOnce(p).stream()).toList();
            add(Areas.intersection(Areas.of(lost), boxed(box)), box);
            return;
        }
        for (Envelope half : halves(box)) {
            if (!isEnough()) {
                Envelope round = new Envelope(half);
                round.expandBy(reach);
                halve(Areas.intersection(area, boxed(round)), half);
            }
        }
    }

    private boolean isEnough() {
        return whole.size() >= most;
    }

    private void add(MultiPolygon part, Envelope box) {
        parts.add(part);
        Areas.polygons(part)
                .filter(lost -> lost.getArea() > least && isInside(lost.getEnvelopeInternal(), box))
                .forEach(whole::add);
    }

    private static boolean isInside(Envelope inner, Envelope box) {
        return inner.getMinX() > box.getMinX()
                && inner.getMaxX() < box.getMaxX()
                && inner.getMinY() > box.getMinY()
                && inner.getMaxY() < box.getMaxY();
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
}
