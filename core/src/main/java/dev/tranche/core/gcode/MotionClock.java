package dev.tranche.core.gcode;

import dev.tranche.core.machine.Motion;
import java.util.Arrays;

/**
 * How long moves take on a machine that looks ahead.
 *
 * <p>Each move is a trapezoid of speed: up from its entry speed with acceleration a, along at the asked speed v,
 * down to its exit speed. From rest to rest a length L takes L/v + v/a, or 2√(L/a) where v²/a &gt; L. The speed
 * through a corner is limited by the junction deviation δ: v² = a δ s / (1 − s) with s = sin(θ/2) and θ the
 * angle between the two lines (common practice in open firmware). Moves queue until it is certain that no later
 * one can be felt: those before the last move whose entry is not limited by braking are final.
 *
 * <p>Times are summed by a number the caller gives with each move, here a layer's. Not for two threads.
 */
public final class MotionClock {
    private static final int LONGEST_QUEUE = 1 << 16;

    private final Motion motion;
    private double[] length = new double[512];
    private double[] speed = new double[512];
    private double[] acceleration = new double[512];
    /** Square of the speed the corner before the move allows. */
    private double[] corner = new double[512];
    /** Square of the speed at which the move is entered, given the moves known. */
    private double[] entry = new double[512];

    private int[] account = new int[512];
    private int size;
    private double lastCap;
    private double lastAcceleration;
    private double straightEnough;
    private double ux;
    private double uy;
    private double uz;
    private double[] seconds = new double[64];

    public MotionClock(Motion motion) {
        this.motion = motion;
    }

    /**
     * Queues a move.
     *
     * @param dx mm, as {@code dy}, {@code dz} and {@code de}
     * @param path mm along the path; 0 where only the extruder turns
     * @param chord mm from end to end; less than {@code path} on an arc
     * @param asked mm/s
     * @param a mm/s², 0 for the printer's own
     * @param to the account its time is summed under, from 0
     */
    public void move(
            double dx, double dy, double dz, double de, double path, double chord, double asked, double a, int to) {
        boolean turnsOnly = path == 0;
        double l = turnsOnly ? Math.abs(de) : path;
        if (l <= 1e-9) {
            return;
        }
        if (size == length.length) {
            makeRoom();
        }
        double acc = a > 0 ? a : motion.acceleration();
        double v = asked;
        double through = 0;
        if (turnsOnly) {
            ux = 0;
            uy = 0;
            uz = 0;
        } else {
            v = v < motion.travelSpeed() ? v : motion.travelSpeed();
            if (dz != 0) {
                v = Math.min(v, motion.liftSpeed() * l / Math.abs(dz));
            }
            double inverse = chord > 0 ? 1 / chord : 0;
            double nx = dx * inverse;
            double ny = dy * inverse;
            double nz = dz * inverse;
            if (size > 0 && (ux != 0 || uy != 0 || uz != 0)) {
                through = corner(ux * nx + uy * ny + uz * nz, Math.min(speed[size - 1], v), acc);
            }
            ux = nx;
            uy = ny;
            uz = nz;
        }
        length[size] = l;
        speed[size] = v;
        acceleration[size] = acc;
        corner[size] = through;
        account[size] = to;
        size++;
    }

    /** Queues the move of the line that {@code done} has just obeyed. */
    public void move(Controller done, int to) {
        move(
                done.dx(),
                done.dy(),
                done.dz(),
                done.de(),
                done.length(),
                done.chord(),
                done.speed(),
                done.acceleration(),
                to);
    }

    /**
     * Square of the speed through a corner, at most {@code cap}².
     *
     * @param straightness cosine of the turn: 1 straight on, −1 back the way it came
     */
    private double corner(double straightness, double cap, double acc) {
        if (cap != lastCap || acc != lastAcceleration) {
            lastCap = cap;
            lastAcceleration = acc;
            // From v² = a δ s/(1 − s): the s at which the corner allows cap, and the turn that has it.
            double s = cap * cap / (acc * motion.junctionDeviation() + cap * cap);
            straightEnough = 2 * s * s - 1;
        }
        if (straightness >= straightEnough) {
            return cap * cap;
        }
        double s = Math.sqrt(Math.max(0, 0.5 * (1 + straightness)));
        return Math.min(cap * cap, acc * motion.junctionDeviation() * s / (1 - s));
    }

    /** The machine comes to rest and stays so for a while, s. */
    public void pause(double forSeconds, int to) {
        stop();
        add(to, forSeconds);
    }

    /** The machine comes to rest: all queued moves become final. */
    public void stop() {
        brake();
        settle(size);
        ux = 0;
        uy = 0;
        uz = 0;
    }

    /** Seconds summed under {@code account}; complete after {@link #stop()}. */
    public double seconds(int of) {
        return of < seconds.length ? seconds[of] : 0;
    }

    /** Seconds of all accounts; complete after {@link #stop()}. */
    public double total() {
        double sum = 0;
        for (double s : seconds) {
            sum += s;
        }
        return sum;
    }

    /** Settles what is certain, or, where braking reaches back over half the queue, lengthens it. */
    private void makeRoom() {
        int certain = brake();
        if (certain >= size / 2 || size >= LONGEST_QUEUE) {
            settle(Math.max(certain, size / 2));
            return;
        }
        length = Arrays.copyOf(length, 2 * size);
        speed = Arrays.copyOf(speed, 2 * size);
        acceleration = Arrays.copyOf(acceleration, 2 * size);
        corner = Arrays.copyOf(corner, 2 * size);
        entry = Arrays.copyOf(entry, 2 * size);
        account = Arrays.copyOf(account, 2 * size);
    }

    /**
     * From the last move back, how fast each may be entered for the machine to be at rest at the end.
     *
     * @return how many moves from the first no later move can change
     */
    private int brake() {
        int certain = 0;
        double exit = 0;
        for (int i = size - 1; i >= 0; i--) {
            double reachable = exit + 2 * acceleration[i] * length[i];
            if (certain == 0 && corner[i] <= reachable) {
                certain = i;
            }
            exit = corner[i] < reachable ? corner[i] : reachable;
            entry[i] = exit;
        }
        return certain;
    }

    /**
     * Adds up the first {@code n} moves, whose entries {@link #brake} has set: each a trapezoid between the speeds
     * at its ends.
     */
    private void settle(int n) {
        double in = entry[0];
        double start = Math.sqrt(in);
        for (int i = 0; i < n; i++) {
            double a = acceleration[i];
            double l = length[i];
            double v = speed[i];
            double reachable = in + 2 * a * l;
            double out = i + 1 == size ? 0 : entry[i + 1] < reachable ? entry[i + 1] : reachable;
            double end = out == in ? start : Math.sqrt(out);
            double peak2 = a * l + 0.5 * (in + out);
            double peak = peak2 >= v * v ? v : Math.sqrt(peak2);
            double inverse = 1 / a;
            double along = l - (peak * peak - 0.5 * (in + out)) * inverse;
            add(account[i], (2 * peak - start - end) * inverse + (along > 0 ? along / peak : 0));
            in = out;
            start = end;
        }
        if (n < size) {
            entry[n] = in;
        }
        int left = size - n;
        System.arraycopy(length, n, length, 0, left);
        System.arraycopy(speed, n, speed, 0, left);
        System.arraycopy(acceleration, n, acceleration, 0, left);
        System.arraycopy(corner, n, corner, 0, left);
        System.arraycopy(account, n, account, 0, left);
        if (left > 0) {
            corner[0] = entry[n];
        }
        size = left;
    }

    private void add(int to, double s) {
        if (to >= seconds.length) {
            seconds = Arrays.copyOf(seconds, Math.max(to + 1, 2 * seconds.length));
        }
        seconds[to] += s;
    }
}
