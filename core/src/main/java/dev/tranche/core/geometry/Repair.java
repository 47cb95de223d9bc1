package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * A mesh put right as far as that can be done without guessing, and what was done.
 *
 * <p>Triangles without area go. Within each shell, triangles that face against their neighbours are turned, so that
 * the shell agrees with the larger part of its area; a shell as a whole is never turned, since one inside another may
 * be a cavity, unless every shell is inside out. Holes whose rim is at most {@value #LONGEST_RIM} edges long, and a
 * third as wide as the model, are closed by a fan from the middle of their rim; larger ones stay, to be closed by
 * sections and shown.
 *
 * @param mesh as it is now
 * @param labels of its triangles, those that close a hole as one beside it; none where none were given
 * @param report what was found and done
 */
public record Repair(Mesh mesh, int[] labels, Report report) {
    private static final int LONGEST_RIM = 200;
    private static final double WIDEST = 1.0 / 3;

    /**
     * What was found in a mesh, and what was put right.
     *
     * @param found before anything was done
     * @param dropped triangles without area
     * @param turned triangles that faced against their neighbours
     * @param insideOut whether the whole model was turned
     * @param closed holes
     * @param left edges that still have a triangle on one side only
     */
    public record Report(Topology found, int dropped, int turned, boolean insideOut, int closed, int left) {
        /** Whether anything had to be done. */
        public boolean done() {
            return dropped > 0 || turned > 0 || insideOut || closed > 0;
        }

        /** What was found and done in both. */
        public Report plus(Report other) {
            return new Report(
                    found.plus(other.found),
                    dropped + other.dropped,
                    turned + other.turned,
                    insideOut || other.insideOut,
                    closed + other.closed,
                    left + other.left);
        }
    }

    public static Repair of(Mesh mesh) {
        return of(mesh, Work.NONE, Progress.UNHEARD);
    }

    private static Repair of(Mesh mesh, int[] labels, Progress progress) {
        int[] welded = mesh.welded(progress);
        Topology topology = Topology.of(mesh, welded, progress);
        if (topology.closed() && topology.degenerate() == 0 && mesh.volume() >= 0) {
            return new Repair(mesh, labels, new Report(topology, 0, 0, false, 0, 0));
        }
        return new Work(mesh, labels, welded, progress).repair(topology);
    }

    /**
     * A shell that was found sound when it was taken out of its model needs no looking over.
     *
     * @param progress learns that the work goes on, and may stop it
     */
    public static Repair of(Shells.Shell shell, Progress progress) {
        if (!shell.sound()) {
            return of(shell.mesh(), shell.labels(), progress);
        }
        double area = 0;
        for (int c = 0; c < 3 * shell.mesh().triangles(); c += 3) {
            area += shell.mesh().area(c);
        }
        return new Repair(
                shell.mesh(), shell.labels(), new Report(new Topology(1, 0, 0, 0, 0, area), 0, 0, false, 0, 0));
    }

    /** The work on one mesh: triangles as welded corners, three each. */
    private static final class Work {
        private static final int[] NONE = {};

        private final Mesh mesh;
        private final Progress progress;
        private int[] triangles;
        private int[] labels;
        private Edges edges;
        /** Corners that close holes: x, y in mm and z in µm, numbered on from the mesh's. */
        private final List<double[]> added = new ArrayList<>();

        Work(Mesh mesh, int[] labels, int[] welded, Progress progress) {
            this.mesh = mesh;
            this.labels = labels.clone();
            this.progress = progress;
            this.triangles = withoutDegenerate(welded);
        }

        private int[] withoutDegenerate(int[] welded) {
            int[] kept = new int[welded.length];
            int n = 0;
            for (int c = 0; c < welded.length; c += 3) {
                int a = welded[c];
                int b = welded[c + 1];
                int d = welded[c + 2];
                if (a != b && b != d && a != d) {
                    if (labels.length > 0) {
                        labels[n / 3] = labels[c / 3];
                    }
                    kept[n++] = a;
                    kept[n++] = b;
                    kept[n++] = d;
                }
            }
            labels = labels.length > 0 ? Arrays.copyOf(labels, n / 3) : labels;
            return Arrays.copyOf(kept, n);
        }

        Repair repair(Topology found) {
            int dropped = mesh.triangles() - triangles.length / 3;
            edges = new Edges(triangles, progress);
            int turned = turn();
            edges = turned > 0 ? new Edges(triangles, progress) : edges;
            int closed = close();
            edges = new Edges(triangles, progress);
            boolean insideOut = volume() < 0;
            if (insideOut) {
                for (int t = 0; t < triangles.length; t += 3) {
                    flip(t / 3);
                }
            }
            int left = 0;
            for (int e = 0; e < triangles.length; e++) {
                left += edges.twin(e) == Edges.NONE ? 1 : 0;
            }
            return new Repair(built(), labels, new Report(found, dropped, turned, insideOut, closed, left));
        }

        /** Turns triangles shell by shell; answers how many. */
        private int turn() {
            int count = triangles.length / 3;
            byte[] side = new byte[count];
            int turned = 0;
            for (int seed = 0; seed < count; seed++) {
                if ((seed & 0xFFFF) == 0) {
                    progress.beat();
                }
                if (side[seed] == 0) {
                    turned += agree(seed, side);
                }
            }
            return turned;
        }

        /** Walks one shell from {@code seed}, which counts as right, then turns the smaller part by area. */
        private int agree(int seed, byte[] side) {
            List<Integer> shell = new ArrayList<>();
            ArrayDeque<Integer> next = new ArrayDeque<>();
            side[seed] = 1;
            next.add(seed);
            double right = 0;
            double wrong = 0;
            while (!next.isEmpty()) {
                int t = next.poll();
                shell.add(t);
                right += side[t] > 0 ? area(t) : 0;
                wrong += side[t] < 0 ? area(t) : 0;
                for (int e = 3 * t; e < 3 * t + 3; e++) {
                    int twin = edges.twin(e);
                    if (twin >= 0 && side[twin / 3] == 0) {
                        boolean sameWay = edges.from(e) == edges.from(twin);
                        side[twin / 3] = (byte) (sameWay ? -side[t] : side[t]);
                        next.add(twin / 3);
                    }
                }
            }
            int turned = 0;
            for (int t : shell) {
                if (side[t] > 0 != right >= wrong) {
                    flip(t);
                    turned++;
                }
            }
            return turned;
        }

        private void flip(int t) {
            int keep = triangles[3 * t + 1];
            triangles[3 * t + 1] = triangles[3 * t + 2];
            triangles[3 * t + 2] = keep;
        }

        /** Closes what holes may be closed; answers how many. */
        private int close() {
            int[] onward = new int[3 * mesh.triangles()];
            int[] beside = new int[labels.length > 0 ? onward.length : 0];
            Arrays.fill(onward, Edges.NONE);
            for (int e = 0; e < triangles.length; e++) {
                if (edges.twin(e) == Edges.NONE) {
                    // The rim runs against the triangle's own edge; a corner where two rims meet is left alone.
                    int to = edges.to(e);
                    onward[to] = onward[to] == Edges.NONE ? edges.from(e) : Edges.CROWDED;
                    if (beside.length > 0) {
                        beside[to] = labels[e / 3];
                    }
                }
            }
            double widest = WIDEST
                    * Math.max(
                            mesh.height().millimetres(),
                            Math.max(
                                    mesh.footprint().getWidth(),
                                    mesh.footprint().getHeight()));
            int closed = 0;
            List<int[]> fans = new ArrayList<>();
            int[] walk = new int[LONGEST_RIM];
            for (int start = 0; start < onward.length; start++) {
                int[] rim = onward[start] < 0 ? NONE : rim(start, onward, walk);
                if (rim.length >= 3 && width(rim) <= widest) {
                    fans.add(fan(rim));
                    closed++;
                }
            }
            int n = triangles.length;
            triangles = Arrays.copyOf(
                    triangles, n + fans.stream().mapToInt(f -> f.length).sum());
            for (int[] fan : fans) {
                System.arraycopy(fan, 0, triangles, n, fan.length);
                n += fan.length;
            }
            if (beside.length > 0) {
                int before = labels.length;
                labels = Arrays.copyOf(labels, triangles.length / 3);
                for (int t = before; t < labels.length; t++) {
                    // A fan's triangles begin where the edge of the one beside them ends.
                    labels[t] = beside[triangles[3 * t]];
                }
            }
            return closed;
        }

        /** The rim from {@code start} round to it, taken out of {@code onward}; empty if it does not come round. */
        private static int[] rim(int start, int[] onward, int[] rim) {
            int n = 0;
            int at = start;
            while (n < LONGEST_RIM && at >= 0 && onward[at] >= 0) {
                rim[n++] = at;
                int next = onward[at];
                onward[at] = Edges.NONE;
                at = next;
                if (at == start) {
                    return Arrays.copyOf(rim, n);
                }
            }
            return NONE;
        }

        private double width(int[] rim) {
            double widest = 0;
            for (int a : rim) {
                double dx = x(a) - x(rim[0]);
                double dy = y(a) - y(rim[0]);
                double dz = (z(a) - z(rim[0])) / 1000;
                widest = Math.max(widest, Math.sqrt(dx * dx + dy * dy + dz * dz));
            }
            return widest;
        }

        /** Triangles from the rim to its middle; one if that closes it. */
        private int[] fan(int[] rim) {
            if (rim.length == 3) {
                return rim;
            }
            double[] middle = new double[3];
            for (int a : rim) {
                middle[0] += x(a) / rim.length;
                middle[1] += y(a) / rim.length;
                middle[2] += z(a) / rim.length;
            }
            int centre = 3 * mesh.triangles() + added.size();
            added.add(middle);
            int[] fan = new int[3 * rim.length];
            for (int i = 0; i < rim.length; i++) {
                fan[3 * i] = rim[i];
                fan[3 * i + 1] = rim[(i + 1) % rim.length];
                fan[3 * i + 2] = centre;
            }
            return fan;
        }

        private double x(int corner) {
            int old = 3 * mesh.triangles();
            return corner < old ? mesh.x(corner) : added.get(corner - old)[0];
        }

        private double y(int corner) {
            int old = 3 * mesh.triangles();
            return corner < old ? mesh.y(corner) : added.get(corner - old)[1];
        }

        private double z(int corner) {
            int old = 3 * mesh.triangles();
            return corner < old ? mesh.z(corner) : added.get(corner - old)[2];
        }

        private double area(int t) {
            int a = triangles[3 * t];
            int b = triangles[3 * t + 1];
            int c = triangles[3 * t + 2];
            double ux = x(b) - x(a);
            double uy = y(b) - y(a);
            double uz = (z(b) - z(a)) / 1000;
            double vx = x(c) - x(a);
            double vy = y(c) - y(a);
            double vz = (z(c) - z(a)) / 1000;
            double nx = uy * vz - uz * vy;
            double ny = uz * vx - ux * vz;
            double nz = ux * vy - uy * vx;
            return Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
        }

        /** Six times the enclosed volume; its sign is all that is asked for. */
        private double volume() {
            double sum = 0;
            for (int i = 0; i < triangles.length; i += 3) {
                int a = triangles[i];
                int b = triangles[i + 1];
                int c = triangles[i + 2];
                sum += x(a) * (y(b) * z(c) - z(b) * y(c))
                        + y(a) * (z(b) * x(c) - x(b) * z(c))
                        + z(a) * (x(b) * y(c) - y(b) * x(c));
            }
            return sum;
        }

        private Mesh built() {
            float[] px = new float[triangles.length];
            float[] py = new float[triangles.length];
            int[] pz = new int[triangles.length];
            for (int c = 0; c < triangles.length; c++) {
                px[c] = (float) x(triangles[c]);
                py[c] = (float) y(triangles[c]);
                pz[c] = (int) Math.rint(z(triangles[c]));
            }
            return Mesh.standing(px, py, pz, mesh.lifted());
        }
    }
}
