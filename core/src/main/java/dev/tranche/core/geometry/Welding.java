package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;

/** Corners at one place taken as one. */
final class Welding {
    /** Numbers a place in the table: X, Y and Z as they are, and the first corner there, from 1. */
    private static final int STRIDE = 4;

    private final Mesh mesh;
    private int room;
    private int[] table;
    private int places;

    private Welding(Mesh mesh) {
        this.mesh = mesh;
        // A closed mesh has half as many places as triangles; the table grows where there are more.
        room = Integer.highestOneBit(Math.max(16, 2 * mesh.triangles()));
        table = new int[STRIDE * room];
    }

    /** For each corner the first one at its place. */
    static int[] of(Mesh mesh, Progress progress) {
        return new Welding(mesh).welded(progress);
    }

    private int[] welded(Progress progress) {
        int[] welded = new int[3 * mesh.triangles()];
        for (int c = 0; c < welded.length; c++) {
            if ((c & 0x3FFFF) == 0) {
                progress.beat();
            }
            welded[c] = first(c);
        }
        return welded;
    }

    private int first(int corner) {
        // + 0f makes −0 and 0 the same bits
        int x = Float.floatToRawIntBits((float) mesh.x(corner) + 0f);
        int y = Float.floatToRawIntBits((float) mesh.y(corner) + 0f);
        int z = mesh.z(corner);
        int at = STRIDE * slot(x, y, z);
        while (table[at + 3] != 0) {
            if (table[at] == x && table[at + 1] == y && table[at + 2] == z) {
                return table[at + 3] - 1;
            }
            at = at + STRIDE & STRIDE * room - 1;
        }
        put(at, x, y, z, corner + 1);
        if (++places > room / 2) {
            grow();
        }
        return corner;
    }

    private void put(int at, int x, int y, int z, int corner) {
        table[at] = x;
        table[at + 1] = y;
        table[at + 2] = z;
        table[at + 3] = corner;
    }

    private void grow() {
        int[] old = table;
        room *= 2;
        table = new int[STRIDE * room];
        for (int from = 0; from < old.length; from += STRIDE) {
            if (old[from + 3] != 0) {
                int at = STRIDE * slot(old[from], old[from + 1], old[from + 2]);
                while (table[at + 3] != 0) {
                    at = at + STRIDE & STRIDE * room - 1;
                }
                put(at, old[from], old[from + 1], old[from + 2], old[from + 3]);
            }
        }
    }

    private int slot(int x, int y, int z) {
        long hash = x * 0x9E3779B97F4A7C15L ^ y * 0xC2B2AE3D27D4EB4FL ^ z * 0x165667B19E3779F9L;
        long mixed = (hash ^ hash >>> 32) * 0xD6E8FEB86659FD93L;
        return (int) (mixed >>> 40 ^ mixed) & room - 1;
    }
}
