package dev.tranche.core.format;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.units.Refusal;
import java.util.Arrays;

/** Corners of triangles as they come out of a file, three a triangle. */
final class Corners {
    private static final int MOST = 60_000_000;

    private float[] x = new float[3072];
    private float[] y = new float[3072];
    private int[] z = new int[3072];
    private int count;

    /** @param place where the file gives it, for the sentence that refuses it */
    void add(double px, double py, double pz, String place) {
        float fx = (float) px;
        float fy = (float) py;
        float fz = (float) pz;
        if (!(StlReader.usable(fx) && StlReader.usable(fy) && StlReader.usable(fz))) {
            throw Refusal.of(
                    "%s gives a corner at (%s, %s, %s), which is no place; repair or export the model again.",
                    place, px, py, pz);
        }
        if (count == MOST) {
            throw Refusal.of("The model has over %d triangles; export it with fewer.", MOST / 3);
        }
        if (count == x.length) {
            x = Arrays.copyOf(x, 2 * count);
            y = Arrays.copyOf(y, 2 * count);
            z = Arrays.copyOf(z, 2 * count);
        }
        x[count] = fx;
        y[count] = fy;
        z[count] = (int) Math.rint(pz * 1000);
        count++;
    }

    boolean isEmpty() {
        return count == 0;
    }

    Mesh mesh() {
        return Mesh.of(Arrays.copyOf(x, count), Arrays.copyOf(y, count), Arrays.copyOf(z, count));
    }
}
