package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The regions that reach a layer.
 *
 * @param regions their places in the order
 * @param shapes what they are there: parts or zones
 */
record Reach(List<Integer> regions, List<Shape> shapes) {

    /** Of each layer; the very same as of the layer beneath where nothing changes. */
    static List<Reach> of(Regions regions, LayerGrid grid) {
        List<Reach> reaches = new ArrayList<>();
        List<int[]> ranges = regions.list().stream()
                .map(r -> new int[] {r.range().first(grid), r.range().last(grid)})
                .toList();
        for (int layer = 1; layer <= grid.count(); layer++) {
            List<Integer> here = new ArrayList<>();
            List<Shape> shapes = new ArrayList<>();
            for (int i = 0; i < ranges.size(); i++) {
                if (ranges.get(i)[0] <= layer && layer <= ranges.get(i)[1]) {
                    Optional<Shape> shape = regions.get(i).shape().on(layer, grid);
                    if (shape.isPresent()) {
                        here.add(i);
                        shapes.add(shape.get());
                    }
                }
            }
            Reach below = layer == 1 ? null : reaches.get(layer - 2);
            reaches.add(
                    below != null && below.regions.equals(here) && areSame(below.shapes, shapes)
                            ? below
                            : new Reach(here, shapes));
        }
        return reaches;
    }

    private static boolean areSame(List<Shape> some, List<Shape> others) {
        for (int i = 0; i < some.size(); i++) {
            if (some.get(i) != others.get(i)) {
                return false;
            }
        }
        return true;
    }

    boolean isOfZones() {
        return shapes.stream().allMatch(s -> s instanceof Shape.Zone);
    }
}
