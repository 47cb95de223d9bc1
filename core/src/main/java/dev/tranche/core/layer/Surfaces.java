package dev.tranche.core.layer;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Finds the flat places of a model: triangles within 1° of level, summed by height in steps of 1 µm, heights
 * within a quarter of a layer taken together.
 */
public final class Surfaces {
    private static final double LEVEL = Math.cos(Math.toRadians(1));
    private static final double SMALLEST = 4;
    private static final double SMALLEST_SHARE = 0.005;

    private Surfaces() {}

    /**
     * @param body standing on the bed, or held above it
     * @param layerHeight of the grid in use
     * @param largestSection area of the model's largest section, mm²
     * @return flats of over 4 mm² or 0.5 % of the largest section, whichever is less, lowest first
     */
    public static List<Surface> find(Body body, Height layerHeight, double largestSection) {
        TreeMap<Integer, Double> up = new TreeMap<>();
        TreeMap<Integer, Double> down = new TreeMap<>();
        for (Mesh mesh : body.solids()) {
            for (int corner = 0; corner < 3 * mesh.triangles(); corner += 3) {
                addIfLevel(mesh, corner, up, down);
            }
        }
        int within = layerHeight.micrometres() / 4;
        double least = Math.min(SMALLEST, SMALLEST_SHARE * largestSection);
        int top = body.height().micrometres();
        List<Surface> found = new ArrayList<>();
        merge(up, within).forEach((z, area) -> {
            if (area >= least && z > 0) {
                Surface.Kind kind = z >= top - within ? Surface.Kind.TOP : Surface.Kind.FLOOR;
                found.add(new Surface(Height.ofMicrometres(z), area, kind));
            }
        });
        merge(down, within).forEach((z, area) -> {
            if (area >= least && z > within) {
                found.add(new Surface(Height.ofMicrometres(z), area, Surface.Kind.UNDERSIDE));
            }
        });
        found.sort((a, b) -> a.height().compareTo(b.height()));
        return List.copyOf(found);
    }

    private static void addIfLevel(Mesh mesh, int c, Map<Integer, Double> up, Map<Integer, Double> down) {
        double[] n = mesh.areaVector(c);
        double area = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        if (Math.abs(n[2]) < LEVEL * area || area == 0) {
            return;
        }
        int height = Math.round((mesh.z(c) + (float) mesh.z(c + 1) + mesh.z(c + 2)) / 3);
        (n[2] > 0 ? up : down).merge(height, Math.abs(n[2]), Double::sum);
    }

    /** Neighbouring heights within reach of the first of their run, at the height that holds most of the area. */
    private static TreeMap<Integer, Double> merge(TreeMap<Integer, Double> bins, int within) {
        TreeMap<Integer, Double> merged = new TreeMap<>();
        int runStart = 0;
        int best = 0;
        double bestArea = -1;
        double sum = 0;
        for (Map.Entry<Integer, Double> bin : bins.entrySet()) {
            if (sum > 0 && bin.getKey() - runStart > within) {
                merged.put(best, sum);
                sum = 0;
                bestArea = -1;
            }
            if (sum == 0) {
                runStart = bin.getKey();
            }
            if (bin.getValue() > bestArea) {
                best = bin.getKey();
                bestArea = bin.getValue();
            }
            sum += bin.getValue();
        }
        if (sum > 0) {
            merged.put(best, sum);
        }
        return merged;
    }
}
