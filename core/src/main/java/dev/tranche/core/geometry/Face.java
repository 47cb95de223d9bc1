package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Flat sides a model can be laid on: directions in which much of its surface looks, triangles within about 1° of one
 * another taken together.
 *
 * @param x of the direction the side looks in, a unit vector, as {@code y} and {@code z}
 * @param area mm²
 */
public record Face(double x, double y, double z, double area) {
    private static final int STEPS = 64;
    private static final double NEAR = Math.cos(Math.toRadians(3));
    private static final double SMALLEST_SHARE = 0.01;

    /** The sides with the most area, largest first. */
    public static List<Face> find(Body body, int most) {
        Map<Long, double[]> sums = new HashMap<>();
        body.solids().forEach(mesh -> addAll(mesh, sums));
        List<Face> faces = new ArrayList<>();
        for (double[] n : sums.values()) {
            double area = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            if (area > 0) {
                faces.add(new Face(clean(n[0] / area), clean(n[1] / area), clean(n[2] / area), area));
            }
        }
        faces.sort(Comparator.comparingDouble(Face::area)
                .reversed()
                .thenComparingDouble(Face::z)
                .thenComparingDouble(Face::y)
                .thenComparingDouble(Face::x));
        return gathered(faces, most);
    }

    private static void addAll(Mesh mesh, Map<Long, double[]> sums) {
        for (int c = 0; c < 3 * mesh.triangles(); c += 3) {
            double[] n = mesh.areaVector(c);
            double area = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            if (area > 1e-12) {
                double[] sum = sums.computeIfAbsent(
                        key(n[0] / area) << 20 | key(n[1] / area) << 10 | key(n[2] / area), k -> new double[3]);
                sum[0] += n[0];
                sum[1] += n[1];
                sum[2] += n[2];
            }
        }
    }

    /** Neighbouring directions, which the steps of counting have cut apart, taken together; the largest leads. */
    private static List<Face> gathered(List<Face> sorted, int most) {
        double smallest = sorted.stream().mapToDouble(Face::area).sum() * SMALLEST_SHARE;
        List<Face> gathered = new ArrayList<>();
        for (Face face : sorted) {
            int near = 0;
            while (near < gathered.size() && !gathered.get(near).isNear(face)) {
                near++;
            }
            if (near < gathered.size()) {
                Face f = gathered.get(near);
                gathered.set(near, new Face(f.x, f.y, f.z, f.area + face.area));
            } else if (gathered.size() < most) {
                gathered.add(face);
            }
        }
        gathered.removeIf(f -> f.area < smallest);
        gathered.sort(Comparator.comparingDouble(Face::area).reversed());
        return List.copyOf(gathered);
    }

    private boolean isNear(Face other) {
        return x * other.x + y * other.y + z * other.z > NEAR;
    }

    private static long key(double component) {
        return Math.round(component * STEPS) + STEPS;
    }

    private static double clean(double component) {
        double whole = Math.rint(component);
        return Math.abs(component - whole) < 1e-9 ? whole + 0.0 : component;
    }
}
