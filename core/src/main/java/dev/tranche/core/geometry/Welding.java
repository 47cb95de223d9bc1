package dev.tranche.core.geometry;

import java.util.Arrays;

/** Corners at one place taken as one. */
final class Welding {
    private Welding() {}

    /** For each corner the first one at its place. */
    static int[] of(Mesh mesh) {
        int corners = 3 * mesh.triangles();
        int room = room(corners);
        int[] table = new int[room];
        Arrays.fill(table, -1);
        int[] welded = new int[corners];
        for (int c = 0; c < corners; c++) {
            // + 0.0 makes −0 and 0 the same bits
            long hash = Double.doubleToLongBits(mesh.x(c) + 0.0) * 0x9E3779B97F4A7C15L
                    ^ Double.doubleToLongBits(mesh.y(c) + 0.0) * 0xC2B2AE3D27D4EB4FL
                    ^ mesh.z(c) * 0x165667B19E3779F9L;
            int at = slot(hash, room);
            while (table[at] >= 0 && !same(mesh, table[at], c)) {
                at = at + 1 & room - 1;
            }
            table[at] = table[at] < 0 ? c : table[at];
            welded[c] = table[at];
        }
        return welded;
    }

    /** Places in a hash table for {@code keys} keys: a power of two, at least half again as many. */
    static int room(int keys) {
        return Integer.highestOneBit(Math.max(16, 3 * keys));
    }

    static int slot(long hash, int room) {
        long mixed = (hash ^ hash >>> 32) * 0xD6E8FEB86659FD93L;
        return (int) (mixed >>> 40 ^ mixed) & room - 1;
    }

    private static boolean same(Mesh mesh, int a, int b) {
        return mesh.z(a) == mesh.z(b) && mesh.x(a) == mesh.x(b) && mesh.y(a) == mesh.y(b);
    }
}
