package dev.tranche.core.returns;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Course;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.machine.Bed;
import dev.tranche.core.machine.Point;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Layout;
import dev.tranche.core.plate.Room;
import dev.tranche.core.plate.Spot;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Looks for the place of a tower that most return paths meet before they lead over another colour: along those paths, lying, upright
 * or across them, and all over the bed where it helps none of them. Of places that are as good the one nearest to the print is
 * taken, since every layer goes there and back.
 */
final class TowerSearch {
    /** Places are tried so far apart, mm. */
    private static final double EACH = 4;
    /** So many different paths are looked at, the commonest first. */
    private static final int MOST_WAYS = 24;
    /** A way that crosses a tower so far meets it well, even where nobody places it to the millimetre, mm. */
    private static final double WELL = 8;
    /** What is thinner than that is met well where so much of it is crossed. */
    private static final double MOST_OF_IT = 0.9;
    /** What waits so near to a tower purges onto it, mm. */
    private static final double BESIDE = 3;

    private final Bed bed;
    private final Room room;
    private final List<Point> waits;
    private final Map<List<Coordinate>, Integer> ways;
    private final Coordinate print;

    TowerSearch(ReturnPaths paths, Layout layout, double gap, Bed bed) {
        this.bed = bed;
        this.room = new Room(layout, gap, bed);
        this.waits = paths.waits();
        this.ways = ways(paths);
        this.print = middle(layout);
    }

    /** What has to be met: of paths that are not clean without a tower, or of all where every one is. */
    private static Map<List<Coordinate>, Integer> ways(ReturnPaths paths) {
        List<ReturnPath> unclean = paths.unclean();
        Map<List<Coordinate>, Integer> all = new LinkedHashMap<>();
        (unclean.isEmpty() ? paths.paths() : unclean)
                .forEach(p -> all.merge(rounded(p.untilStained()), 1, Integer::sum));
        Map<List<Coordinate>, Integer> most = new LinkedHashMap<>();
        all.entrySet().stream()
                .sorted(Map.Entry.<List<Coordinate>, Integer>comparingByValue().reversed())
                .limit(MOST_WAYS)
                .forEach(e -> most.put(e.getKey(), e.getValue()));
        return most;
    }

    private static List<Coordinate> rounded(List<Coordinate> way) {
        return way.stream()
                .map(c -> new Coordinate(Math.rint(c.x * 20) / 20, Math.rint(c.y * 20) / 20))
                .toList();
    }

    private static Coordinate middle(Layout layout) {
        Envelope all = new Envelope();
        layout.copies().forEach(c -> all.expandToInclude(c.outline().getEnvelopeInternal()));
        return all.isNull() ? new Coordinate() : all.centre();
    }

    private record Candidate(Spot spot, int met, double away) {}

    /** Where a tower of that size stands best; nothing where it has no room. */
    Optional<Spot> best(double width, double depth) {
        return Stream.<Supplier<List<Spot>>>of(
                        this::along, () -> room.everywhere(Footprint.rectangle(width, depth), EACH)
                                .toList())
                .map(spots -> first(spots.get(), width, depth))
                .flatMap(Optional::stream)
                .findFirst();
    }

    /** What has no room anywhere is shown in the middle of the bed. */
    Spot bestOrNearest(double width, double depth) {
        Coordinate middle = bed.bounds().centre();
        return best(width, depth).orElse(new Spot(middle.x, middle.y, 0));
    }

    private Optional<Spot> first(List<Spot> spots, double width, double depth) {
        Footprint tower = Footprint.rectangle(width, depth);
        double well = Math.min(WELL, MOST_OF_IT * Math.min(width, depth));
        return spots.stream()
                .distinct()
                .filter(s -> room.seems(tower, s))
                .map(s -> new Candidate(s, met(tower.at(s), well), Math.hypot(s.x() - print.x, s.y() - print.y)))
                .sorted(Comparator.comparingInt((Candidate c) -> -c.met()).thenComparingDouble(Candidate::away))
                .map(Candidate::spot)
                .filter(s -> hasRoom(s, tower))
                .findFirst();
    }

    private List<Spot> along() {
        List<Spot> spots = new ArrayList<>();
        ways.keySet().forEach(way -> along(way, spots));
        return spots;
    }

    /** Lying, upright and across the way. */
    private static void along(List<Coordinate> way, List<Spot> spots) {
        for (int i = 1; i < way.size(); i++) {
            Coordinate from = way.get(i - 1);
            double length = from.distance(way.get(i));
            if (length == 0) {
                continue;
            }
            Course leg = Course.between(from, way.get(i));
            double across = Math.toDegrees(Math.atan2(leg.dy(), leg.dx())) + 90;
            for (double at = 0; at <= length; at += EACH) {
                Coordinate c = leg.at(at / length);
                for (double turn : new double[] {0, 90, Math.rint(across / 5) * 5}) {
                    spots.add(new Spot(Math.rint(c.x * 2) / 2, Math.rint(c.y * 2) / 2, turn));
                }
            }
        }
    }

    /** How many paths meet it. */
    private int met(MultiPolygon outline, double well) {
        return ways.entrySet().stream()
                .filter(e -> meets(outline, e.getKey(), well))
                .mapToInt(Map.Entry::getValue)
                .sum();
    }

    private static boolean meets(MultiPolygon outline, List<Coordinate> way, double well) {
        for (int i = 1; i < way.size(); i++) {
            if (way.get(i - 1).equals2D(way.get(i))) {
                continue;
            }
            Course leg = Course.between(way.get(i - 1), way.get(i));
            if (Section.spans(outline, leg).stream()
                    .anyMatch(s -> (Math.min(1, s.to()) - Math.max(0, s.from())) * leg.length() >= well)) {
                return true;
            }
        }
        return false;
    }

    private boolean hasRoom(Spot spot, Footprint tower) {
        return room.has(tower, spot) && waits.stream().noneMatch(w -> isBeside(w, tower.at(spot)));
    }

    private static boolean isBeside(Point wait, MultiPolygon outline) {
        return outline.isWithinDistance(
                Areas.NOTHING.getFactory().createPoint(new Coordinate(wait.x(), wait.y())), BESIDE);
    }
}
