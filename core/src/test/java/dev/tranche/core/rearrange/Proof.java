package dev.tranche.core.rearrange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import dev.tranche.core.handoff.PlainMachine;
import dev.tranche.core.handoff.PlainMachine.Move;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * That two files print the same, by brute force: an interpreter that shares no code with the core, and every line against every
 * line.
 */
public final class Proof {
    private static final double STEP = 0.25;
    /** Lines whose middles are nearer lie over one another, mm. */
    private static final double OVER = 0.15;

    private static final double NEAR = 0.0015;

    private Proof() {}

    static void holds(byte[] original, byte[] other) {
        for (boolean together : List.of(false, true)) {
            List<Move> as = PlainMachine.moves(original, together);
            List<Move> is = PlainMachine.moves(other, together);
            samePlastic(laid(as), laid(is));
            nothingUnderPlastic(is);
            onWhatItRestedOn(laid(as), laid(is));
        }
    }

    /** That nothing of a file, its swaps among it, leads through plastic. */
    public static void standsFree(byte[] file) {
        nothingUnderPlastic(PlainMachine.moves(file, false));
    }

    private static List<Move> laid(List<Move> moves) {
        return moves.stream().filter(Move::lays).toList();
    }

    /**
     * The same lines by the same tools, with as much filament, as far drawn back before, with fans and accelerations as they were. What a
     * tool pushes out before it prints anything, though nothing was drawn back, may be less by the same for all its lines.
     */
    private static void samePlastic(List<Move> as, List<Move> is) {
        assertThat(is).hasSameSizeAs(as);
        List<Move> a = sorted(as);
        List<Move> b = sorted(is);
        Map<String, Double> less = new HashMap<>();
        for (int i = 0; i < a.size(); i++) {
            Move one = a.get(i);
            Move other = b.get(i);
            assertThat(other.tool()).isEqualTo(one.tool());
            double spared = less.computeIfAbsent(one.tool(), t -> one.net() - other.net());
            assertThat(spared).isBetween(-2e-3, Math.max(0, one.net()) + 2e-3);
            assertThat(List.of(
                            Math.abs(one.fromX() - other.fromX()) < NEAR,
                            Math.abs(one.fromY() - other.fromY()) < NEAR,
                            Math.abs(one.fromZ() - other.fromZ()) < NEAR,
                            Math.abs(one.toX() - other.toX()) < NEAR,
                            Math.abs(one.toY() - other.toY()) < NEAR,
                            Math.abs(one.toZ() - other.toZ()) < NEAR,
                            Math.abs(one.filament() - other.filament()) < 2e-5 * 25.4,
                            Math.abs(one.drawn() - other.drawn()) < 2e-4,
                            Math.abs(one.net() - other.net() - spared) < 2e-3,
                            one.said().equals(other.said())))
                    .as("%s and %s", one, other)
                    .doesNotContain(false);
        }
    }

    private static List<Move> sorted(List<Move> moves) {
        return moves.stream()
                .sorted(Comparator.comparing(Move::tool)
                        .thenComparing(m -> Math.rint(m.toZ() * 100))
                        .thenComparing(m -> Math.rint(m.fromX() * 100))
                        .thenComparing(m -> Math.rint(m.fromY() * 100))
                        .thenComparing(m -> Math.rint(m.toX() * 100))
                        .thenComparing(m -> Math.rint(m.toY() * 100)))
                .toList();
    }

    /** No line of plastic, and no way, leads through plastic that stands higher by then. */
    private static void nothingUnderPlastic(List<Move> moves) {
        List<Move> stands = new ArrayList<>();
        for (Move m : moves) {
            for (Move s : stands) {
                if (m.lowest() < s.toZ() - 0.01 && meets(m, s, m.lays() ? OVER : 0.2)) {
                    fail("%s leads through %s", m, s);
                }
            }
            if (m.lays()) {
                stands.add(m);
            }
        }
    }

    private static boolean meets(Move m, Move s, double near) {
        int steps = 1 + (int) (m.length() / STEP);
        for (int i = 0; i <= steps; i++) {
            double x = m.fromX() + (m.toX() - m.fromX()) * i / steps;
            double y = m.fromY() + (m.toY() - m.fromY()) * i / steps;
            if (distance(x, y, s) < near) {
                return true;
            }
        }
        return false;
    }

    /** What rested on plastic of the layer beneath finds it printed. */
    private static void onWhatItRestedOn(List<Move> as, List<Move> is) {
        for (int i = 0; i < is.size(); i++) {
            Move m = is.get(i);
            for (int s = 0; s <= 2; s++) {
                double x = m.fromX() + (m.toX() - m.fromX()) * s / 2;
                double y = m.fromY() + (m.toY() - m.fromY()) * s / 2;
                boolean rested = as.stream().anyMatch(o -> isBeneath(m, o) && distance(x, y, o) < 0.2);
                if (rested) {
                    assertThat(is.subList(0, i).stream().anyMatch(o -> isBeneath(m, o) && distance(x, y, o) < 0.2))
                            .as("%s rests on what is printed", m)
                            .isTrue();
                }
            }
        }
    }

    private static boolean isBeneath(Move m, Move o) {
        return o.toZ() < m.toZ() - 0.05 && o.toZ() > m.toZ() - 0.35;
    }

    private static double distance(double x, double y, Move line) {
        double dx = line.toX() - line.fromX();
        double dy = line.toY() - line.fromY();
        double length = dx * dx + dy * dy;
        double t = length == 0
                ? 0
                : Math.max(0, Math.min(1, ((x - line.fromX()) * dx + (y - line.fromY()) * dy) / length));
        return Math.hypot(x - line.fromX() - t * dx, y - line.fromY() - t * dy);
    }
}
