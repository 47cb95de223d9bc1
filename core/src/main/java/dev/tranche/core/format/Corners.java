package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Repair;
import dev.tranche.core.geometry.Seams;
import dev.tranche.core.geometry.Shells;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/** Corners of triangles as they come out of a file, three a triangle, and what the file says of each triangle. */
final class Corners {
    private static final int MOST = 18_000_000;
    /** Names that are kept of what is missing. */
    private static final int MOST_UNSEEN = 5;

    private float[] x = new float[3072];
    private float[] y = new float[3072];
    private int[] z = new int[3072];
    private int[] labels = new int[1024];
    /** Where each corner lies on its picture, from the left and from below; as many as there are up to the last that does. */
    private float[] places = {};

    private int count;
    private long foreseen;
    private int label;
    private Origin origin;
    private final List<Label> known = new ArrayList<>();
    private final Map<Label, Integer> numbers = new HashMap<>();

    private int item;
    private final Set<String> unseen = new LinkedHashSet<>();

    /**
     * What a file calls a triangle, in what colour, of which of its objects, and in which item of what it builds.
     *
     * @param picture of which it shows a piece, in the place of a colour
     */
    private record Label(
            String name, Optional<Srgb> colour, String called, int thing, int item, Optional<Picture> picture) {
        Label in(Optional<Srgb> told) {
            return new Label(name, told, called, thing, item, Optional.empty());
        }
    }

    Corners() {
        labelled("", Optional.empty(), 0);
    }

    /** A model of one mesh of which the file says nothing more. */
    static PartedModel model(Mesh mesh, Progress progress) {
        return model(
                mesh,
                new int[mesh.triangles()],
                List.of(new Label("", Optional.empty(), "", 0, 0, Optional.empty())),
                List.of(),
                progress);
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
        labelled(new Label(name, colour, called, thing, item, Optional.empty()));
    }

    /** As {@link #labelled(String, Optional, int)}, of triangles that show pieces of a picture. */
    void pictured(String name, Picture picture, int thing) {
        labelled(new Label(name, Optional.empty(), "", thing, item, Optional.of(picture)));
    }

    private void labelled(Label next) {
        if (!known.isEmpty() && next.equals(known.get(label))) {
            return;
        }
        label = numbers.computeIfAbsent(next, l -> {
            known.add(l);
            return known.size() - 1;
        });
    }

    /** A file was to give colours, and did not come with the model or cannot be read. */
    void unseen(String file) {
        if (unseen.size() < MOST_UNSEEN) {
            unseen.add(file);
        }
    }

    /** Where on its picture the last corner lies. */
    void shows(double u, double v) {
        if (places.length < 2 * count) {
            places = Arrays.copyOf(places, 2 * x.length);
        }
        places[2 * count - 2] = (float) u;
        places[2 * count - 1] = (float) v;
    }

    /** So many triangles more are to come; where all of them are too many, none need be placed. */
    void foresee(int triangles) {
        foreseen += triangles;
        if (foreseen > MOST / 3) {
            throw tooMany();
        }
    }

    private static Refusal tooMany() {
        return Refusal.of("The model has over %,d triangles; export it with fewer.", MOST / 3);
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
            throw tooMany();
        }
        room();
        x[count] = fx;
        y[count] = fy;
        z[count] = (int) Math.rint(pz * 1000);
        labels[count / 3] = label;
        count++;
    }

    private void room() {
        if (count == x.length) {
            x = Arrays.copyOf(x, 2 * count);
            y = Arrays.copyOf(y, 2 * count);
            z = Arrays.copyOf(z, 2 * count);
            labels = Arrays.copyOf(labels, 2 * count / 3 + 1);
        }
    }

    boolean isEmpty() {
        return count == 0;
    }

    int triangles() {
        return count / 3;
    }

    /** Of their extents along the axes, mm. */
    double longest() {
        double[] least = {Double.MAX_VALUE, Double.MAX_VALUE, Double.MAX_VALUE};
        double[] most = {-Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        for (int c = 0; c < count; c++) {
            double[] place = {x[c], y[c], z[c] / 1000.0};
            for (int i = 0; i < 3; i++) {
                least[i] = Math.min(least[i], place[i]);
                most[i] = Math.max(most[i], place[i]);
            }
        }
        return Math.max(most[0] - least[0], Math.max(most[1] - least[1], most[2] - least[2]));
    }

    float x(int corner) {
        return x[corner];
    }

    float y(int corner) {
        return y[corner];
    }

    int z(int corner) {
        return z[corner];
    }

    float u(int corner) {
        return 2 * corner < places.length ? places[2 * corner] : 0;
    }

    float v(int corner) {
        return 2 * corner < places.length ? places[2 * corner + 1] : 0;
    }

    Optional<Picture> picture(int triangle) {
        return known.get(labels[triangle]).picture();
    }

    /** None yet, and all that is said of these. */
    Corners begun() {
        Corners begun = new Corners();
        known.forEach(begun::labelled);
        begun.unseen.addAll(unseen);
        return begun;
    }

    /** A triangle of others, or a piece of one: each corner in the middle of two of those. */
    void between(Corners of, int a0, int a1, int b0, int b1, int c0, int c1) {
        label = of.labels[a0 / 3];
        between(of, a0, a1);
        between(of, b0, b1);
        between(of, c0, c1);
    }

    private void between(Corners of, int a, int b) {
        room();
        x[count] = (of.x[a] + of.x[b]) / 2;
        y[count] = (of.y[a] + of.y[b]) / 2;
        z[count] = (int) Math.floorDiv((long) of.z[a] + of.z[b], 2L);
        labels[count / 3] = label;
        count++;
        if (of.places.length > 0) {
            shows((of.u(a) + of.u(b)) / 2, (of.v(a) + of.v(b)) / 2);
        }
    }

    PartedModel model(Progress progress) {
        if (places.length > 0) {
            return Pictured.cut(joined(progress), progress).coloured().model(progress);
        }
        Mesh mesh = Mesh.of(Arrays.copyOf(x, count), Arrays.copyOf(y, count), Arrays.copyOf(z, count));
        return model(mesh, Arrays.copyOf(labels, count / 3), List.copyOf(known), List.copyOf(unseen), progress);
    }

    /** Before triangles are cut at what neighbours have in common. */
    private Corners joined(Progress progress) {
        Mesh apart = Mesh.standing(Arrays.copyOf(x, count), Arrays.copyOf(y, count), Arrays.copyOf(z, count), 0);
        Mesh joined = Seams.joined(apart, progress);
        for (int c = 0; c < count && joined != apart; c++) {
            x[c] = (float) joined.x(c);
            y[c] = (float) joined.y(c);
            z[c] = joined.z(c);
        }
        return this;
    }

    /** What shows pieces of pictures takes the colours of those. */
    private Corners coloured() {
        for (int t = 0; t < triangles(); t++) {
            if (picture(t).isPresent()) {
                labelled(known.get(labels[t]).in(Pictured.colour(this, t)));
                labels[t] = label;
            }
        }
        places = new float[0];
        return this;
    }

    private static PartedModel model(
            Mesh mesh, int[] labels, List<Label> known, List<String> unseen, Progress progress) {
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
        return new PartedModel(parts, mesh.lifted(), report, unseen);
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
