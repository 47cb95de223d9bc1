package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Repair;
import dev.tranche.core.geometry.Shells;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/** Corners of triangles as they come out of a file, three a triangle, and what the file says of each triangle. */
final class Corners {
    private static final int MOST = 18_000_000;

    private float[] x = new float[3072];
    private float[] y = new float[3072];
    private int[] z = new int[3072];
    private int[] labels = new int[1024];
    private int count;
    private int label;
    private Origin origin;
    private final Map<Label, Integer> known = new LinkedHashMap<>();

    private int item;

    /** What a file calls a triangle, in what colour, of which of its objects, and in which item of what it builds. */
    private record Label(String name, Optional<Srgb> colour, String called, int thing, int item) {}

    Corners() {
        labelled("", Optional.empty(), 0);
    }

    /** A model of one mesh of which the file says nothing more. */
    static PartedModel model(Mesh mesh, Progress progress) {
        return model(mesh, new int[mesh.triangles()], List.of(new Label("", Optional.empty(), "", 0, 0)), progress);
    }

    /** The item that what follows belongs to, from 0. */
    void item(int at) {
        item = at;
    }

    /** What the triangles that follow are called, in the object {@code thing} of the file. */
    void labelled(String name, Optional<Srgb> colour, int thing) {
        labelled(name, colour, "", thing);
    }

    /** As {@link #labelled(String, Optional, int)}, in a colour that has a name. */
    void labelled(String name, Optional<Srgb> colour, String called, int thing) {
        label = known.computeIfAbsent(new Label(name, colour, called, thing, item), l -> known.size());
    }

    /** @param place where the file gives it, for the sentence that refuses it */
    void add(double px, double py, double pz, String place) {
        origin = origin == null ? Origin.near(px, py) : origin;
        float fx = origin.x(px);
        float fy = origin.y(py);
        float fz = (float) pz;
        if (!Origin.reaches(fx, fy, fz)) {
            throw Origin.beyond(place + " gives", px, py, pz);
        }
        if (count == MOST) {
            throw Refusal.of("The model has over %,d triangles; export it with fewer.", MOST / 3);
        }
        if (count == x.length) {
            x = Arrays.copyOf(x, 2 * count);
            y = Arrays.copyOf(y, 2 * count);
            z = Arrays.copyOf(z, 2 * count);
            labels = Arrays.copyOf(labels, 2 * count / 3 + 1);
        }
        x[count] = fx;
        y[count] = fy;
        z[count] = (int) Math.rint(pz * 1000);
        labels[count / 3] = label;
        count++;
    }

    boolean isEmpty() {
        return count == 0;
    }

    PartedModel model(Progress progress) {
        Mesh mesh = Mesh.of(Arrays.copyOf(x, count), Arrays.copyOf(y, count), Arrays.copyOf(z, count));
        return model(mesh, Arrays.copyOf(labels, count / 3), List.copyOf(known.keySet()), progress);
    }

    private static PartedModel model(Mesh mesh, int[] labels, List<Label> known, Progress progress) {
        List<Part> parts = new ArrayList<>();
        Repair.Report report = null;
        List<Coat.Hue> hues =
                known.stream().map(l -> new Coat.Hue(l.colour(), l.called())).toList();
        int[] things = known.stream().mapToInt(Label::thing).toArray();
        for (Shells.Shell shell : Shells.split(mesh, labels, things, progress)) {
            Repair repair = Repair.of(shell, progress);
            report = report == null ? repair.report() : report.plus(repair.report());
            Label said = known.get(shell.label());
            Optional<Coat> coat = coat(repair, hues);
            Coat.Hue most = coat.map(c -> c.hues().get(0)).orElse(hues.get(shell.label()));
            parts.add(new Part(said.name(), said.item(), most.colour(), most.called(), coat, repair.mesh()));
        }
        return new PartedModel(parts, mesh.lifted(), report);
    }

    private static Optional<Coat> coat(Repair repair, List<Coat.Hue> hues) {
        Mesh mesh = repair.mesh();
        return repair.labels().length == 0
                ? Optional.empty()
                : Coat.of(
                        hues,
                        repair.labels(),
                        IntStream.range(0, mesh.triangles())
                                .mapToDouble(t -> mesh.area(3 * t))
                                .toArray());
    }
}
