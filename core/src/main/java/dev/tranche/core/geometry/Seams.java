package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import java.util.Arrays;
import java.util.BitSet;

/**
 * Corners on open edges that are meant to be one. Programs that reckon a place twice write it twice, a last digit apart, and the
 * triangles that meet there hang together by nothing. Where no edge is open nothing is looked at, let alone moved.
 */
public final class Seams {
    /** So near to one another corners are one, µm: what Z is rounded to and back, and floats of some metres. */
    static final int NEAR = 2;

    private static final double MICROMETRES = 1000;

    private final Mesh mesh;
    private final int[] welded;
    private final int[] to;
    /** Numbers of corners by the cells they lie in, from 1; what meets in one place of it goes on at the next. */
    private final int[] table;

    private Seams(Mesh mesh, int[] welded, int open) {
        this.mesh = mesh;
        this.welded = welded;
        this.to = new int[welded.length];
        this.table = new int[Integer.highestOneBit(Math.max(16, 4 * open))];
    }

    /**
     * @param progress learns that the work goes on, and may stop it
     * @return the same triangles in the same order; the mesh itself where there is nothing to be joined
     */
    public static Mesh joined(Mesh mesh, Progress progress) {
        return joined(mesh, mesh.welded(progress), progress);
    }

    /** @param welded for each corner the first one at its place */
    static Mesh joined(Mesh mesh, int[] welded, Progress progress) {
        BitSet open = new BitSet();
        Edges edges = new Edges(welded, progress);
        edges.forEach((side, sides) -> {
            if ((sides & 1) == 1) {
                open.set(edges.from(side));
                open.set(edges.to(side));
            }
        });
        Seams seams = new Seams(mesh, welded, open.cardinality());
        return seams.meet(open, progress) ? seams.mesh(progress) : mesh;
    }

    /** Finds where each corner goes: to the lowest near it, so that the mesh goes on standing on the bed. */
    private boolean meet(BitSet open, Progress progress) {
        long[] rising = open.stream().mapToLong(c -> (long) mesh.z(c) << 32 | c).toArray();
        Arrays.parallelSort(rising);
        Arrays.setAll(to, c -> c);
        boolean any = false;
        for (int i = 0; i < rising.length; i++) {
            if ((i & 0xFFFF) == 0) {
                progress.beat();
            }
            int corner = (int) rising[i];
            int other = near(corner);
            if (other >= 0) {
                to[corner] = other;
                any = true;
            } else {
                put(corner);
            }
        }
        return any;
    }

    private int near(int corner) {
        double x = MICROMETRES * mesh.x(corner);
        double y = MICROMETRES * mesh.y(corner);
        double z = mesh.z(corner);
        for (long cx = cell(x - NEAR); cx <= cell(x + NEAR); cx++) {
            for (long cy = cell(y - NEAR); cy <= cell(y + NEAR); cy++) {
                for (long cz = cell(z - NEAR); cz <= cell(z + NEAR); cz++) {
                    for (int at = slot(cx, cy, cz); table[at] != 0; at = at + 1 & table.length - 1) {
                        if (isNear(corner, table[at] - 1)) {
                            return table[at] - 1;
                        }
                    }
                }
            }
        }
        return -1;
    }

    private boolean isNear(int a, int b) {
        double dx = MICROMETRES * (mesh.x(a) - mesh.x(b));
        double dy = MICROMETRES * (mesh.y(a) - mesh.y(b));
        double dz = mesh.z(a) - mesh.z(b);
        return dx * dx + dy * dy + dz * dz <= NEAR * NEAR;
    }

    private void put(int corner) {
        int at = slot(cell(MICROMETRES * mesh.x(corner)), cell(MICROMETRES * mesh.y(corner)), cell(mesh.z(corner)));
        while (table[at] != 0) {
            at = at + 1 & table.length - 1;
        }
        table[at] = corner + 1;
    }

    /** So large that what is near lies in one of two, along each axis. */
    private static long cell(double micrometres) {
        return (long) Math.floor(micrometres / (2 * NEAR));
    }

    private int slot(long x, long y, long z) {
        long hash = (x * 0x9E3779B97F4A7C15L + y) * 0xC2B2AE3D27D4EB4FL + z;
        hash = (hash ^ hash >>> 32) * 0xD6E8FEB86659FD93L;
        return (int) (hash >>> 33) & table.length - 1;
    }

    private Mesh mesh(Progress progress) {
        float[] x = new float[welded.length];
        float[] y = new float[welded.length];
        int[] z = new int[welded.length];
        for (int c = 0; c < welded.length; c++) {
            if ((c & 0x3FFFF) == 0) {
                progress.beat();
            }
            int at = to[welded[c]];
            x[c] = (float) mesh.x(at);
            y[c] = (float) mesh.y(at);
            z[c] = mesh.z(at);
        }
        return Mesh.standing(x, y, z, mesh.lifted());
    }
}
