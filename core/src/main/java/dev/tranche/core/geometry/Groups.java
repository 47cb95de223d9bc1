package dev.tranche.core.geometry;

/** Which of many things belong together: joined two by two, each group with one of them for its root. */
final class Groups {
    private final int[] parent;

    Groups(int count) {
        parent = new int[count];
        for (int i = 0; i < count; i++) {
            parent[i] = i;
        }
    }

    /** The lesser root stays, so that a group's root is its first. */
    void join(int a, int b) {
        int first = root(a);
        int second = root(b);
        if (first < second) {
            parent[second] = first;
        } else {
            parent[first] = second;
        }
    }

    int root(int of) {
        int at = of;
        while (parent[at] != at) {
            parent[at] = parent[parent[at]];
            at = parent[at];
        }
        return at;
    }
}
