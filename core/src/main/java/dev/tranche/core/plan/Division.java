package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How regions divide a layer among themselves; what none of them takes has the colour by height. Layers on which the same
 * zones meet have the very same division, whatever their outline is.
 */
public final class Division {
    static final Division NONE = new Division(List.of(), Optional.of(Areas.NOTHING));

    private final List<Share> shares;
    private final Optional<MultiPolygon> zones;

    /** @param cells of a region, which overlap no other region's, mm; a zone's reach beyond the model */
    public record Share(int region, List<MultiPolygon> cells) {}

    /** @param zones all cells together, where regions are zones only */
    Division(List<Share> shares, Optional<MultiPolygon> zones) {
        this.shares = List.copyOf(shares);
        this.zones = zones;
    }

    public List<Share> shares() {
        return shares;
    }

    /** All cells together, where that is known: regions are zones only. */
    public Optional<MultiPolygon> zones() {
        return zones;
    }
}
