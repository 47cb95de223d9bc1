package dev.tranche.core.geometry;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;

/**
 * The solids of one model, in one frame: what they share is the origin of their file.
 *
 * @param solids at least one; their order is theirs for good, since plans name them by it
 * @param lifted by how many mm the file's Z was raised (or, if negative, lowered) to set the model on the bed
 */
public record Body(List<Mesh> solids, double lifted) {
    public Body {
        solids = List.copyOf(solids);
        if (solids.isEmpty()) {
            throw new Refusal("The model holds no triangles; export it again from the program that made it.");
        }
    }

    /** A model of one piece. */
    public static Body of(Mesh mesh) {
        return new Body(List.of(mesh), mesh.lifted());
    }

    /**
     * This model and another, put together by the origins of their files and set on the bed as one.
     */
    public Body with(Body other) {
        List<Mesh> all = new ArrayList<>();
        solids.forEach(s -> all.add(s.raised(-micrometres(lifted))));
        other.solids.forEach(s -> all.add(s.raised(-micrometres(other.lifted))));
        return standing(all, 0, 0);
    }

    /**
     * Scaled, laid and turned, and set on the bed again, or held above it.
     *
     * @throws Refusal if nothing but a flat thing is left, or it is higher than any printer
     */
    public Body placed(Placement placement) {
        if (placement.equals(Placement.AS_IS)) {
            return this;
        }
        double[] matrix = placement.matrix();
        return standing(solids.stream().map(s -> s.times(matrix)).toList(), lifted, micrometres(placement.lift()));
    }

    /**
     * With some of its solids moved, and as far above the bed as it is.
     *
     * @param shifts by the numbers of the solids, from 0; those that are not there are passed over
     */
    public Body moved(Map<Integer, Shift> shifts) {
        if (shifts.isEmpty()) {
            return this;
        }
        List<Mesh> all = new ArrayList<>();
        for (int i = 0; i < solids.size(); i++) {
            Shift by = shifts.getOrDefault(i, Shift.NONE);
            all.add(by.equals(Shift.NONE) ? solids.get(i) : solids.get(i).moved(by));
        }
        int bottom = solids.stream().mapToInt(Mesh::bottom).min().orElse(0);
        return standing(all, lifted, bottom);
    }

    private static Body standing(List<Mesh> solids, double lifted, int above) {
        int bottom = solids.stream().mapToInt(Mesh::bottom).min().orElse(0);
        int top = solids.stream().mapToInt(Mesh::top).max().orElse(0);
        if (top == bottom) {
            throw new Refusal("The model is flat: all its corners lie at one height; it cannot be printed in layers.");
        }
        int up = above - bottom;
        return new Body(solids.stream().map(s -> s.raised(up)).toList(), lifted + up / 1000.0);
    }

    private static int micrometres(double mm) {
        return (int) Math.round(mm * 1000);
    }

    public int triangles() {
        return solids.stream().mapToInt(Mesh::triangles).sum();
    }

    /** What the solids enclose, mm³; where they overlap it counts for each. */
    public double volume() {
        return solids.stream().mapToDouble(Mesh::volume).sum();
    }

    /** What the model covers of the XY plane, mm. */
    public Envelope footprint() {
        Envelope all = new Envelope();
        solids.forEach(s -> all.expandToInclude(s.footprint()));
        return all;
    }

    /** Of its sides along the axes, mm. */
    public double longest() {
        Envelope ground = footprint();
        return Math.max(height().millimetres(), Math.max(ground.getWidth(), ground.getHeight()));
    }

    /** How far it reaches above the bed. */
    public Height height() {
        return solids.stream().map(Mesh::height).max(Height::compareTo).orElseThrow();
    }
}
