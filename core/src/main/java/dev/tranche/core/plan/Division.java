package dev.tranche.core.plan;

import java.util.List;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How regions divide a layer among themselves; what none of them takes has the colour by height. Layers on which the same
 * zones meet have the very same division, whatever their outline is.
 */
public final class Division {
    static final Division NONE = new Division(List.of());

    private final List<Share> shares;

    /** @param cells of a region, which overlap no other region's, mm; a zone's reach beyond the model */
    public record Share(int region, List<MultiPolygon> cells) {}

    Division(List<Share> shares) {
        this.shares = List.copyOf(shares);
    }

    public List<Share> shares() {
        return shares;
    }
}
