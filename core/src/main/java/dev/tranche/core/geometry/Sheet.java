package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;

/**
 * An area on which others are laid again and again, mm; it is indexed when first asked for. Most that is laid on it lies wholly
 * within or beside it: only what crosses its rim is overlaid, and what that left is remembered for the next that crosses it alike.
 */
public final class Sheet {
    private final MultiPolygon outline;
    private final PreparedGeometry[] pieces;
    private volatile Rims rims;
    private Trimmed trimmed = new Trimmed(Areas.NOTHING, Areas.NOTHING);

    /** What of the sheet is left without what crosses its rim. */
    private record Trimmed(MultiPolygon crossing, MultiPolygon left) {}

    /** @param outline valid, with its pieces apart */
    public Sheet(MultiPolygon outline) {
        this.outline = outline;
        this.pieces = new PreparedGeometry[outline.getNumGeometries()];
    }

    public MultiPolygon outline() {
        return outline;
    }

    /** How a piece lies on the sheet. */
    private enum Lie {
        INSIDE,
        CROSSING,
        BESIDE
    }

    private Lie lie(Polygon piece) {
        Envelope box = piece.getEnvelopeInternal();
        for (int i = 0; i < pieces.length; i++) {
            Envelope here = outline.getGeometryN(i).getEnvelopeInternal();
            if (here.covers(box) && piece(i).containsProperly(piece)) {
                return Lie.INSIDE;
            }
            if (here.intersects(box) && piece(i).intersects(piece)) {
                return Lie.CROSSING;
            }
        }
        return Lie.BESIDE;
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
