package dev.tranche.core.layer;

import java.util.List;
import org.locationtech.jts.geom.MultiPolygon;

/** Says who takes what of an area, by that alone: the very same divider divides the very same area alike. */
@FunctionalInterface
public interface Divider {
    /** What is taken of an area, in parts that do not overlap, mm. */
    List<Taken> divide(MultiPolygon area);

    /**
     * As {@link #divide(MultiPolygon)}, of an area that lies in what another divider said is taken: who divides much as that did
     * need not look again at what cannot be there.
     */
    default List<Taken> divide(MultiPolygon area, Divider before, int taker) {
        return divide(area);
    }

    /** What of an area somebody takes, by a number that is the divider's. */
    record Taken(int taker, MultiPolygon area) {}
}
