package dev.tranche.core.plate;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.operation.distance.IndexedFacetDistance;

/**
 * A plate on a bed.
 *
 * @param copies that stand on it
 * @param withoutRoom how many more were wanted
 * @param tooNear pairs that stand nearer than the plate's gap
 * @param margin that is left free along the edge of the bed, mm
 */
public record Layout(List<Copy> copies, int withoutRoom, List<Pair> tooNear, double margin) {
    /** Of what the gap may be less, mm: rounding. */
    static final double NEAR = 1e-6;
    /** So many pairs are told. */
    private static final int MOST_PAIRS = 200;
    /** Places of a tower are tried so far apart, mm. */
    private static final double STEP = 8;

    private static final int DIRECTIONS = 8;
    /** Corners of which the outermost need not be found first. */
    private static final int FEW = 8;

    public Layout {
        copies = List.copyOf(copies);
        tooNear = List.copyOf(tooNear);
    }

    /**
     * One of them.
     *
     * @param outline as it stands, mm
     * @param beyond whether it, with what is drawn round it, reaches beyond the bed
     */
    public record Copy(Spot spot, MultiPolygon outline, boolean beyond) {}

    /** Two copies, from 0, and how far they are apart, mm; 0 where they overlap. */
    public record Pair(int one, int other, double apart) {}

    /** Without a tower. */
    public static Layout of(Plate plate, Footprint footprint, Bed bed) {
        return of(plate, footprint, bed, Optional.empty());
    }

    /** @param tower what it covers, if there is one: copies that are arranged leave it room */
    public static Layout of(Plate plate, Footprint footprint, Bed bed, Optional<Footprint> tower) {
        List<Spot> spots = plate.byHand().isEmpty() ? arranged(plate, footprint, bed, tower) : plate.byHand();
        if (spots.isEmpty()) {
            // What is larger than the bed is shown where it would stand.
            Coordinate middle = bed.bounds().centre();
            spots = List.of(new Spot(middle.x, middle.y, 0));
        }
        double margin = plate.rims().margin();
        List<Copy> copies = copies(spots, footprint, bed, margin);
        return new Layout(copies, plate.copies() - copies.size(), near(copies, plate.room()), margin);
    }

    private static List<Spot> arranged(Plate plate, Footprint footprint, Bed bed, Optional<Footprint> tower) {
        Optional<MultiPolygon> placed = tower.flatMap(t -> plate.tower().map(t::at));
        List<Spot> spots = Arranging.on(bed, footprint, plate, placed.orElse(Areas.NOTHING));
        if (tower.isEmpty() || placed.isPresent()) {
            return spots;
        }
        double margin = plate.rims().margin();
        Layout layout = new Layout(copies(spots, footprint, bed, margin), 0, List.of(), margin);
        if (new Room(layout, plate.room(), bed).hasAnywhere(tower.get(), STEP)) {
            return spots;
        }
        // Rather at the rim than not at all, unless that costs copies.
        return atTheRim(tower.get(), bed, margin)
                .map(taken -> Arranging.on(bed, footprint, plate, taken))
                .filter(others -> others.size() >= spots.size())
                .findFirst()
                .orElse(spots);
    }

    private static Stream<MultiPolygon> atTheRim(Footprint tower, Bed bed, double margin) {
        Coordinate middle = bed.bounds().centre();
        return IntStream.range(0, 2 * DIRECTIONS)
                .mapToObj(i -> {
                    double angle = 2 * Math.PI * (i / 2) / DIRECTIONS;
                    double away = bed.bounds().getDiameter() / 2 - margin;
                    MultiPolygon outline;
                    do {
                        away -= STEP;
                        outline = tower.at(new Spot(
                                middle.x
                                        + clamped(
                                                away * Math.cos(angle),
                                                bed.bounds().getWidth(),
                                                tower,
                                                i,
                                                true),
                                middle.y
                                        + clamped(
                                                away * Math.sin(angle),
                                                bed.bounds().getHeight(),
                                                tower,
                                                i,
                                                false),
                                90 * (i % 2)));
                    } while (away > 0 && isBeyond(outline, bed, margin));
                    return outline;
                })
                .filter(outline -> !isBeyond(outline, bed, margin));
    }

    /** No further than the bed is. */
    private static double clamped(double away, double side, Footprint tower, int i, boolean across) {
        Envelope box = tower.turned(90 * (i % 2));
        double most = Math.max(0, (side - (across ? box.getWidth() : box.getHeight())) / 2);
        return Math.max(-most, Math.min(most, away));
    }

    /** Copies that stand where a sliced file has them: whether they have room is its program's to say. */
    public static Layout standing(List<Spot> spots, Footprint footprint, Bed bed) {
        return new Layout(copies(spots, footprint, bed, 0), 0, List.of(), 0);
    }

    /** With another copy printed before the rest. */
    public Layout startingWith(int copy) {
        List<Copy> others = new ArrayList<>(copies);
        others.add(0, others.remove(copy));
        return new Layout(others, withoutRoom, List.of(), margin);
    }

    private static List<Copy> copies(List<Spot> spots, Footprint footprint, Bed bed, double margin) {
        return spots.stream()
                .map(s -> {
                    MultiPolygon outline = footprint.at(s);
                    return new Copy(s, outline, isBeyond(outline, bed, margin));
                })
                .toList();
    }

    /** Whether it comes nearer to the edge of the bed than {@code margin}, mm. */
    static boolean isBeyond(MultiPolygon outline, Bed bed, double margin) {
        Envelope box = bed.bounds();
        Geometry hull = outline.getNumPoints() > FEW ? outline.convexHull() : outline;
        Geometry rim = margin > 0 ? hull.buffer(margin) : hull;
        for (Coordinate c : rim.getCoordinates()) {
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
                        || apart == 0 && Areas.intersection(outline, other).getArea() > NEAR) {
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
