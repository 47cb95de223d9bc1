package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import java.nio.charset.StandardCharsets;
import java.util.function.IntFunction;

/** Meshes as OBJ files whose corners carry colours, for tests; each triangle has corners of its own. */
public final class PaintedObj {
    private PaintedObj() {}

    /** What a triangle is painted with, by where its middle lies, mm. */
    @FunctionalInterface
    public interface Paint {
        Srgb at(double x, double y, double z);
    }

    public static byte[] of(Mesh mesh, Paint paint) {
        return of(mesh, corner -> {
            double[] middle = new double[3];
            int first = corner / 3 * 3;
            for (int c = first; c < first + 3; c++) {
                middle[0] += mesh.x(c) / 3;
                middle[1] += mesh.y(c) / 3;
                middle[2] += mesh.z(c) / 3000.0;
            }
            Srgb c = paint.at(middle[0], middle[1], middle[2]);
            return "%s %s %s".formatted(c.red() / 255.0, c.green() / 255.0, c.blue() / 255.0);
        });
    }

    /** @param words what stands behind a corner's coordinates */
    static byte[] of(Mesh mesh, IntFunction<String> words) {
        StringBuilder obj = new StringBuilder();
        for (int c = 0; c < 3 * mesh.triangles(); c++) {
            obj.append("v %s %s %s %s\n".formatted(mesh.x(c), mesh.y(c), mesh.z(c) / 1000.0, words.apply(c)));
            obj.append(c % 3 == 2 ? "f -3 -2 -1\n" : "");
        }
        return obj.toString().getBytes(StandardCharsets.US_ASCII);
    }
}
