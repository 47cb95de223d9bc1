package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Sheet;
import dev.tranche.core.layer.Divider;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How regions divide a layer among themselves; what none of them takes has the colour by height. Layers on which the same
 * zones meet have the very same division, whatever their outline is.
 */
public final class Division implements Divider {
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

    @Override
    public List<Taken> divide(MultiPolygon area) {
        List<Taken> parts = new ArrayList<>();
        Sheet sheet = new Sheet(area);
        for (Share share : shares) {
            for (MultiPolygon cell : share.cells()) {
                add(parts, share.region(), Areas.clean(sheet.within(cell)));
            }
        }
        add(parts, Field.BASE, parts.isEmpty() ? area : Areas.clean(rest(sheet)));
        return parts;
    }

    private static void add(List<Taken> parts, int region, MultiPolygon area) {
        if (!area.isEmpty()) {
            parts.add(new Taken(region, area));
        }
    }

    private MultiPolygon rest(Sheet sheet) {
        return zones.map(sheet::without)
                .orElseGet(() -> Areas.difference(
                        sheet.outline(),
                        Areas.union(
                                shares.stream().flatMap(s -> s.cells().stream()).toList())));
    }
}
