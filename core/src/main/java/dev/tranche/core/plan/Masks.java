package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
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

    /** Each of them, and what they are together. */
    Stream<Mask> all() {
        return Stream.concat(masks.stream(), Stream.of(zones));
    }

    /** @param once answers the one mask there is of an area */
    static Masks of(List<Shape> shapes, Function<MultiPolygon, Mask> once) {
        List<Mask> masks = new ArrayList<>();
        List<Set<Integer>> partsAfter = new ArrayList<>();
        // Apart from one another, so that a zone is laid only over those near it.
        List<MultiPolygon> taken = new ArrayList<>();
        Set<Integer> parts = new HashSet<>();
        for (int i = shapes.size() - 1; i >= 0; i--) {
            partsAfter.add(Set.copyOf(parts));
            if (shapes.get(i) instanceof Shape.Zone zone) {
                MultiPolygon area = zone.area();
                List<MultiPolygon> near = taken.stream()
                        .filter(t -> t.getEnvelopeInternal().intersects(area.getEnvelopeInternal()))
                        .toList();
                MultiPolygon over = Areas.together(near);
                masks.add(once.apply(Areas.difference(area, over)));
                taken.removeAll(near);
                taken.add(Areas.union(List.of(over, area)));
            } else {
                masks.add(once.apply(Areas.together(taken)));
                parts.addAll(((Shape.Parts) shapes.get(i)).numbers());
            }
        }
        Collections.reverse(masks);
        Collections.reverse(partsAfter);
        return new Masks(masks, partsAfter, once.apply(Areas.together(taken)), Set.copyOf(parts));
    }
}
