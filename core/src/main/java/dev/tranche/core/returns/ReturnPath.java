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
 * @param turns whether it is a blend that turns, which are numbered apart
 * @param layer that is printed next, from 1
 * @param spool that was loaded
 * @param places it passes in straight lines, mm; at least two
 * @param tower how far along it meets the tower, mm; nothing where it does not
 * @param stains what it leads over before that, in their order
 */
public record ReturnPath(
        int swap,
        boolean turns,
        int layer,
        SpoolId spool,
        List<Coordinate> places,
        OptionalDouble tower,
        List<Stain> stains) {

    /** What grazes a tower for less is not wiped, mm. */
    private static final double WIPED = 2;

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
                    double at = done + met.get().from() * length;
                    List<Stain> before = stains.stream()
                            .filter(s -> s.from < at)
                            .map(s -> new Stain(s.copy, s.spool, s.from, Math.min(s.to, at)))
                            .toList();
                    return new ReturnPath(swap, turns, layer, spool, places, OptionalDouble.of(at), before);
                }
            }
            done += length;
        }
        return this;
    }

    /** Where a leg crosses a tower so far that it is wiped there, in its steps. */
    private static Optional<Span> met(MultiPolygon outline, Course leg) {
        return Section.spans(outline, leg).stream()
                .map(s -> new Span(Math.max(0, s.from()), Math.min(1, s.to())))
                .filter(s -> s.length() * leg.length() >= WIPED)
                .findFirst();
    }

    /** Its places up to where it first leads over plastic of another colour, or to its end. */
    List<Coordinate> untilStained() {
        return between(0, stains.isEmpty() ? length() : stains.get(0).from());
    }

    /** The piece of it between two places on it, mm from its start. */
    public List<Coordinate> between(double from, double to) {
        List<Coordinate> piece = new ArrayList<>();
        double done = 0;
        for (int i = 1; i < places.size(); i++) {
            double length = places.get(i - 1).distance(places.get(i));
            if (length > 0 && done + length > from && done < to) {
                Course leg = Course.between(places.get(i - 1), places.get(i));
                if (piece.isEmpty()) {
                    piece.add(leg.at(Math.max(0, from - done) / length));
                }
                piece.add(leg.at(Math.min(length, to - done) / length));
            }
            done += length;
        }
        return piece.isEmpty() ? List.of(start(), start()) : piece;
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
