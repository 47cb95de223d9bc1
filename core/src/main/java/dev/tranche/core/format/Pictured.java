package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.speech.Progress;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * Triangles that show pieces of pictures, cut up until each shows about one colour, or is no wider than a line of plastic. An edge
 * is cut in its middle, in both triangles that have it, so that what was closed stays closed.
 */
final class Pictured {
    /** Edges that are printed no longer than this stay whole, mm. */
    private static final double FINEST = 0.4;
    /** Colours of one triangle that differ by more, in any channel of 255, are several. */
    private static final int ALIKE = 48;
    /** A triangle is looked at in so many steps along its edges, or fewer. */
    private static final int MOST_STEPS = 16;

    private static final int FEWEST_STEPS = 3;
    /** Triangles of a model, beyond which nothing more is cut. */
    private static final int MOST = 1_000_000;
    /** So far out from its middle a triangle is looked at: what lies beside it on the picture does not count. */
    private static final double INSIDE = 0.96;

    private Pictured() {}

    /** An edge, whichever of its ends is named first. */
    private record Edge(float x0, float y0, int z0, float x1, float y1, int z1) {
        static Edge of(Corners of, int a, int b) {
            boolean inOrder =
                    of.x(a) != of.x(b) ? of.x(a) < of.x(b) : of.y(a) != of.y(b) ? of.y(a) < of.y(b) : of.z(a) < of.z(b);
            int one = inOrder ? a : b;
            int other = inOrder ? b : a;
            // Two zeros are one.
            return new Edge(of.x(one) + 0f, of.y(one) + 0f, of.z(one), of.x(other) + 0f, of.y(other) + 0f, of.z(other));
        }
    }

    /** The triangles, cut where they have to be. */
    static Corners cut(Corners given, Progress progress) {
        Corners corners = given;
        double finest = FINEST / Placement.AS_IS.toBeHeldByABed(given.longest()).scaleX();
        while (true) {
            Set<Edge> divided = new HashSet<>();
            long mixed = 0;
            for (int t = 0; t < corners.triangles(); t++) {
                beat(t, progress);
                if (isMixed(corners, t, finest)) {
                    mixed++;
                    for (int c = 0; c < 3; c++) {
                        if (length(corners, t, c) > finest) {
                            divided.add(edge(corners, t, c));
                        }
                    }
                }
            }
            // Each of those becomes four, and each of its neighbours two.
            if (divided.isEmpty() || corners.triangles() + 6 * mixed > MOST) {
                return corners;
            }
            corners = cut(corners, divided, progress);
        }
    }

    private static Corners cut(Corners corners, Set<Edge> divided, Progress progress) {
        Corners cut = corners.begun();
        boolean[] isCut = new boolean[3];
        for (int t = 0; t < corners.triangles(); t++) {
            beat(t, progress);
            int count = 0;
            for (int c = 0; c < 3; c++) {
                isCut[c] = divided.contains(edge(corners, t, c));
                count += isCut[c] ? 1 : 0;
            }
            // Named so that the first edge is cut, and of two the second too.
            int first = 0;
            while (count > 0 && !(isCut[first] && (count != 2 || isCut[(first + 1) % 3]))) {
                first++;
            }
            int a = 3 * t + first;
            int b = 3 * t + (first + 1) % 3;
            int c = 3 * t + (first + 2) % 3;
            switch (count) {
                case 0 -> cut.between(corners, a, a, b, b, c, c);
                case 1 -> {
                    cut.between(corners, a, a, a, b, c, c);
                    cut.between(corners, a, b, b, b, c, c);
                }
                case 2 -> {
                    cut.between(corners, a, b, b, b, b, c);
                    cut.between(corners, a, a, a, b, b, c);
                    cut.between(corners, a, a, b, c, c, c);
                }
                default -> {
                    cut.between(corners, a, a, a, b, c, a);
                    cut.between(corners, a, b, b, b, b, c);
                    cut.between(corners, c, a, b, c, c, c);
                    cut.between(corners, a, b, b, c, c, a);
                }
            }
        }
        return cut;
    }

    private static void beat(int t, Progress progress) {
        if ((t & 0xFFF) == 0) {
            progress.beat();
        }
    }

    private static Edge edge(Corners corners, int t, int c) {
        return Edge.of(corners, 3 * t + c, 3 * t + (c + 1) % 3);
    }

    /** Of the edge that begins at a corner, mm. */
    private static double length(Corners corners, int t, int c) {
        int a = 3 * t + c;
        int b = 3 * t + (c + 1) % 3;
        return Math.hypot(
                Math.hypot(corners.x(a) - corners.x(b), corners.y(a) - corners.y(b)),
                (corners.z(a) - corners.z(b)) / 1000.0);
    }

    private static boolean isMixed(Corners corners, int t, double finest) {
        if (corners.picture(t).isEmpty()) {
            return false;
        }
        double longest = Math.max(length(corners, t, 0), Math.max(length(corners, t, 1), length(corners, t, 2)));
        if (longest <= finest) {
            return false;
        }
        int[] seen = seen(corners, t, (int) Math.min(MOST_STEPS, Math.ceil(longest / finest) + 1));
        for (int shift = 0; shift <= 16; shift += 8) {
            int least = 255;
            int most = 0;
            for (int rgb : seen) {
                if ((rgb == Picture.PLAIN) != (seen[0] == Picture.PLAIN)) {
                    return true;
                }
                least = Math.min(least, rgb >> shift & 0xFF);
                most = Math.max(most, rgb >> shift & 0xFF);
            }
            if (most - least > ALIKE) {
                return true;
            }
        }
        return false;
    }

    /** What a triangle shows most of; empty if that is nothing. */
    static Optional<Srgb> colour(Corners corners, int t) {
        int[] seen = seen(corners, t, FEWEST_STEPS);
        Arrays.sort(seen);
        int most = seen[0];
        int length = 0;
        int from = 0;
        for (int i = 0; i < seen.length; i++) {
            from = seen[i] == seen[from] ? from : i;
            if (i - from + 1 > length) {
                most = seen[i];
                length = i - from + 1;
            }
        }
        return most == Picture.PLAIN
                ? Optional.empty()
                : Optional.of(new Srgb(most >> 16 & 0xFF, most >> 8 & 0xFF, most & 0xFF));
    }

    /** What a triangle shows at places spread evenly over it. */
    private static int[] seen(Corners corners, int t, int steps) {
        Picture picture = corners.picture(t).orElseThrow();
        int[] seen = new int[(steps + 1) * (steps + 2) / 2];
        int at = 0;
        for (int i = 0; i <= steps; i++) {
            for (int j = 0; i + j <= steps; j++) {
                double a = share(i, steps);
                double b = share(j, steps);
                double c = 1 - a - b;
                seen[at++] = picture.at(
                        a * corners.u(3 * t) + b * corners.u(3 * t + 1) + c * corners.u(3 * t + 2),
                        a * corners.v(3 * t) + b * corners.v(3 * t + 1) + c * corners.v(3 * t + 2));
            }
        }
        return seen;
    }

    private static double share(int step, int of) {
        return (1 - INSIDE) / 3 + INSIDE * step / of;
    }
}
