package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
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
    private final Rims rims;
    private final Overlay overlay;
    private final List<Rims.Crossing> crossings;
    /** Crossings in the order in which each area's rims come to them. */
    private final Stops first;

    private final Stops second;

    private RimWalk(Rims rims, Overlay overlay) {
        this.rims = rims;
        this.overlay = overlay;
        this.crossings = rims.crossings();
        this.first = new Stops(true);
        this.second = new Stops(false);
    }

    /** @return nothing where rims touch, or run along one another, or are too many */
    static Optional<MultiPolygon> of(Overlay overlay, MultiPolygon a, MultiPolygon b) {
        if (overlay == Overlay.EITHER) {
            return Optional.empty();
        }
        Rims rims = new Rims(a, b);
        return rims.crossPlainly() ? new RimWalk(rims, overlay).area() : Optional.empty();
    }

    /** The crossings on the rims of one area. */
    private final class Stops {
        private final boolean first;
        /** Crossings along the rims. */
        private final int[] order;
        /** Of each crossing its place among them. */
        private final int[] place = new int[crossings.size()];
        /** Of each crossing the rim it is on. */
        private final int[] on;

        Stops(boolean first) {
            this.first = first;
            Comparator<Integer> along = Comparator.comparingInt((Integer c) -> after(c))
                    .thenComparingDouble(
                            c -> rims.corner(after(c)).distance(crossings.get(c).where()));
            this.order = IntStream.range(0, crossings.size())
                    .boxed()
                    .sorted(along)
                    .mapToInt(c -> c)
                    .toArray();
            for (int i = 0; i < order.length; i++) {
                place[order[i]] = i;
            }
            this.on = IntStream.range(0, order.length)
                    .map(c -> rims.rim(after(c)))
                    .toArray();
        }

        /** The corner after which a crossing comes. */
        private int after(int crossing) {
            return crossings.get(crossing).on(first);
        }

        /** The one that comes next on the same rim, or before. */
        int next(int crossing, boolean forward) {
            int rim = on[crossing];
            int step = forward ? 1 : -1;
            int at = place[crossing] + step;
            if (at >= 0 && at < order.length && on[order[at]] == rim) {
                return order[at];
            }
            at = place[crossing];
            while (at - step >= 0 && at - step < order.length && on[order[at - step]] == rim) {
                at -= step;
            }
            return order[at];
        }

        /** Adds the corners from one crossing to the next. */
        void walk(List<Coordinate> ring, int from, int to, boolean forward) {
            if (!forward) {
                int begin = ring.size();
                walk(ring, to, from, true);
                Collections.reverse(ring.subList(begin, ring.size()));
                return;
            }
            int rim = on[from];
            int at = after(from);
            if (at == after(to) && place[from] < place[to]) {
                return;
            }
            do {
                at = at + 1 == rims.end(rim) ? rims.begin(rim) : at + 1;
                ring.add(rims.corner(at));
            } while (at != after(to));
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
        boolean[] crosses = new boolean[rims.count()];
        boolean[] walked = new boolean[crossings.size()];
        for (int c = 0; c < walked.length; c++) {
            crosses[first.on[c]] = true;
            crosses[second.on[c]] = true;
            if (!walked[c] && crossings.get(c).enters() == (overlay == Overlay.INTERSECTION)) {
                LinearRing ring = walk(c, walked);
                (Areas.windsRight(ring) ? shells : holes).add(ring);
            }
        }
        for (int rim = 0; rim < crosses.length; rim++) {
            boolean turned = overlay == Overlay.DIFFERENCE && !rims.isOfFirst(rim);
            boolean within = overlay == Overlay.INTERSECTION || turned;
            if (!crosses[rim] && rims.isWithinTheOther(rim) == within) {
                (rims.isHole(rim) == turned ? shells : holes).add(rims.ring(rim));
            }
        }
        return put(shells, holes);
    }

    private LinearRing walk(int start, boolean[] walked) {
        List<Coordinate> ring = new ArrayList<>();
        boolean forward = overlay != Overlay.DIFFERENCE;
        int at = start;
        do {
            walked[at] = true;
            ring.add(crossings.get(at).where());
            int change = first.next(at, true);
            first.walk(ring, at, change, true);
            ring.add(crossings.get(change).where());
            at = second.next(change, forward);
            second.walk(ring, change, at, forward);
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
