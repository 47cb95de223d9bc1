package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.algorithm.LineIntersector;
import org.locationtech.jts.algorithm.RobustLineIntersector;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * How the rims of two areas meet, or those of one.
 *
 * <p>Of two runs those halves are looked at of which the boxes meet, and so on until two lines are left.
 */
final class RimPairs {
    private static final int MOST_CROSSINGS = 1_000;
    /** Boxes looked at for each corner; more are of rims that follow one another closely. */
    private static final int MOST_LOOKS = 32;

    private static final int FEW_LOOKS = 10_000;

    /** Where the rim of one area crosses that of the other: after which corner of each, and whether it goes in there. */
    record Crossing(int first, int second, Coordinate where, boolean enters) {}

    private final Rims first;
    private final Rims second;
    private final double close;
    private final List<Crossing> crossings = new ArrayList<>();
    private int looks;

    private RimPairs(Rims first, Rims second) {
        this.first = first;
        this.second = second;
        this.close = Math.max(first.close(), second.close());
    }

    /** Whether no rim touches itself, nor another. */
    static boolean within(Rims rims) {
        RimPairs pairs = new RimPairs(rims, rims);
        int[] runs = rims.fromTheLeft();
        for (int i = 0; i < runs.length; i++) {
            for (int j = i + 1; j < runs.length && rims.reaches(runs[i], runs[j], pairs.close); j++) {
                if (rims.meet(runs[i], rims, runs[j], pairs.close) && !pairs.arePlain(runs[i], runs[j])) {
                    return false;
                }
            }
        }
        return true;
    }

    /**
     * Where rims cross, if all of them do so plainly: no corner, and no other crossing, all but lies on a line.
     *
     * @return nothing where they do not, or too often
     */
    static Optional<List<Crossing>> between(Rims first, Rims second) {
        if (!first.arePlain() || !second.arePlain()) {
            return Optional.empty();
        }
        RimPairs pairs = new RimPairs(first, second);
        return pairs.lookAtAll() && pairs.crossings.stream().allMatch(pairs::isAlone)
                ? Optional.of(pairs.crossings)
                : Optional.empty();
    }

    private boolean lookAtAll() {
        Envelope reach = second.area().getEnvelopeInternal();
        for (int run = 0; run < first.runs(); run++) {
            if (first.meets(run, reach, close)) {
                for (int other = 0; other < second.runs(); other++) {
                    if (first.meet(run, second, other, close) && !arePlain(run, other)) {
                        return false;
                    }
                }
            }
        }
        return true;
    }

    private boolean arePlain(int run, int other) {
        return arePlain(first.from(run), first.to(run), second.from(other), second.to(other));
    }

    /** Whether two stretches of runs meet nowhere, or cross plainly; crossings are noted. */
    private boolean arePlain(int a0, int a1, int b0, int b1) {
        if (!meet(first.corner(a0), first.corner(a1), second.corner(b0), second.corner(b1))) {
            return true;
        }
        if (++looks > FEW_LOOKS + MOST_LOOKS * (first.corners() + second.corners())) {
            return false;
        }
        if (a1 - a0 == 1 && b1 - b0 == 1) {
            return first == second ? isApart(a0, b0) : isPlain(a0, b0);
        }
        if (a1 - a0 >= b1 - b0) {
            int middle = (a0 + a1) >>> 1;
            return arePlain(a0, middle, b0, b1) && arePlain(middle, a1, b0, b1);
        }
        int middle = (b0 + b1) >>> 1;
        return arePlain(a0, a1, b0, middle) && arePlain(a0, a1, middle, b1);
    }

    private boolean meet(Coordinate a0, Coordinate a1, Coordinate b0, Coordinate b1) {
        return meet(a0.x, a1.x, b0.x, b1.x) && meet(a0.y, a1.y, b0.y, b1.y);
    }

    private boolean meet(double a0, double a1, double b0, double b1) {
        return Math.max(a0, a1) + close >= Math.min(b0, b1) && Math.max(b0, b1) + close >= Math.min(a0, a1);
    }

    /** Of two lines of one area, from a corner to the next. */
    private boolean isApart(int a, int b) {
        int rim = first.rim(a);
        if (rim == first.rim(b)) {
            if (b == a + 1 || a == b + 1) {
                return follow(Math.min(a, b), Math.max(a, b));
            }
            int begin = first.begin(rim);
            int last = first.end(rim) - 1;
            if (Math.min(a, b) == begin && Math.max(a, b) == last) {
                return follow(last, begin);
            }
        }
        return !comeClose(a, b) && !cross(a, b);
    }

    /** Whether a line, and the next one, do not turn back upon one another. */
    private boolean follow(int line, int next) {
        return !isNear(first.corner(line), first, next) && !isNear(first.corner(next + 1), first, line);
    }

    private boolean isPlain(int a, int b) {
        if (comeClose(a, b)) {
            return false;
        }
        if (!cross(a, b)) {
            return true;
        }
        if (crossings.size() == MOST_CROSSINGS) {
            return false;
        }
        LineIntersector at = new RobustLineIntersector();
        at.computeIntersection(first.corner(a), first.corner(a + 1), second.corner(b), second.corner(b + 1));
        crossings.add(new Crossing(a, b, at.getIntersection(0).copy(), side(first.corner(a + 1), second, b) < 0));
        return at.isProper();
    }

    /** Whether a corner of one of two lines all but lies on the other. */
    private boolean comeClose(int a, int b) {
        return isNear(first.corner(a), second, b)
                || isNear(first.corner(a + 1), second, b)
                || isNear(second.corner(b), first, a)
                || isNear(second.corner(b + 1), first, a);
    }

    private boolean cross(int a, int b) {
        return side(first.corner(a), second, b) > 0 != side(first.corner(a + 1), second, b) > 0
                && side(second.corner(b), first, a) > 0 != side(second.corner(b + 1), first, a) > 0;
    }

    private boolean isNear(Coordinate point, Rims rims, int line) {
        return Breaking.liesOn(point, rims.corner(line), rims.corner(line + 1), close);
    }

    /** Twice the area that a point makes with a line: above 0 on its left. */
    private static double side(Coordinate point, Rims rims, int line) {
        Coordinate from = rims.corner(line);
        Coordinate to = rims.corner(line + 1);
        return (to.x - from.x) * (point.y - from.y) - (to.y - from.y) * (point.x - from.x);
    }

    /** Whether a crossing is on no other line than its two. */
    private boolean isAlone(Crossing crossing) {
        return isAlone(crossing.where(), first, crossing.first())
                && isAlone(crossing.where(), second, crossing.second());
    }

    private boolean isAlone(Coordinate point, Rims rims, int on) {
        Envelope here = new Envelope(point);
        for (int run = 0; run < rims.runs(); run++) {
            if (rims.meets(run, here, close) && !isAlone(point, rims, on, rims.from(run), rims.to(run))) {
                return false;
            }
        }
        return true;
    }

    private boolean isAlone(Coordinate point, Rims rims, int on, int from, int to) {
        if (!meet(point, point, rims.corner(from), rims.corner(to))) {
            return true;
        }
        if (to - from == 1) {
            return from == on || !isNear(point, rims, from);
        }
        int middle = (from + to) >>> 1;
        return isAlone(point, rims, on, from, middle) && isAlone(point, rims, on, middle, to);
    }
}
