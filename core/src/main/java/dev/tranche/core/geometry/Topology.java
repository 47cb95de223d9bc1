package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;

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
        return of(mesh, mesh.welded(Progress.UNHEARD), Progress.UNHEARD);
    }

    /** @param welded for each corner the first one at its place */
    static Topology of(Mesh mesh, int[] welded, Progress progress) {
        Edges edges = new Edges(welded, progress);
        return new Count(edges).topology(mesh, welded, edges);
    }

    private static final class Count {
        private int open;
        private int crowded;
        private int against;

        Count(Edges edges) {
            edges.forEach((side, sides) -> {
                if (sides == 1) {
                    open++;
                } else if (sides == 2) {
                    against += edges.from(side) == edges.from(edges.beside(side)) ? 1 : 0;
                } else {
                    crowded += balanced(edges, side, sides) ? 0 : 1;
                }
            });
        }

        /** Whether as many triangles run along the edge as back. */
        private static boolean balanced(Edges edges, int side, int sides) {
            int along = 0;
            int at = side;
            do {
                along += edges.from(at) == edges.from(side) ? 1 : 0;
                at = edges.beside(at);
            } while (at != side);
            return 2 * along == sides;
        }

        private Topology topology(Mesh mesh, int[] welded, Edges edges) {
            Groups groups = new Groups(welded.length);
            boolean[] used = new boolean[welded.length];
            int degenerate = 0;
            double area = 0;
            for (int c = 0; c < welded.length; c += 3) {
                if (edges.degenerate(c / 3)) {
                    degenerate++;
                    continue;
                }
                area += mesh.area(c);
                used[welded[c]] = true;
                groups.join(welded[c], welded[c + 1]);
                groups.join(welded[c + 1], welded[c + 2]);
            }
            int solids = 0;
            boolean[] counted = new boolean[welded.length];
            for (int i = 0; i < used.length; i++) {
                if (used[i] && !counted[groups.root(i)]) {
                    counted[groups.root(i)] = true;
                    solids++;
                }
            }
            return new Topology(solids, open, crowded, against, degenerate, area);
        }
    }
}
