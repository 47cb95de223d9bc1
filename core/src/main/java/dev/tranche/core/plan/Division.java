package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Sheet;
import dev.tranche.core.layer.Divider;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How regions divide a layer among themselves; what none of them takes has the colour by height. Layers on which the same
 * zones meet have the very same division, whatever their outline is.
 */
public final class Division implements Divider {
    static final Division NONE = new Division(List.of(), Optional.of(Areas.NOTHING));

    private final List<Share> shares;
    private final Optional<MultiPolygon> zones;
    /** All cells together where they are not zones; computed when first asked for. */
    private MultiPolygon taken;

    private final Map<Set<Integer>, Divider> only = new ConcurrentHashMap<>();

    /** @param cells of a region, which overlap no other region's, mm; a zone's reach beyond the model */
    public record Share(int region, List<MultiPolygon> cells) {
        /** Whether any of its cells may reach into {@code box}. */
        public boolean comesNear(Envelope box) {
            return cells.stream().anyMatch(c -> c.getEnvelopeInternal().intersects(box));
        }
    }

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
        return divide(area, region -> true);
    }

    /**
     * Cells of this and of that are often the very same: in one of them nothing else takes anything, and outside of it neither does
     * it.
     */
    @Override
    public List<Taken> divide(MultiPolygon area, Divider before, int taker) {
        if (!(before instanceof Division was)) {
            return divide(area);
        }
        List<MultiPolygon> own = was.cells(share -> share.region() == taker);
        for (Share share : shares) {
            if (own.size() == 1 && share.cells().stream().anyMatch(c -> c == own.get(0))) {
                return List.of(new Taken(share.region(), area));
            }
        }
        Set<MultiPolygon> elsewhere = Collections.newSetFromMap(new IdentityHashMap<>());
        elsewhere.addAll(was.cells(share -> share.region() != taker));
        List<Share> left = shares.stream()
                .map(share -> new Share(
                        share.region(),
                        share.cells().stream()
                                .filter(c -> !elsewhere.contains(c))
                                .toList()))
                .filter(share -> !share.cells().isEmpty())
                .toList();
        Division looked = new Division(left, Optional.empty());
        return looked.cells(share -> true).size() == cells(share -> true).size() ? divide(area) : looked.divide(area);
    }

    private List<MultiPolygon> cells(Predicate<Share> of) {
        return shares.stream().filter(of).flatMap(s -> s.cells().stream()).toList();
    }

    /** Says of those regions only what they take; the very same each time. */
    public Divider only(Set<Integer> regions) {
        return only.computeIfAbsent(Set.copyOf(regions), wanted -> area -> divide(area, wanted::contains));
    }

    private List<Taken> divide(MultiPolygon area, IntPredicate wanted) {
        List<Taken> parts = new ArrayList<>();
        Sheet sheet = new Sheet(area);
        for (Share share : shares) {
            for (MultiPolygon cell : wanted.test(share.region()) ? share.cells() : List.<MultiPolygon>of()) {
                add(parts, share.region(), Areas.clean(sheet.within(cell)));
            }
        }
        if (wanted.test(Field.BASE)) {
            boolean untouched = parts.isEmpty() && shares.stream().allMatch(s -> wanted.test(s.region()));
            add(parts, Field.BASE, untouched ? area : Areas.clean(rest(sheet)));
        }
        return parts;
    }

    private static void add(List<Taken> parts, int region, MultiPolygon area) {
        if (!area.isEmpty()) {
            parts.add(new Taken(region, area));
        }
    }

    private MultiPolygon rest(Sheet sheet) {
        return zones.map(sheet::without).orElseGet(() -> Areas.difference(sheet.outline(), taken()));
    }

    private synchronized MultiPolygon taken() {
        if (taken == null) {
            taken = Areas.union(shares.stream().flatMap(s -> s.cells().stream()).toList());
        }
        return taken;
    }
}
