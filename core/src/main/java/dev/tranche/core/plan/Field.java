package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import java.util.List;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * What one region, or the colour by height, has of a layer after precedence.
 *
 * @param region its place in the order, {@link #BASE} for the colour by height
 * @param cells areas that do not overlap, mm; together the field. They may touch, so that only one by one they are
 *     valid input for further overlays
 * @param squareMillimetres its size
 */
public record Field(int region, SpoolId spool, List<MultiPolygon> cells, double squareMillimetres) {
    public static final int BASE = -1;

    /** Its cells taken together; worked out at every call. */
    public MultiPolygon area() {
        return Areas.union(cells);
    }

    public boolean isEmpty() {
        return cells.stream().allMatch(MultiPolygon::isEmpty);
    }
}
