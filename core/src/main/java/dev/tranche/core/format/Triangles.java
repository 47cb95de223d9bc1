package dev.tranche.core.format;

import java.util.Arrays;

/** Triangles as a file lists them, by the numbers of their three corners. */
final class Triangles {
    private int[] corners = new int[1536];
    private int count;

    void add(int a, int b, int c) {
        if (3 * count == corners.length) {
            corners = Arrays.copyOf(corners, 2 * corners.length);
        }
        corners[3 * count] = a;
        corners[3 * count + 1] = b;
        corners[3 * count + 2] = c;
        count++;
    }

    int count() {
        return count;
    }

    /** The number of one of its corners, which are 0, 1 and 2. */
    int corner(int triangle, int which) {
        return corners[3 * triangle + which];
    }
}
