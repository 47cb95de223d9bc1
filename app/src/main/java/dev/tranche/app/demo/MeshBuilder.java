package dev.tranche.app.demo;

import dev.tranche.core.geometry.Mesh;
import java.util.List;

/** Corners, three a triangle, as a mesh. */
final class MeshBuilder {
    private MeshBuilder() {}

    static Mesh of(List<float[]> corners) {
        int n = corners.size();
        float[] x = new float[n];
        float[] y = new float[n];
        int[] z = new int[n];
        for (int i = 0; i < n; i++) {
            x[i] = corners.get(i)[0];
            y[i] = corners.get(i)[1];
            z[i] = (int) Math.rint(corners.get(i)[2] * 1000);
        }
        return Mesh.of(x, y, z);
    }
}
