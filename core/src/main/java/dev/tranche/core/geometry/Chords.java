package dev.tranche.core.geometry;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.locationtech.jts.algorithm.Distance;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * The chords of an area on parallel lines, near enough to one another that a disc cannot pass between them: where no disc fits
 * into what two areas share, this is found here without laying them over one another.
 *
 * <p>A disc of radius r whose middle is within half a line's distance h/2 of a line holds of it, and of each other line k away,
 * a chord of at least 2 √(r² − (|k| h + h/2)²), all of them round the same X. So where there are no such chords, there is no
 * disc. Derived here; checked against JTS.
 */
public final class Chords {
    /** Lines to a radius. */
    private static final int LINES = 4;
    /** Cells that touch are one area, mm. */
    private static final double TOUCHING = 1e-6;
    /** Of places where a disc may fit. */
    private static final int TRIES = 40;
    /** Where so much larger a disc may fit, one of the radius nearly always does. */
    private static final double AMPLE = 1.4;
    /** Numbers that are kept of an area; of one that has more, a wide grille, nothing is told. */
    private static final int MOST = 200_000;
    /** Lines lie where no model has its edges, in steps. */
    private static final double ASIDE = 0.381_966;

    private final double radius;
    private final double step;
    /** The number of the lowest line. */
    private final int first;
    /** For each line, from the lowest up, where its chords begin and end, ascending. */
    private final double[][] ends;

    private Chords(double radius, int first, double[][] ends) {
        this.radius = radius;
        this.step = radius / LINES;
        this.first = first;
        this.ends = ends;
    }

    /** Half of the chords that a disc holds of the line at its middle, and of those 1, 2, … away. */
    private double[] halves(double radius) {
        double[] halves = new double[(int) Math.floor(radius / step + 0.5)];
        for (int k = 0; k < halves.length; k++) {
            double away = (k + 0.5) * step;
            halves[k] = Math.sqrt(radius * radius - away * away) - TOUCHING;
        }
        return halves;
    }

    /**
     * @param cells areas that do not overlap, mm
     * @param radius of the disc, mm
     * @return nothing for an area of too many chords to be looked at in that way
     */
    public static Optional<Chords> of(List<MultiPolygon> cells, double radius) {
        double step = radius / LINES;
        Envelope box = new Envelope();
        cells.forEach(c -> box.expandToInclude(c.getEnvelopeInternal()));
        if (box.isNull()) {
            return Optional.of(new Chords(radius, 0, new double[0][]));
        }
        double rises = cells.stream()
                .flatMap(Areas::polygons)
                .flatMap(Areas::rings)
                .mapToDouble(ring -> rise(ring.getCoordinateSequence()))
                .sum();
        if (box.getHeight() + rises > MOST * step) {
            return Optional.empty();
        }
        int first = (int) Math.ceil(box.getMinY() / step - ASIDE);
        int count = Math.max(0, (int) Math.floor(box.getMaxY() / step - ASIDE) - first + 1);
        Lines lines = new Lines(step, first, count);
        for (MultiPolygon cell : cells) {
            Areas.polygons(cell).flatMap(Areas::rings).forEach(ring -> lines.cross(ring.getCoordinateSequence()));
        }
        return Optional.of(new Chords(radius, first, lines.ends()));
    }

    /** How far an outline goes up and down, mm: it crosses a line at each step of it. */
    private static double rise(CoordinateSequence ring) {
        double rise = 0;
        for (int i = 1; i < ring.size(); i++) {
            rise += Math.abs(ring.getY(i) - ring.getY(i - 1));
        }
        return rise;
    }

    /** How many numbers are kept of it. */
    public int size() {
        return ends.length + Arrays.stream(ends).mapToInt(e -> e.length).sum();
    }

    /** Where lines are crossed by outlines. */
    private static final class Lines {
        private final double step;
        private final int first;
        private final double[][] crossings;
        private final int[] counts;

        Lines(double step, int first, int count) {
            this.step = step;
            this.first = first;
            this.crossings = new double[count][4];
            this.counts = new int[count];
        }

        void cross(CoordinateSequence ring) {
            for (int i = 1; i < ring.size(); i++) {
                boolean rises = ring.getY(i) > ring.getY(i - 1);
                // The same from both sides, so that cells that share an edge leave no gap.
                int low = rises ? i - 1 : i;
                int high = rises ? i : i - 1;
                double y = ring.getY(low);
                double slope = (ring.getX(high) - ring.getX(low)) / (ring.getY(high) - y);
                int last = Math.min(counts.length - 1, lineBelow(ring.getY(high)));
                for (int line = Math.max(0, lineBelow(y) + 1); line <= last; line++) {
                    add(line, ring.getX(low) + slope * (at(line) - y));
                }
            }
        }

        /** The highest line that is not above {@code y}. */
        private int lineBelow(double y) {
            return (int) Math.floor(y / step - ASIDE) - first;
        }

        private double at(int line) {
            return (first + line + ASIDE) * step;
        }

        private void add(int line, double x) {
            if (counts[line] == crossings[line].length) {
                crossings[line] = Arrays.copyOf(crossings[line], 2 * counts[line]);
            }
            crossings[line][counts[line]++] = x;
        }

        double[][] ends() {
            double[][] ends = new double[counts.length][];
            for (int line = 0; line < counts.length; line++) {
                ends[line] = joined(crossings[line], counts[line]);
            }
            return ends;
        }

        /** Chords that touch are one. */
        private static double[] joined(double[] crossings, int count) {
            Arrays.sort(crossings, 0, count);
            int n = 0;
            for (int i = 0; i + 1 < count; i += 2) {
                if (n > 0 && crossings[i] <= crossings[n - 1] + TOUCHING) {
                    crossings[n - 1] = crossings[i + 1];
                } else {
                    crossings[n++] = crossings[i];
                    crossings[n++] = crossings[i + 1];
                }
            }
            return Arrays.copyOf(crossings, n);
        }
    }

    /** Whether a disc fits into an area. */
    public enum Fit {
        NOWHERE,
        SOMEWHERE,
        /** What lies between the lines would have to be looked at. */
        UNKNOWN
    }

    /**
     * Whether a disc of the radius fits into what both areas share.
     *
     * @param other with the same radius
     * @param holds whether both areas hold a disc round a place
     */
    public Fit shared(Chords other, Predicate<Coordinate> holds) {
        if (other.radius != radius) {
            throw new IllegalArgumentException("chords for discs of " + radius + " and " + other.radius);
        }
        Shared shared = new Shared(this, other);
        Places first = new Places(1, holds);
        if (!shared.isAnyOf(first, halves(radius)) && first.tried == 0) {
            return Fit.NOWHERE;
        }
        boolean found = first.found
                || shared.isAnyOf(new Places(1, holds), halves(AMPLE * radius))
                || shared.isAnyOf(new Places(TRIES, holds), halves(radius));
        return found ? Fit.SOMEWHERE : Fit.UNKNOWN;
    }

    /** Places that are tried, not more than so many. */
    private static final class Places {
        private final int most;
        private final Predicate<Coordinate> holds;
        private int tried;
        private boolean found;

        Places(int most, Predicate<Coordinate> holds) {
            this.most = most;
            this.holds = holds;
        }

        /** Whether no more need be tried. */
        boolean tries(double x, double y) {
            tried++;
            found = holds.test(new Coordinate(x, y));
            return found || tried == most;
        }
    }

    /** The chords that two areas share, of the lines that both have. */
    private static final class Shared {
        private static final double[] NONE = {};

        private final Chords one;
        private final Chords other;
        private final int from;
        private final int to;
        private final double[][] found;

        Shared(Chords one, Chords other) {
            this.one = one;
            this.other = other;
            this.from = Math.max(one.first, other.first);
            this.to = Math.min(one.first + one.ends.length, other.first + other.ends.length);
            this.found = new double[Math.max(0, to - from)][];
        }

        /** Whether one of those about which there are such chords is a place that was sought. */
        boolean isAnyOf(Places places, double[] halves) {
            for (int line = from; line < to; line++) {
                double[] chords = on(line);
                for (int i = 0; i < chords.length; i += 2) {
                    double middle = about(line, 1, halves, chords[i] + halves[0], chords[i + 1] - halves[0]);
                    if (!Double.isNaN(middle) && places.tries(middle, (line + ASIDE) * one.step)) {
                        return places.found;
                    }
                }
            }
            return false;
        }

        /** The chords of one line. */
        double[] on(int line) {
            if (line < from || line >= to) {
                return NONE;
            }
            double[] known = found[line - from];
            if (known == null) {
                known = shared(one.ends[line - one.first], other.ends[line - other.first]);
                found[line - from] = known;
            }
            return known;
        }

        private static double[] shared(double[] a, double[] b) {
            double[] both = NONE;
            int n = 0;
            int i = 0;
            int j = 0;
            while (i < a.length && j < b.length) {
                double begin = Math.max(a[i], b[j]);
                double end = Math.min(a[i + 1], b[j + 1]);
                if (begin < end) {
                    if (n == both.length) {
                        both = Arrays.copyOf(both, Math.max(4, 2 * n));
                    }
                    both[n++] = begin;
                    both[n++] = end;
                }
                if (a[i + 1] < b[j + 1]) {
                    i += 2;
                } else {
                    j += 2;
                }
            }
            return n == both.length ? both : Arrays.copyOf(both, n);
        }

        /**
         * The X between {@code low} and {@code high} about which the lines round {@code line} have their chords; no number if
         * there is none.
         *
         * @param turn which of them is looked at: 1 above, −1 below, 2, −2, …
         */
        double about(int line, int turn, double[] halves, double low, double high) {
            if (low > high) {
                return Double.NaN;
            }
            int away = Math.abs(turn);
            if (away == halves.length) {
                return (low + high) / 2;
            }
            double half = halves[away];
            double[] chords = on(line + turn);
            for (int i = 0; i < chords.length && chords[i] + half <= high; i += 2) {
                double middle = about(
                        line,
                        turn > 0 ? -turn : away + 1,
                        halves,
                        Math.max(low, chords[i] + half),
                        Math.min(high, chords[i + 1] - half));
                if (!Double.isNaN(middle)) {
                    return middle;
                }
            }
            return Double.NaN;
        }
    }

    /** Whether a disc round {@code middle} lies wholly within {@code cell}, mm. */
    public static boolean holdsDisc(MultiPolygon cell, Coordinate middle, double radius) {
        return Areas.polygons(cell).anyMatch(p -> holdsDisc(p, middle, radius));
    }

    private static boolean holdsDisc(Polygon piece, Coordinate middle, double radius) {
        return piece.getEnvelopeInternal().contains(middle)
                && SimplePointInAreaLocator.isContained(middle, piece)
                && Areas.rings(piece)
                        .allMatch(r -> Distance.pointToSegmentString(middle, r.getCoordinates()) >= radius);
    }
}
