package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.ToIntFunction;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.PointLocation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * What two areas laid over one another make, found by walking along their rims and changing from one to the other where they
 * cross.
 *
 * <p>Only where rims cross plainly, as nearly all do: then nothing is rounded but the places of crossings, and corners are those
 * that a general overlay gives. Source of the method: G. Greiner, K. Hormann, "Efficient clipping of arbitrary polygons", ACM
 * Transactions on Graphics 17 (1998), from memory; checked against JTS.
 */
final class RimWalk {
    private final Overlay overlay;
    private final List<RimPairs.Crossing> crossings;
    private final Stops first;
    private final Stops second;

    private RimWalk(Overlay overlay, Rims first, Rims second, List<RimPairs.Crossing> crossings) {
        this.overlay = overlay;
        this.crossings = crossings;
        this.first = new Stops(first, RimPairs.Crossing::first);
        this.second = new Stops(second, RimPairs.Crossing::second);
    }

    /** @return nothing where rims touch, or run along one another, or are too many */
    static Optional<MultiPolygon> of(Overlay overlay, Rims first, Rims second) {
        return overlay == Overlay.EITHER
                ? Optional.empty()
                : RimPairs.between(first, second).flatMap(c -> new RimWalk(overlay, first, second, c).area());
    }

    /** The crossings in the order in which the rims of one area come to them. */
    private final class Stops {
        private final Rims rims;
        /** Of each crossing the corner that it comes after. */
        private final int[] after;

        private final int[] order;
        /** Of each crossing its place in the order. */
        private final int[] place;
        /** Of each crossing the rim it is on. */
        private final int[] on;

        Stops(Rims rims, ToIntFunction<RimPairs.Crossing> corner) {
            this.rims = rims;
            this.after = crossings.stream().mapToInt(corner).toArray();
            this.on = IntStream.of(after).map(rims::rim).toArray();
            this.order = IntStream.range(0, after.length)
                    .boxed()
                    .sorted(Comparator.comparingInt((Integer c) -> after[c])
                            .thenComparingDouble(c -> rims.corner(after[c])
                                    .distance(crossings.get(c).where())))
                    .mapToInt(c -> c)
                    .toArray();
            this.place = new int[order.length];
            for (int i = 0; i < order.length; i++) {
                place[order[i]] = i;
            }
        }

        /** The one that comes next on the same rim, or before. */
        int next(int crossing, boolean forward) {
            int step = forward ? 1 : -1;
            int at = place[crossing];
            if (isOn(on[crossing], at + step)) {
                return order[at + step];
            }
            while (isOn(on[crossing], at - step)) {
                at -= step;
            }
            return order[at];
        }

        private boolean isOn(int rim, int at) {
            return at >= 0 && at < order.length && on[order[at]] == rim;
        }

        /** Adds the corners from one crossing to the next. */
        void walk(List<Coordinate> ring, int from, int to) {
            int at = after[from];
            if (at == after[to] && place[from] < place[to]) {
                return;
            }
            do {
                at = at + 1 == rims.end(on[from]) ? rims.begin(on[from]) : at + 1;
                ring.add(rims.corner(at));
            } while (at != after[to]);
        }

        void walkBack(List<Coordinate> ring, int from, int to) {
            int begin = ring.size();
            walk(ring, to, from);
            Collections.reverse(ring.subList(begin, ring.size()));
        }

        /** Whether rims go in and out by turns. */
        boolean alternate() {
            return IntStream.range(0, order.length)
                    .allMatch(c -> crossings.get(c).enters()
                            != crossings.get(next(c, true)).enters());
        }
    }

    private Optional<MultiPolygon> area() {
        if (!first.alternate() || !second.alternate()) {
            return Optional.empty();
        }
        List<LinearRing> shells = new ArrayList<>();
        List<LinearRing> holes = new ArrayList<>();
        boolean[] walked = new boolean[crossings.size()];
        for (int c = 0; c < walked.length; c++) {
            if (!walked[c] && crossings.get(c).enters() == (overlay == Overlay.INTERSECTION)) {
                LinearRing ring = walk(c, walked);
                (Areas.windsRight(ring) ? shells : holes).add(ring);
            }
        }
        boolean turned = overlay == Overlay.DIFFERENCE;
        addWhole(first, second.rims, overlay == Overlay.INTERSECTION, false, shells, holes);
        addWhole(second, first.rims, overlay != Overlay.UNION, turned, shells, holes);
        return put(shells, holes);
    }

    /** Rims that cross none, and lie within the other area, or not. */
    private static void addWhole(
            Stops stops, Rims other, boolean within, boolean turned, List<LinearRing> shells, List<LinearRing> holes) {
        Rims rims = stops.rims;
        boolean[] crosses = new boolean[rims.count()];
        for (int rim : stops.on) {
            crosses[rim] = true;
        }
        for (int rim = 0; rim < crosses.length; rim++) {
            if (!crosses[rim] && other.hold(rims.corner(rims.begin(rim))) == within) {
                (rims.isHole(rim) == turned ? shells : holes).add(rims.ring(rim));
            }
        }
    }

    private LinearRing walk(int start, boolean[] walked) {
        List<Coordinate> ring = new ArrayList<>();
        int at = start;
        do {
            walked[at] = true;
            ring.add(crossings.get(at).where());
            int change = first.next(at, true);
            first.walk(ring, at, change);
            ring.add(crossings.get(change).where());
            at = second.next(change, overlay != Overlay.DIFFERENCE);
            if (overlay == Overlay.DIFFERENCE) {
                second.walkBack(ring, change, at);
            } else {
                second.walk(ring, change, at);
            }
        } while (at != start);
        ring.add(crossings.get(start).where());
        return Section.PLANE.createLinearRing(ring.toArray(Coordinate[]::new));
    }

    /** Each hole in the smallest outline round it. */
    private static Optional<MultiPolygon> put(List<LinearRing> shells, List<LinearRing> holes) {
        List<List<LinearRing>> within = new ArrayList<>();
        shells.forEach(s -> within.add(new ArrayList<>()));
        for (LinearRing hole : holes) {
            int holder = -1;
            for (int s = 0; s < shells.size(); s++) {
                boolean smaller = holder < 0
                        || shells.get(holder)
                                .getEnvelopeInternal()
                                .covers(shells.get(s).getEnvelopeInternal());
                if (smaller && holds(shells.get(s), hole)) {
                    holder = s;
                }
            }
            if (holder < 0) {
                return Optional.empty();
            }
            within.get(holder).add(hole);
        }
        return Optional.of(Areas.of(IntStream.range(0, shells.size())
                .mapToObj(s ->
                        Section.PLANE.createPolygon(shells.get(s), within.get(s).toArray(LinearRing[]::new)))
                .toList()));
    }

    private static boolean holds(LinearRing shell, LinearRing hole) {
        return shell.getEnvelopeInternal().covers(hole.getEnvelopeInternal())
                && PointLocation.isInRing(hole.getCoordinateN(0), shell.getCoordinates());
    }
}
