package dev.tranche.core.plate;

import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.operation.distance.IndexedFacetDistance;

/**
 * A plate on a bed.
 *
 * @param copies that stand on it
 * @param withoutRoom how many more were wanted
 * @param tooNear pairs that stand nearer than the plate's gap
 */
public record Layout(List<Copy> copies, int withoutRoom, List<Pair> tooNear) {
    /** Of what the gap may be less, mm: rounding. */
    private static final double NEAR = 1e-6;
    /** So many pairs are told. */
    private static final int MOST_PAIRS = 200;

    public Layout {
        copies = List.copyOf(copies);
        tooNear = List.copyOf(tooNear);
    }

    /**
     * One of them.
     *
     * @param outline as it stands, mm
     * @param beyond whether it reaches beyond the bed
     */
    public record Copy(Spot spot, MultiPolygon outline, boolean beyond) {}

    /** Two copies, from 0, and how far they are apart, mm; 0 where they overlap. */
    public record Pair(int one, int other, double apart) {}

    public static Layout of(Plate plate, Footprint footprint, Bed bed) {
        List<Spot> spots =
                plate.byHand().isEmpty() ? Arranging.on(bed, footprint, plate.copies(), plate.gap()) : plate.byHand();
        if (spots.isEmpty()) {
            // What is larger than the bed is shown where it would stand.
            Coordinate middle = bed.bounds().centre();
            spots = List.of(new Spot(middle.x, middle.y, 0));
        }
        List<Copy> copies = spots.stream()
                .map(s -> {
                    MultiPolygon outline = footprint.at(s);
                    return new Copy(s, outline, isBeyond(outline, bed));
                })
                .toList();
        return new Layout(copies, plate.copies() - copies.size(), near(copies, plate.gap()));
    }

    private static boolean isBeyond(MultiPolygon outline, Bed bed) {
        Envelope box = bed.bounds();
        for (Coordinate c : outline.convexHull().getCoordinates()) {
            double x = c.x + (c.x < box.centre().x ? NEAR : -NEAR);
            double y = c.y + (c.y < box.centre().y ? NEAR : -NEAR);
            if (!bed.contains(new Point(x, y))) {
                return true;
            }
        }
        return false;
    }

    private static List<Pair> near(List<Copy> copies, double gap) {
        List<Pair> pairs = new ArrayList<>();
        for (int i = 0; i < copies.size(); i++) {
            Envelope around = new Envelope(copies.get(i).outline().getEnvelopeInternal());
            around.expandBy(gap);
            IndexedFacetDistance distance = null;
            for (int j = i + 1; j < copies.size() && pairs.size() < MOST_PAIRS; j++) {
                MultiPolygon other = copies.get(j).outline();
                if (!around.intersects(other.getEnvelopeInternal())) {
                    continue;
                }
                distance = distance == null
                        ? new IndexedFacetDistance(copies.get(i).outline())
                        : distance;
                MultiPolygon outline = copies.get(i).outline();
                double apart = outline.intersects(other) ? 0 : distance.distance(other);
                // What touches does not overlap.
                if (apart < gap - NEAR
                        || apart == 0 && outline.intersection(other).getArea() > NEAR) {
                    pairs.add(new Pair(i, j, apart));
                }
            }
        }
        return pairs;
    }

    /** Where each copy stands. */
    public List<Spot> spots() {
        return copies.stream().map(Copy::spot).toList();
    }

    /** Whether a copy stands over a place on the bed. */
    public boolean covers(Point place) {
        Coordinate at = new Coordinate(place.x(), place.y());
        return copies.stream().anyMatch(c -> SimplePointInAreaLocator.isContained(at, c.outline()));
    }

    public boolean isNear(int copy) {
        return tooNear.stream().anyMatch(p -> p.one() == copy || p.other() == copy);
    }
}
