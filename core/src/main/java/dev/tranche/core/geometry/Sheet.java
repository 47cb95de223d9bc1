package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.RectangleLineIntersector;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.hprtree.HPRtree;

/**
 * An area on which others are laid again and again, mm; it is indexed when first asked for. Most that is laid on it lies wholly
 * within or beside it: only what crosses its rim is overlaid, and what that left is remembered for the next that crosses it alike.
 */
public final class Sheet {
    /** To look at so many costs less than to ask an index. */
    private static final int FEW_CORNERS = 100;

    private final MultiPolygon outline;
    private final PreparedGeometry[] pieces;
    private final HPRtree boxes = new HPRtree();
    private volatile Rims rims;
    private Trimmed trimmed = new Trimmed(Areas.NOTHING, Areas.NOTHING);

    /** What of the sheet is left without what crosses its rim. */
    private record Trimmed(MultiPolygon crossing, MultiPolygon left) {}

    /** @param outline valid, with its pieces apart */
    public Sheet(MultiPolygon outline) {
        this.outline = outline;
        this.pieces = new PreparedGeometry[outline.getNumGeometries()];
        for (int i = 0; i < pieces.length; i++) {
            boxes.insert(outline.getGeometryN(i).getEnvelopeInternal(), i);
        }
        boxes.build();
    }

    public MultiPolygon outline() {
        return outline;
    }

    /** How a piece lies on the sheet. */
    enum Lie {
        INSIDE,
        CROSSING,
        BESIDE
    }

    /** As {@link #lie}, told by boxes alone: what may lie on the sheet crosses its rim. */
    Lie mayMeet(Polygon piece) {
        return boxes.query(piece.getEnvelopeInternal()).isEmpty() ? Lie.BESIDE : Lie.CROSSING;
    }

    /** Whether any of the sheet lies in a box, or on its rim. */
    public boolean meets(Envelope box) {
        return lie(outline.getFactory().toGeometry(box)) != Lie.BESIDE;
    }

    /** Of {@code piece} all, some or nothing lies on the sheet; what touches its rim crosses it. */
    Lie lie(Geometry piece) {
        for (Object near : boxes.query(piece.getEnvelopeInternal())) {
            int at = (int) near;
            int whole = wholeBox(piece.getEnvelopeInternal(), (Polygon) outline.getGeometryN(at));
            if (whole == Location.INTERIOR
                    || whole == Location.BOUNDARY && piece(at).containsProperly(piece)) {
                return Lie.INSIDE;
            }
            if (whole == Location.BOUNDARY && piece(at).intersects(piece)) {
                return Lie.CROSSING;
            }
        }
        return Lie.BESIDE;
    }

    /** Whether all of a box lies in a piece of few corners, or beside it; on its boundary where that is not told by the box alone. */
    private static int wholeBox(Envelope box, Polygon here) {
        if (here.getNumPoints() > FEW_CORNERS) {
            return Location.BOUNDARY;
        }
        RectangleLineIntersector crossing = new RectangleLineIntersector(box);
        boolean crossed = Areas.rings(here).anyMatch(ring -> {
            CoordinateSequence corners = ring.getCoordinateSequence();
            return IntStream.range(1, corners.size())
                    .anyMatch(i -> crossing.intersects(corners.getCoordinate(i - 1), corners.getCoordinate(i)));
        });
        return crossed
                ? Location.BOUNDARY
                : SimplePointInAreaLocator.locatePointInPolygon(new Coordinate(box.getMinX(), box.getMinY()), here);
    }

    /** What of an area does not lie wholly on the sheet, off its rim: pieces as they are. */
    public MultiPolygon notWithin(MultiPolygon area) {
        List<Polygon> others =
                Areas.polygons(area).filter(piece -> lie(piece) != Lie.INSIDE).toList();
        return others.size() == area.getNumGeometries() ? area : Areas.of(others);
    }

    private Rims rims() {
        if (rims == null) {
            rims = new Rims(outline);
        }
        return rims;
    }

    private PreparedGeometry piece(int i) {
        if (pieces[i] == null) {
            pieces[i] = PreparedGeometryFactory.prepare(outline.getGeometryN(i));
        }
        return pieces[i];
    }

    /** What of an area lies on the sheet: the very area where all of it does, and does not touch the rim. */
    public MultiPolygon within(MultiPolygon area) {
        Laid laid = laid(area);
        if (laid.inside.size() == area.getNumGeometries()) {
            return area;
        }
        List<Polygon> all = new ArrayList<>(laid.inside);
        if (!laid.crossing.isEmpty()) {
            MultiPolygon crossing = Areas.of(laid.crossing);
            Areas.addTo(
                    all,
                    RimWalk.of(Overlay.INTERSECTION, rims(), new Rims(crossing))
                            .orElseGet(() -> Areas.intersection(crossing, outline)));
        }
        return Areas.of(all);
    }

    /** What of the sheet no area lies on: the very sheet where it lies beside it. */
    public MultiPolygon without(MultiPolygon area) {
        Laid laid = laid(area);
        List<Polygon> holes = new ArrayList<>();
        for (Polygon piece : laid.inside) {
            (laid.comesNearRim(piece) ? laid.crossing : holes).add(piece);
        }
        MultiPolygon left = laid.crossing.isEmpty() ? outline : trimmed(Areas.of(laid.crossing));
        return holes.isEmpty() ? left : Areas.punched(left, Areas.of(holes));
    }

    private MultiPolygon trimmed(MultiPolygon crossing) {
        Trimmed last = trimmed;
        if (!last.crossing.equalsExact(crossing)) {
            last = new Trimmed(crossing, less(crossing));
            trimmed = last;
        }
        return last.left;
    }

    /** Where several pieces cannot be walked together, one may be alone. */
    private MultiPolygon less(MultiPolygon crossing) {
        return RimWalk.of(Overlay.DIFFERENCE, rims(), new Rims(crossing))
                .orElseGet(() -> pieces.length == 1
                        ? Overlay.DIFFERENCE.byJts(outline, crossing)
                        : Areas.difference(outline, crossing));
    }

    private Laid laid(MultiPolygon area) {
        Laid laid = new Laid(new ArrayList<>(), new ArrayList<>());
        if (area.getEnvelopeInternal().intersects(outline.getEnvelopeInternal())) {
            for (int i = 0; i < area.getNumGeometries(); i++) {
                Polygon piece = (Polygon) area.getGeometryN(i);
                switch (lie(piece)) {
                    case INSIDE -> laid.inside.add(piece);
                    case CROSSING -> laid.crossing.add(piece);
                    case BESIDE -> {}
                }
            }
        }
        return laid;
    }

    /** What of an area lies within the sheet, off its rim, and what crosses that. */
    private record Laid(List<Polygon> inside, List<Polygon> crossing) {
        /** Whether a piece inside may touch one that crosses the rim. */
        boolean comesNearRim(Polygon piece) {
            return crossing.stream().anyMatch(c -> c.getEnvelopeInternal().intersects(piece.getEnvelopeInternal()));
        }
    }
}
