package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * The regions that reach a layer, worked out among themselves once for all layers they reach: zones are the same at
 * every height, so only what is left of them has to be laid over each section.
 *
 * @param masks for each region: of a zone, what no later zone takes; of parts, what later zones take from them
 * @param partsAfter for each region the parts that later regions take
 * @param zones all zones together
 * @param parts all parts that a region colours
 */
record Masks(List<Mask> masks, List<Set<Integer>> partsAfter, Mask zones, Set<Integer> parts) {

    /** @param once answers the one mask there is of an area */
    static Masks of(List<Shape> shapes, Function<MultiPolygon, Mask> once) {
        List<Mask> masks = new ArrayList<>();
        List<Set<Integer>> partsAfter = new ArrayList<>();
        MultiPolygon taken = Areas.NOTHING;
        Set<Integer> parts = new HashSet<>();
        for (int i = shapes.size() - 1; i >= 0; i--) {
            partsAfter.add(Set.copyOf(parts));
            if (shapes.get(i) instanceof Shape.Zone zone) {
                MultiPolygon area = zone.area();
                masks.add(once.apply(Areas.difference(area, taken)));
                taken = Areas.union(List.of(taken, area));
            } else {
                masks.add(once.apply(taken));
                parts.addAll(((Shape.Parts) shapes.get(i)).numbers());
            }
        }
        Collections.reverse(masks);
        Collections.reverse(partsAfter);
        return new Masks(masks, partsAfter, once.apply(taken), Set.copyOf(parts));
    }
}
