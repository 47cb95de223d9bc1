package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Takes a mesh apart into the solids it is made of.
 *
 * <p>Triangles carry labels (the colour or group a file gives them), and labels belong to things (the objects of the
 * file). A label that closes by itself is a solid of its own; labels that do not are patches on one surface, and are
 * taken together. What is left falls apart wherever it hangs together by no edge. A shell that faces inwards and lies
 * within another is a cavity of the smallest that holds it; shells that are open stay together, since nobody knows
 * what they enclose; and what would fall into over {@value #MOST} pieces is left whole.
 */
public final class Shells {
    private static final int MOST = 250;

    private final Mesh mesh;
    private final int[] welded;
    private final int[] group;
    private final int[] parent;

    /**
     * A solid found.
     *
     * @param label the one most of its surface carries
     * @param painted whether some of it carries another
     */
    public record Shell(int label, boolean painted, Mesh mesh) {}

    private Shells(Mesh mesh, int[] labels) {
        this.mesh = mesh;
        this.welded = Welding.of(mesh);
        this.group = labels.clone();
        this.parent = new int[labels.length];
    }

    /**
     * @param labels of the triangles, from 0
     * @param things the thing that each label belongs to
     * @return solids in the order of their first triangles
     */
    public static List<Shell> split(Mesh mesh, int[] labels, int[] things) {
        Shells shells = new Shells(mesh, labels);
        shells.poolPatches(labels, things);
        return shells.solids(labels);
    }

    /** Labels that do not close by themselves get the group of their thing. */
    private void poolPatches(int[] labels, int[] things) {
        int[] labelsOfThing = new int[Arrays.stream(things).max().orElse(0) + 1];
        for (int thing : things) {
            labelsOfThing[thing]++;
        }
        boolean[] open = new boolean[things.length];
        boolean several = false;
        for (int count : labelsOfThing) {
            several |= count > 1;
        }
        if (several) {
            for (int edge : new Edges().odd()) {
                open[labels[edge / 3]] = true;
            }
        }
        for (int t = 0; t < group.length; t++) {
            if (open[labels[t]]) {
                group[t] = things.length + things[labels[t]];
            }
        }
    }

    private List<Shell> solids(int[] labels) {
        for (int t = 0; t < parent.length; t++) {
            parent[t] = t;
        }
        Edges edges = new Edges();
        edges.joinNeighbours();
        Map<Integer, Piece> pieces = new LinkedHashMap<>();
        List<Integer> strays = new ArrayList<>();
        for (int t = 0; t < parent.length; t++) {
            if (edges.degenerate(t)) {
                strays.add(t);
            } else {
                pieces.computeIfAbsent(root(t), r -> new Piece(group[r])).add(t);
            }
        }
        for (int edge : edges.odd()) {
            pieces.get(root(edge / 3)).open = true;
        }
        List<Piece> solids = together(List.copyOf(pieces.values()));
        if (solids.isEmpty()) {
            solids = List.of(new Piece(0));
        }
        // Triangles without area hang on no edge; repair will drop them, and say so.
        strays.forEach(solids.get(0)::add);
        return solids.stream().map(p -> p.shell(labels)).toList();
    }

    /** Cavities with what holds them, open shells with one another. */
    private List<Piece> together(List<Piece> pieces) {
        Map<Integer, List<Piece>> groups = new LinkedHashMap<>();
        pieces.forEach(
                p -> groups.computeIfAbsent(p.group, g -> new ArrayList<>()).add(p));
        List<Piece> solids = new ArrayList<>();
        for (List<Piece> all : groups.values()) {
            Piece opened = new Piece(all.get(0).group);
            List<Piece> outer = new ArrayList<>();
            List<Piece> inner = new ArrayList<>();
            double facing = all.stream().mapToDouble(p -> p.volume).sum() < 0 ? -1 : 1;
            for (Piece piece : all) {
                if (piece.open) {
                    opened.take(piece);
                } else {
                    (piece.volume * facing < 0 ? inner : outer).add(piece);
                }
            }
            inner.sort(Comparator.comparingInt(p -> p.triangles[0]));
            for (Piece cavity : inner) {
                outer.stream()
                        .filter(o -> o.holds(cavity))
                        .min(Comparator.comparingDouble(o -> Math.abs(o.volume)))
                        .ifPresentOrElse(o -> o.cavities.add(cavity), () -> solids.add(cavity));
            }
            outer.forEach(o -> o.cavities.forEach(o::take));
            solids.addAll(outer);
            if (opened.size > 0) {
                solids.add(opened);
            }
        }
        if (solids.size() > MOST) {
            Piece whole = new Piece(0);
            solids.forEach(whole::take);
            return List.of(whole);
        }
        solids.sort(Comparator.comparingInt(p -> p.triangles[0]));
        return solids;
    }

    private int root(int triangle) {
        int at = triangle;
        while (parent[at] != at) {
            parent[at] = parent[parent[at]];
            at = parent[at];
        }
        return at;
    }

    /** Triangles that hang together. */
    private final class Piece {
        private final int group;
        private int[] triangles = new int[16];
        private int size;
        private double volume;
        private boolean open;
        private final double[] least = {Double.MAX_VALUE, Double.MAX_VALUE, Double.MAX_VALUE};
        private final double[] most = {-Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        private final List<Piece> cavities = new ArrayList<>();

        Piece(int group) {
            this.group = group;
        }

        void add(int triangle) {
            if (size == triangles.length) {
                triangles = Arrays.copyOf(triangles, 2 * size);
            }
            triangles[size++] = triangle;
            for (int c = 3 * triangle; c < 3 * triangle + 3; c++) {
                reach(0, mesh.x(c));
                reach(1, mesh.y(c));
                reach(2, mesh.z(c) / 1000.0);
            }
            int c = 3 * triangle;
            double[] n = mesh.areaVector(c);
            volume += (n[0] * mesh.x(c) + n[1] * mesh.y(c) + n[2] * mesh.z(c) / 1000.0) / 3;
        }

        private void reach(int axis, double value) {
            least[axis] = Math.min(least[axis], value);
            most[axis] = Math.max(most[axis], value);
        }

        void take(Piece other) {
            for (int i = 0; i < other.size; i++) {
                add(other.triangles[i]);
            }
        }

        boolean holds(Piece other) {
            boolean within = true;
            for (int axis = 0; axis < 3; axis++) {
                within &= least[axis] <= other.least[axis] && most[axis] >= other.most[axis];
            }
            return within && Math.abs(volume) > Math.abs(other.volume);
        }

        Shell shell(int[] labels) {
            int[] mine = Arrays.copyOf(triangles, size);
            Arrays.sort(mine);
            Map<Integer, Double> areas = new LinkedHashMap<>();
            for (int t : mine) {
                double[] n = mesh.areaVector(3 * t);
                areas.merge(labels[t], Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]), Double::sum);
            }
            int most = areas.entrySet().stream()
                    .max(Map.Entry.comparingByValue())
                    .map(Map.Entry::getKey)
                    .orElse(0);
            return new Shell(most, areas.size() > 1, mine.length == labels.length ? mesh : mesh.only(mine));
        }
    }

    /** Edges of the triangles of one group each, found by their two ends. */
    private final class Edges {
        private static final int NONE = -1;
        private final int[] first;
        private final int[] second;
        private final byte[] count;

        Edges() {
            int room = Welding.room(welded.length);
            first = new int[room];
            Arrays.fill(first, NONE);
            second = new int[room];
            count = new byte[room];
            for (int e = 0; e < welded.length; e++) {
                if (!degenerate(e / 3)) {
                    put(e);
                }
            }
        }

        boolean degenerate(int t) {
            int a = welded[3 * t];
            int b = welded[3 * t + 1];
            int c = welded[3 * t + 2];
            return a == b || b == c || a == c;
        }

        private void put(int edge) {
            int at = slot(edge);
            if (first[at] == NONE) {
                first[at] = edge;
            } else {
                second[at] = edge;
            }
            count[at] = (byte) (count[at] == 101 ? 100 : count[at] + 1);
        }

        /** Where the edge is, or is to be. */
        private int slot(int edge) {
            long key = key(edge);
            long hash = key * 0x9E3779B97F4A7C15L ^ group[edge / 3] * 0xC2B2AE3D27D4EB4FL;
            int at = Welding.slot(hash, first.length);
            while (first[at] != NONE && (key(first[at]) != key || group[first[at] / 3] != group[edge / 3])) {
                at = at + 1 & first.length - 1;
            }
            return at;
        }

        private long key(int edge) {
            int from = welded[edge];
            int to = welded[after(edge)];
            return (long) Math.min(from, to) << 32 | Math.max(from, to);
        }

        /** One edge for each place where an odd number of triangles meets: where the group is open. */
        int[] odd() {
            int[] found = new int[16];
            int n = 0;
            for (int at = 0; at < first.length; at++) {
                if ((count[at] & 1) == 1) {
                    found = n == found.length ? Arrays.copyOf(found, 2 * n) : found;
                    found[n++] = first[at];
                }
            }
            return Arrays.copyOf(found, n);
        }

        /** Triangles on the two sides of an edge are one piece. */
        void joinNeighbours() {
            Map<Integer, List<Integer>> crowds = new HashMap<>();
            for (int at = 0; at < first.length; at++) {
                if (count[at] == 2) {
                    join(first[at], second[at]);
                } else if (count[at] > 2) {
                    crowds.put(at, new ArrayList<>());
                }
            }
            if (!crowds.isEmpty()) {
                for (int e = 0; e < welded.length; e++) {
                    if (!degenerate(e / 3)) {
                        List<Integer> crowd = crowds.get(slot(e));
                        if (crowd != null) {
                            crowd.add(e);
                        }
                    }
                }
                crowds.values().forEach(this::joinRound);
            }
        }

        private void join(int edge, int other) {
            parent[root(edge / 3)] = root(other / 3);
        }

        /**
         * Where several solids meet along an edge, each fills the wedge between two of the triangles there. Turning about
         * the edge, one that runs back along it has plastic ahead, up to the next that runs along it.
         */
        private void joinRound(List<Integer> crowd) {
            int low = Math.min(welded[crowd.get(0)], welded[after(crowd.get(0))]);
            int high = Math.max(welded[crowd.get(0)], welded[after(crowd.get(0))]);
            double[] axis = unit(difference(high, low));
            for (int edge : crowd) {
                if (welded[edge] == high) {
                    double[] d = across(edge, axis);
                    int best = -1;
                    double nearest = Double.MAX_VALUE;
                    for (int other : crowd) {
                        if (welded[other] == low) {
                            double angle = angle(d, across(other, axis), axis);
                            if (angle < nearest) {
                                nearest = angle;
                                best = other;
                            }
                        }
                    }
                    if (best >= 0) {
                        join(edge, best);
                    }
                }
            }
        }

        private int after(int edge) {
            return edge % 3 == 2 ? edge - 2 : edge + 1;
        }

        /** From the edge towards the triangle's third corner, at right angles to the edge. */
        private double[] across(int edge, double[] axis) {
            double[] d = difference(welded[after(after(edge))], welded[edge]);
            double along = d[0] * axis[0] + d[1] * axis[1] + d[2] * axis[2];
            return new double[] {d[0] - along * axis[0], d[1] - along * axis[1], d[2] - along * axis[2]};
        }

        private double[] difference(int corner, int from) {
            return new double[] {
                mesh.x(corner) - mesh.x(from), mesh.y(corner) - mesh.y(from), (mesh.z(corner) - mesh.z(from)) / 1000.0
            };
        }

        private static double[] unit(double[] v) {
            double length = Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
            return new double[] {v[0] / length, v[1] / length, v[2] / length};
        }

        /** By how much {@code from} has to be turned about {@code axis} to lie on {@code to}; a whole turn if it does. */
        private static double angle(double[] from, double[] to, double[] axis) {
            double dot = from[0] * to[0] + from[1] * to[1] + from[2] * to[2];
            double[] c = {
                from[1] * to[2] - from[2] * to[1], from[2] * to[0] - from[0] * to[2], from[0] * to[1] - from[1] * to[0]
            };
            double turn = Math.atan2(c[0] * axis[0] + c[1] * axis[1] + c[2] * axis[2], dot);
            return turn > 1e-9 ? turn : turn + 2 * Math.PI;
        }
    }
}
