package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Takes a mesh apart into the solids it is made of.
 *
 * <p>Triangles carry labels (the colour or group a file gives them), and labels belong to things (the objects of the
 * file). A label that closes by itself is a solid of its own; labels that do not are patches on one surface, and are
 * taken together. What is left falls apart wherever it hangs together by no edge. A shell that faces inwards and lies
 * within another is a cavity of the smallest that holds it, and shells that are open stay together, since nobody knows
 * what they enclose. Corners that are meant to be one have been joined before ({@link Seams}). There are {@value #MOST} solids at most: of labels that would fall into too many pieces, those with the
 * most are left whole; and so is the mesh where there are too many labels.
 */
public final class Shells {
    private static final int MOST = 250;
    private static final int[] NONE = {};
    /** Radians. */
    private static final double SAME_ANGLE = 1e-9;

    private final Mesh mesh;
    private final int[] welded;
    private final int[] group;
    private final Groups hanging;
    private final Progress progress;

    /**
     * A solid found.
     *
     * @param label the one most of its surface carries
     * @param labels of its triangles, where they carry several; else none
     * @param sound whether it is known to need no repair
     */
    public record Shell(int label, int[] labels, boolean sound, Mesh mesh) {}

    private Shells(Mesh mesh, int[] labels, Progress progress) {
        this.mesh = mesh;
        this.progress = progress;
        this.welded = mesh.welded(progress);
        this.group = labels.clone();
        this.hanging = new Groups(labels.length);
    }

    /**
     * @param labels of the triangles, from 0
     * @param things the thing that each label belongs to
     * @param progress learns that the work goes on, and may stop it
     * @return solids in the order of their first triangles
     */
    public static List<Shell> split(Mesh mesh, int[] labels, int[] things, Progress progress) {
        Shells shells = new Shells(mesh, labels, progress);
        Edges edges = shells.edges();
        if (isOpen(edges)) {
            Mesh joined = Seams.joined(mesh, shells.welded, progress);
            if (joined != mesh) {
                shells = new Shells(joined, labels, progress);
                edges = shells.edges();
            }
        }
        return shells.solids(labels, shells.poolPatches(edges, labels, things));
    }

    private static boolean isOpen(Edges edges) {
        boolean[] open = {false};
        edges.forEach((side, sides) -> open[0] |= (sides & 1) == 1);
        return open[0];
    }

    /** Labels that do not close by themselves get the group of their thing. */
    private Edges poolPatches(Edges edges, int[] labels, int[] things) {
        int[] labelsOfThing = new int[Arrays.stream(things).max().orElse(0) + 1];
        for (int thing : things) {
            labelsOfThing[thing]++;
        }
        boolean several = false;
        for (int count : labelsOfThing) {
            several |= count > 1;
        }
        boolean[] open = new boolean[things.length];
        if (several) {
            edges.forEach((side, sides) -> open[labels[side / 3]] |= (sides & 1) == 1);
        }
        boolean pooled = false;
        for (int t = 0; t < group.length; t++) {
            if (open[labels[t]]) {
                group[t] = things.length + things[labels[t]];
                pooled = true;
            }
        }
        return pooled ? edges() : edges;
    }

    private Edges edges() {
        boolean one = true;
        for (int t = 1; t < group.length && one; t++) {
            one = group[t] == group[0];
        }
        return new Edges(welded, one ? null : group, progress);
    }

    private List<Shell> solids(int[] labels, Edges edges) {
        joinNeighbours(edges);
        Piece[] pieces = new Piece[group.length];
        List<Piece> all = new ArrayList<>();
        List<Integer> strays = new ArrayList<>();
        for (int t = 0; t < group.length; t++) {
            if ((t & 0xFFFF) == 0) {
                progress.beat();
            }
            if (edges.degenerate(t)) {
                strays.add(t);
            } else {
                int root = hanging.root(t);
                if (pieces[root] == null) {
                    pieces[root] = new Piece(group[root]);
                    all.add(pieces[root]);
                }
                pieces[root].add(t);
            }
        }
        edges.forEach((side, sides) -> {
            Piece piece = pieces[hanging.root(side / 3)];
            piece.open |= (sides & 1) == 1;
            if (sides != 2 || edges.from(side) == edges.from(edges.beside(side))) {
                piece.unsound(edges, side, pieces);
            }
        });
        List<Piece> solids = together(all);
        if (solids.isEmpty()) {
            solids = List.of(new Piece(0));
        }
        // Triangles without area hang on no edge; repair will drop them, and say so.
        for (int stray : strays) {
            solids.get(0).add(stray);
            solids.get(0).sound = false;
        }
        return solids.stream().map(p -> p.shell(labels)).toList();
    }

    /** Cavities with what holds them, open shells with one another. */
    private List<Piece> together(List<Piece> pieces) {
        Map<Integer, List<Piece>> groups = new LinkedHashMap<>();
        pieces.forEach(
                p -> groups.computeIfAbsent(p.group, g -> new ArrayList<>()).add(p));
        List<Kin> kins = new ArrayList<>(groups.values().stream().map(Kin::new).toList());
        kins.sort(Comparator.comparingInt(k -> k.outer.size()));
        if (kins.size() > MOST) {
            return List.of(Kin.one(pieces));
        }
        List<Piece> solids = new ArrayList<>();
        for (int i = 0; i < kins.size(); i++) {
            // Those of the fewest pieces come first, and leave room for the others to be a piece each.
            kins.get(i).settle(solids, MOST - kins.size() + i + 1);
        }
        solids.sort(Comparator.comparingInt(p -> p.triangles[0]));
        return solids;
    }

    /** The pieces of one group: what may be a solid, what may be a cavity in one, and what is open. */
    private static final class Kin {
        private final List<Piece> all;
        private final List<Piece> outer = new ArrayList<>();
        private final List<Piece> inner = new ArrayList<>();
        private final List<Piece> open = new ArrayList<>();

        Kin(List<Piece> all) {
            this.all = all;
            double facing = all.stream().mapToDouble(p -> p.volume).sum() < 0 ? -1 : 1;
            for (Piece piece : all) {
                (piece.open ? open : piece.volume * facing < 0 ? inner : outer).add(piece);
            }
        }

        /** Adds the solids that these are, or one of all of them where there would be more than {@code most} in the list then. */
        void settle(List<Piece> solids, int most) {
            List<Piece> loose = solids.size() + outer.size() <= most ? looseCavities() : inner;
            int own = outer.size() + loose.size() + Math.min(open.size(), 1);
            if (solids.size() + own > most) {
                solids.add(one(all));
                return;
            }
            outer.forEach(o -> o.cavities.forEach(o::take));
            solids.addAll(loose);
            solids.addAll(outer);
            if (!open.isEmpty()) {
                solids.add(one(open));
            }
        }

        /** Gives cavities to the smallest piece that holds them; answers those that none holds. */
        private List<Piece> looseCavities() {
            List<Piece> loose = new ArrayList<>();
            inner.sort(Comparator.comparingInt(p -> p.triangles[0]));
            for (Piece cavity : inner) {
                outer.stream()
                        .filter(o -> o.holds(cavity))
                        .min(Comparator.comparingDouble(o -> Math.abs(o.volume)))
                        .ifPresentOrElse(o -> o.cavities.add(cavity), () -> loose.add(cavity));
            }
            return loose;
        }

        private static Piece one(List<Piece> pieces) {
            pieces.subList(1, pieces.size()).forEach(pieces.get(0)::take);
            return pieces.get(0);
        }
    }

    /** Triangles that hang together. */
    private final class Piece {
        private final int group;
        private int[] triangles = new int[16];
        private int size;
        private double volume;
        private boolean open;
        private boolean sound = true;
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
            sound &= other.sound;
            for (int i = 0; i < other.size; i++) {
                add(other.triangles[i]);
            }
        }

        /** All pieces that meet at an edge where they do not meet two and two. */
        private void unsound(Edges edges, int side, Piece[] pieces) {
            int at = side;
            do {
                pieces[hanging.root(at / 3)].sound = false;
                at = edges.beside(at);
            } while (at != side);
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
            int[] carried = Arrays.stream(mine).map(t -> labels[t]).toArray();
            boolean one = Arrays.stream(carried).allMatch(l -> l == carried[0]);
            Mesh own = mine.length == labels.length ? mesh : mesh.only(mine);
            return new Shell(one ? carried[0] : widest(mine, labels), one ? NONE : carried, sound && volume >= 0, own);
        }

        /** The label that covers most. */
        private int widest(int[] mine, int[] labels) {
            Map<Integer, Double> areas = new LinkedHashMap<>();
            for (int t : mine) {
                areas.merge(labels[t], mesh.area(3 * t), Double::sum);
            }
            return areas.entrySet().stream()
                    .max(Map.Entry.comparingByValue())
                    .map(Map.Entry::getKey)
                    .orElse(0);
        }
    }

    /** A triangle at a crowded edge by its side there, and the angle at which it stands. */
    private record Spoke(int side, double angle) {}

    /** Triangles on the two sides of an edge are one piece. */
    private void joinNeighbours(Edges edges) {
        edges.forEach((side, sides) -> {
            if (sides == 2) {
                hanging.join(side / 3, edges.beside(side) / 3);
            } else if (sides > 2) {
                joinRound(edges, side);
            }
        });
    }

    /**
     * Where several solids meet along an edge, each fills the wedge between two of the triangles there. Turning about
     * the edge, one that runs back along it has plastic ahead, up to the next that runs along it.
     */
    private void joinRound(Edges edges, int first) {
        int low = Math.min(edges.from(first), edges.to(first));
        int high = Math.max(edges.from(first), edges.to(first));
        double[] axis = unit(difference(high, low));
        double[] reference = across(first, axis);
        List<Spoke> along = new ArrayList<>();
        List<Spoke> back = new ArrayList<>();
        int side = first;
        do {
            double angle = angle(reference, across(side, axis), axis);
            (edges.from(side) == low ? along : back).add(new Spoke(side, angle));
            side = edges.beside(side);
        } while (side != first);
        if (along.isEmpty()) {
            return;
        }
        along.sort(Comparator.comparingDouble(Spoke::angle));
        back.sort(Comparator.comparingDouble(Spoke::angle));
        int next = 0;
        for (Spoke spoke : back) {
            while (next < along.size() && along.get(next).angle() <= spoke.angle() + SAME_ANGLE) {
                next++;
            }
            hanging.join(
                    spoke.side() / 3, along.get(next == along.size() ? 0 : next).side() / 3);
        }
    }

    /** From the edge towards the triangle's third corner, at right angles to the edge. */
    private double[] across(int side, double[] axis) {
        double[] d = difference(welded[Edges.after(Edges.after(side))], welded[side]);
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
        return turn > SAME_ANGLE ? turn : turn + 2 * Math.PI;
    }
}
