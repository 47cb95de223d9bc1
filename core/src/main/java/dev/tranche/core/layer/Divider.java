package dev.tranche.core.layer;

import java.util.List;
import org.locationtech.jts.geom.MultiPolygon;

/** Says who takes what of an area, by that alone: the very same divider divides the very same area alike. */
@FunctionalInterface
public interface Divider {
    /** What is taken of an area, in parts that do not overlap, mm. */
    List<Taken> divide(MultiPolygon area);

    /** What of an area somebody takes, by a number that is the divider's. */
    record Taken(int taker, MultiPolygon area) {}
}
