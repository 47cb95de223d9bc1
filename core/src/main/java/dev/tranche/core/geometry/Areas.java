package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.distance.IndexedFacetDistance;

/**
 * Algebra of areas in the plane, mm, by JTS; pieces that cannot meet are never overlaid.
 *
 * <p>Input must be valid; output is valid. What remains of an edge that two areas share may differ from it by the
 * rounding of a {@code double}, and corners that come closer than 1e-11 mm (3e-14 of how far from the origin they lie) are one.
 */
public final class Areas {
    public static final MultiPolygon NOTHING = Section.PLANE.createMultiPolygon();

    /** Less is how overlays round, mm². */
    public static final double SPECK = 1e-7;

    /** Pieces that lie across another area before one stops to look for others. */
    private static final int FEW = 4;

    private Areas() {}

    /**
     * Areas are gathered into a few groups in which none can meet another, and the groups are overlaid: for many that
     * overlap only their neighbours that is far less work than one after the other.
     */
    public static MultiPolygon union(List<MultiPolygon> areas) {
        List<MultiPolygon> groups =
                groups(areas.stream().filter(a -> !a.isEmpty()).toList());
        return groups.isEmpty() ? NOTHING : pairwise(groups);
    }

    private static MultiPolygon pairwise(List<MultiPolygon> groups) {
        int half = groups.size() / 2;
        return half == 0
                ? groups.get(0)
                : Overlay.UNION.of(pairwise(groups.subList(0, half)), pairwise(groups.subList(half, groups.size())));
    }

    private static List<MultiPolygon> groups(List<MultiPolygon> areas) {
        List<List<MultiPolygon>> groups = new ArrayList<>();
        for (MultiPolygon area : areas) {
            Envelope box = area.getEnvelopeInternal();
            groups.stream()
                    .filter(g ->
                            g.stream().noneMatch(o -> o.getEnvelopeInternal().intersects(box)))
                    .findFirst()
                    .orElseGet(() -> {
                        groups.add(new ArrayList<>());
                        return groups.get(groups.size() - 1);
                    })
                    .add(area);
        }
        return groups.stream().map(Areas::together).toList();
    }

    /** Areas that do not meet as one. */
    public static MultiPolygon together(List<MultiPolygon> apart) {
        if (apart.size() == 1) {
            return apart.get(0);
        }
        List<Polygon> all = new ArrayList<>();
        apart.forEach(a -> addTo(all, a));
        return of(all);
    }

    public static MultiPolygon intersection(MultiPolygon a, MultiPolygon b) {
        return a.getNumGeometries() < b.getNumGeometries()
                ? pieceByPiece(b, a, Overlay.INTERSECTION)
                : pieceByPiece(a, b, Overlay.INTERSECTION);
    }

    /** What of {@code a} is not in {@code b}; pieces that {@code b} comes nowhere near are kept as they are. */
    public static MultiPolygon difference(MultiPolygon a, MultiPolygon b) {
        return pieceByPiece(a, b, Overlay.DIFFERENCE);
    }

    /**
     * Pieces of one area lie apart, so that what lies wholly beside or properly inside the other need not be overlaid. To look for
     * such pieces costs about as much as to overlay them all, and is given up where most are none.
     */
    private static MultiPolygon pieceByPiece(MultiPolygon a, MultiPolygon b, Overlay overlay) {
        boolean keeps = overlay == Overlay.DIFFERENCE;
        MultiPolygon near = around(b, a.getEnvelopeInternal());
        if (near.isEmpty()) {
            return keeps ? a : NOTHING;
        }
        if (a.getNumGeometries() == 1) {
            return overlay.of(keeps ? a : around(a, near.getEnvelopeInternal()), near);
        }
        Sheet other = new Sheet(near);
        List<Polygon> all = new ArrayList<>();
        List<Polygon> across = new ArrayList<>();
        for (int i = 0; i < a.getNumGeometries(); i++) {
            Polygon piece = (Polygon) a.getGeometryN(i);
            boolean worth = a.getNumGeometries() > FEW && across.size() < FEW + i / 2;
            switch (worth ? other.lie(piece) : other.mayMeet(piece)) {
                case INSIDE -> addIf(!keeps, all, piece);
                case BESIDE -> addIf(keeps, all, piece);
                case CROSSING -> across.add(piece);
            }
        }
        if (all.size() == a.getNumGeometries()) {
            return a;
        }
        if (!across.isEmpty()) {
            MultiPolygon together = across.size() == a.getNumGeometries() ? a : of(across);
            addTo(all, overlay.of(together, around(near, together.getEnvelopeInternal())));
        }
        return of(all);
    }

    private static void addIf(boolean kept, List<Polygon> all, Polygon piece) {
        if (kept) {
            all.add(piece);
        }
    }

    /** The pieces of an area. */
    public static Stream<Polygon> polygons(MultiPolygon area) {
        return IntStream.range(0, area.getNumGeometries()).mapToObj(i -> (Polygon) area.getGeometryN(i));
    }

    /** Length of all its outlines, mm: as JTS has it, which guards against lengths that no print has at ten times the cost. */
    public static double perimeter(MultiPolygon area) {
        return polygons(area).mapToDouble(Areas::perimeter).sum();
    }

    /** As {@link #perimeter(MultiPolygon)}. */
    public static double perimeter(Polygon piece) {
        return rings(piece).mapToDouble(Areas::perimeter).sum();
    }

    /** Size of an area, mm²: to the bit as JTS has it, which makes each corner anew at several times the cost. */
    public static double size(MultiPolygon area) {
        double size = 0;
        for (int i = 0; i < area.getNumGeometries(); i++) {
            size += size((Polygon) area.getGeometryN(i));
        }
        return size;
    }

    /** As {@link #size(MultiPolygon)}. */
    public static double size(Polygon piece) {
        double size = Math.abs(signed(piece.getExteriorRing()));
        for (int i = 0; i < piece.getNumInteriorRing(); i++) {
            size -= Math.abs(signed(piece.getInteriorRingN(i)));
        }
        return size;
    }

    /** Whether a ring has what it goes round on its right. */
    static boolean windsRight(LinearRing ring) {
        return signed(ring) > 0;
    }

    /** Above 0 where it winds to the right. */
    private static double signed(LinearRing ring) {
        CoordinateSequence corners = ring.getCoordinateSequence();
        int count = corners.size();
        if (count < 3) {
            return 0;
        }
        double first = corners.getX(0);
        double sum = 0;
        for (int i = 1; i < count - 1; i++) {
            sum += (corners.getX(i) - first) * (corners.getY(i - 1) - corners.getY(i + 1));
        }
        return sum / 2;
    }

    /** The outline of a piece, and those of its holes. */
    public static Stream<LinearRing> rings(Polygon piece) {
        return Stream.concat(
                Stream.of(piece.getExteriorRing()),
                IntStream.range(0, piece.getNumInteriorRing()).mapToObj(piece::getInteriorRingN));
    }

    private static double perimeter(LinearRing ring) {
        CoordinateSequence corners = ring.getCoordinateSequence();
        double length = 0;
        for (int i = 1; i < corners.size(); i++) {
            double dx = corners.getX(i) - corners.getX(i - 1);
            double dy = corners.getY(i) - corners.getY(i - 1);
            length += Math.sqrt(dx * dx + dy * dy);
        }
        return length;
    }

    /** Whether an area comes within {@code distance} mm of the rim of another. */
    public static boolean nearTheRim(MultiPolygon inside, MultiPolygon area, double distance) {
        for (int i = 0; i < inside.getNumGeometries(); i++) {
            Geometry rim = inside.getGeometryN(i).getBoundary();
            Envelope reach = new Envelope(rim.getEnvelopeInternal());
            reach.expandBy(distance);
            MultiPolygon near = near(area, reach);
            if (!near.isEmpty() && IndexedFacetDistance.isWithinDistance(near.getBoundary(), rim, distance)) {
                return true;
            }
        }
        return false;
    }

    /** What of an area matters to what lies within {@code reach}: its pieces there, without holes elsewhere. */
    private static MultiPolygon around(MultiPolygon area, Envelope reach) {
        List<Polygon> pieces = new ArrayList<>();
        boolean all = true;
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon piece = (Polygon) area.getGeometryN(i);
            if (piece.getEnvelopeInternal().intersects(reach)) {
                LinearRing[] holes = rings(piece)
                        .skip(1)
                        .filter(hole -> hole.getEnvelopeInternal().intersects(reach))
                        .toArray(LinearRing[]::new);
                boolean whole = holes.length == piece.getNumInteriorRing();
                pieces.add(whole ? piece : Section.PLANE.createPolygon(piece.getExteriorRing(), holes));
                all &= whole;
            }
        }
        return all && pieces.size() == area.getNumGeometries() ? area : of(pieces);
    }

    /** Those pieces of an area whose boxes meet {@code reach}. */
    public static MultiPolygon near(MultiPolygon area, Envelope reach) {
        List<Polygon> near = polygons(area)
                .filter(p -> p.getEnvelopeInternal().intersects(reach))
                .toList();
        return near.size() == area.getNumGeometries() ? area : of(near);
    }

    /**
     * {@code area} less {@code inside}, all of which lies properly within it: as a rule only rings have to be gathered.
     */
    public static MultiPolygon punched(MultiPolygon area, MultiPolygon inside) {
        List<List<LinearRing>> holes = new ArrayList<>();
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon polygon = (Polygon) area.getGeometryN(i);
            List<LinearRing> own = new ArrayList<>();
            for (int r = 0; r < polygon.getNumInteriorRing(); r++) {
                own.add(polygon.getInteriorRingN(r));
            }
            holes.add(own);
        }
        List<Polygon> islands = new ArrayList<>();
        for (int i = 0; i < inside.getNumGeometries(); i++) {
            Polygon piece = (Polygon) inside.getGeometryN(i);
            for (int r = 0; r < piece.getNumInteriorRing(); r++) {
                LinearRing island = piece.getInteriorRingN(r);
                if (holds(island.getEnvelopeInternal(), inside, piece)
                        || anyMeets(holes, island.getEnvelopeInternal())) {
                    return difference(area, inside);
                }
                islands.add(Section.PLANE.createPolygon(island));
            }
            holes.get(holder(area, piece)).add(piece.getExteriorRing());
        }
        for (int i = 0; i < area.getNumGeometries(); i++) {
            Polygon polygon = (Polygon) area.getGeometryN(i);
            islands.add(Section.PLANE.createPolygon(
                    polygon.getExteriorRing(), holes.get(i).toArray(LinearRing[]::new)));
        }
        return of(islands);
    }

    private static boolean holds(Envelope island, MultiPolygon inside, Polygon itself) {
        for (int i = 0; i < inside.getNumGeometries(); i++) {
            if (inside.getGeometryN(i) != itself
                    && island.intersects(inside.getGeometryN(i).getEnvelopeInternal())) {
                return true;
            }
        }
        return false;
    }

    private static boolean anyMeets(List<List<LinearRing>> holes, Envelope island) {
        return holes.stream()
                .anyMatch(h -> h.stream().anyMatch(r -> r.getEnvelopeInternal().intersects(island)));
    }

    private static int holder(MultiPolygon area, Polygon piece) {
        int at = 0;
        while (at < area.getNumGeometries() - 1
                && SimplePointInAreaLocator.locate(piece.getCoordinate(), area.getGeometryN(at)) == Location.EXTERIOR) {
            at++;
        }
        return at;
    }

    /** Without pieces so small that only rounding leaves them. */
    public static MultiPolygon clean(MultiPolygon area) {
        List<Polygon> kept = polygons(area).filter(p -> size(p) > SPECK).toList();
        return kept.size() == area.getNumGeometries() ? area : of(kept);
    }

    /** What is in one of two areas and not in the other. */
    public static MultiPolygon either(MultiPolygon a, MultiPolygon b) {
        return Overlay.EITHER.of(a, b);
    }

    /** Whatever is made of polygons as one; lines and points that an operation left are dropped. */
    public static MultiPolygon of(Geometry geometry) {
        return Section.polygonsOf(geometry);
    }

    /** Polygons that do not overlap as one. */
    public static MultiPolygon of(List<Polygon> apart) {
        return apart.isEmpty() ? NOTHING : Section.PLANE.createMultiPolygon(apart.toArray(Polygon[]::new));
    }

    static void addTo(List<Polygon> all, MultiPolygon area) {
        polygons(area).forEach(all::add);
    }
}
