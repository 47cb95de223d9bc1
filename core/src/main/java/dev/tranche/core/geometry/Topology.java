package dev.tranche.core.geometry;

import java.util.Arrays;

/**
 * How the triangles of a mesh hang together, with equal corners taken as one.
 *
 * @param solids shells that share no corner
 * @param openEdges edges with a triangle on one side only
 * @param crowdedEdges edges with more than two triangles
 * @param againstEachOther edges whose two triangles face opposite ways
 * @param degenerate triangles without area, which are left out of account
 * @param area of the surface, mm²
 */
public record Topology(int solids, int openEdges, int crowdedEdges, int againstEachOther, int degenerate, double area) {

    /** Whether every edge has a triangle on each side, facing the same way. */
    public boolean closed() {
        return openEdges == 0 && crowdedEdges == 0 && againstEachOther == 0;
    }

    /** Of two meshes that have nothing to do with each other. */
    public Topology plus(Topology other) {
        return new Topology(
                solids + other.solids,
                openEdges + other.openEdges,
                crowdedEdges + other.crowdedEdges,
                againstEachOther + other.againstEachOther,
                degenerate + other.degenerate,
                area + other.area);
    }

    public static Topology of(Mesh mesh) {
        return new Count(mesh).topology();
    }

    private static final class Count {
        private final Mesh mesh;
        /** For each corner the first one at its place. */
        private final int[] welded;
        /** Edges by their two ends; the triangles seen along it one way and the other. */
        private final long[] edges;

        private final byte[] forth;
        private final byte[] back;

        Count(Mesh mesh) {
            this.mesh = mesh;
            int corners = 3 * mesh.triangles();
            welded = Welding.of(mesh);
            int room = Welding.room(corners);
            edges = new long[room];
            Arrays.fill(edges, -1);
            forth = new byte[room];
            back = new byte[room];
        }

        Topology topology() {
            int[] parent = new int[welded.length];
            for (int i = 0; i < parent.length; i++) {
                parent[i] = i;
            }
            int degenerate = 0;
            double area = 0;
            boolean[] used = new boolean[welded.length];
            for (int c = 0; c < welded.length; c += 3) {
                double here = area(c);
                int a = welded[c];
                int b = welded[c + 1];
                int d = welded[c + 2];
                if (a == b || b == d || a == d) {
                    degenerate++;
                    continue;
                }
                area += here;
                used[a] = true;
                join(parent, a, b);
                join(parent, b, d);
                edge(a, b);
                edge(b, d);
                edge(d, a);
            }
            boolean[] counted = new boolean[parent.length];
            int solids = 0;
            for (int i = 0; i < parent.length; i++) {
                if (used[i] && !counted[root(parent, i)]) {
                    counted[root(parent, i)] = true;
                    solids++;
                }
            }
            return counted(solids, degenerate, area);
        }

        private Topology counted(int solids, int degenerate, double area) {
            int open = 0;
            int crowded = 0;
            int against = 0;
            for (int i = 0; i < edges.length; i++) {
                int all = forth[i] + back[i];
                open += all == 1 ? 1 : 0;
                crowded += all > 2 && forth[i] != back[i] ? 1 : 0;
                against += all == 2 && forth[i] != back[i] ? 1 : 0;
            }
            return new Topology(solids, open, crowded, against, degenerate, area);
        }

        private void edge(int from, int to) {
            long key = (long) Math.min(from, to) << 32 | Math.max(from, to);
            int at = Welding.slot(key * 0x9E3779B97F4A7C15L, edges.length);
            while (edges[at] >= 0 && edges[at] != key) {
                at = at + 1 & edges.length - 1;
            }
            edges[at] = key;
            byte[] side = from < to ? forth : back;
            side[at] = (byte) Math.min(100, side[at] + 1);
        }

        private double area(int c) {
            double[] n = mesh.areaVector(c);
            return Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        }

        private static void join(int[] parent, int a, int b) {
            parent[root(parent, a)] = root(parent, b);
        }

        private static int root(int[] parent, int i) {
            int at = i;
            while (parent[at] != at) {
                parent[at] = parent[parent[at]];
                at = parent[at];
            }
            return at;
        }
    }
}
