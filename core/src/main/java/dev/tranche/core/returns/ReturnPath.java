package dev.tranche.core.returns;

import dev.tranche.core.geometry.Course;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.plan.SpoolId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * The way of the nozzle from where it waited at a swap to the first plastic of the new colour.
 *
 * @param swap its number, from 1
 * @param layer that is printed next, from 1
 * @param spool that was loaded
 * @param places it passes in straight lines, mm; at least two
 * @param tower how far along it meets the tower, mm; nothing where it does not
 * @param stains what it leads over before that, in their order
 */
public record ReturnPath(
        int swap, int layer, SpoolId spool, List<Coordinate> places, OptionalDouble tower, List<Stain> stains) {

    public ReturnPath {
        places = List.copyOf(places);
        stains = List.copyOf(stains);
    }

    /**
     * Plastic of another colour that is seen from above and that a path leads over.
     *
     * @param copy from 0
     * @param spool whose plastic it is
     * @param from how far along the path, mm, as {@code to}
     */
    public record Stain(int copy, SpoolId spool, double from, double to) {
        public double length() {
            return to - from;
        }
    }

    /** The same past a tower: what comes after it is wiped off there. */
    ReturnPath past(MultiPolygon outline) {
        double done = 0;
        for (int i = 1; i < places.size(); i++) {
            double length = places.get(i - 1).distance(places.get(i));
            if (length > 0) {
                Optional<Span> met = met(outline, Course.between(places.get(i - 1), places.get(i)));
                if (met.isPresent()) {
                    double at = done + Math.max(0, met.get().from()) * length;
                    List<Stain> before = stains.stream()
                            .filter(s -> s.from < at)
                            .map(s -> new Stain(s.copy, s.spool, s.from, Math.min(s.to, at)))
                            .toList();
                    return new ReturnPath(swap, layer, spool, places, OptionalDouble.of(at), before);
                }
            }
            done += length;
        }
        return this;
    }

    private static Optional<Span> met(MultiPolygon outline, Course leg) {
        return Section.spans(outline, leg).stream()
                .filter(s -> s.to() > 0 && s.from() < 1)
                .findFirst();
    }

    /** Its places up to where it first leads over plastic of another colour, or to its end. */
    List<Coordinate> untilStained() {
        double until = stains.isEmpty() ? Double.MAX_VALUE : stains.get(0).from();
        List<Coordinate> way = new ArrayList<>(List.of(start()));
        double done = 0;
        for (int i = 1; i < places.size() && done < until; i++) {
            double length = places.get(i - 1).distance(places.get(i));
            way.add(
                    length > until - done
                            ? Course.between(places.get(i - 1), places.get(i)).at((until - done) / length)
                            : places.get(i));
            done += length;
        }
        return way;
    }

    /** Whether it meets the tower first, or no plastic of another colour. */
    public boolean isClean() {
        return stains.isEmpty();
    }

    /** mm. */
    public double length() {
        double length = 0;
        for (int i = 1; i < places.size(); i++) {
            length += places.get(i - 1).distance(places.get(i));
        }
        return length;
    }

    /** Where the nozzle waited. */
    public Coordinate start() {
        return places.get(0);
    }

    /** Where the new colour begins. */
    public Coordinate end() {
        return places.get(places.size() - 1);
    }

    /** mm of plastic of another colour that it leads over. */
    public double stained() {
        return stains.stream().mapToDouble(Stain::length).sum();
    }
}
