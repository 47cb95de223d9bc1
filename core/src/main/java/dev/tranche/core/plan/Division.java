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
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
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
    /** What may have become of what had the colour by height in another, as long as that is known. */
    private final Map<Division, Since> onBase = new WeakHashMap<>();

    /**
     * @param shape of the region on this layer
     * @param cells of a region, which overlap no other region's, mm; a zone's reach beyond the model
     */
    public record Share(int region, Shape shape, List<MultiPolygon> cells) {
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
     * it. And of zones, none takes any of what was another's because that comes later, as long as it does.
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
        Since since = taker == Field.BASE ? onBase(was) : since(was, taker);
        Division looked = taker == Field.BASE || since.others == this
                ? since.others
                : since.others.near(area.getEnvelopeInternal(), since.rest == Field.BASE ? zones : Optional.empty());
        return looked.divide(area).stream()
                .map(t -> t.taker() == Field.BASE ? new Taken(since.rest, t.area()) : t)
                .toList();
    }

    /**
     * What may have become of what one region took in another division.
     *
     * @param others regions that may have some of it now
     * @param rest who has what those leave
     */
    private record Since(Division others, int rest) {}

    /** The very same each time, since nearly all that is seen has the colour by height. */
    private synchronized Since onBase(Division was) {
        return onBase.computeIfAbsent(was, w -> since(w, Field.BASE));
    }

    private Since since(Division was, int taker) {
        Set<MultiPolygon> elsewhere = Collections.newSetFromMap(new IdentityHashMap<>());
        elsewhere.addAll(was.cells(share -> share.region() != taker));
        List<Share> left = each(shares, c -> elsewhere.contains(c) ? Areas.NOTHING : c);
        if (zones.isEmpty() || was.zones.isEmpty()) {
            boolean all = cells(left).size() == cells(shares).size();
            return new Since(all ? this : new Division(left, Optional.empty()), Field.BASE);
        }
        Set<Shape> over = Collections.newSetFromMap(new IdentityHashMap<>());
        was.shares.stream().filter(s -> s.region() > taker).map(Share::shape).forEach(over::add);
        int rest = was.shares.stream()
                .filter(s -> s.region() == taker)
                .flatMap(then -> shares.stream().filter(now -> now.shape() == then.shape()))
                .mapToInt(Share::region)
                .max()
                .orElse(Field.BASE);
        List<Share> others = left.stream()
                .filter(s -> s.region() > rest && !over.contains(s.shape()))
                .toList();
        return new Since(new Division(others, Optional.empty()), rest);
    }

    /**
     * Only what may reach into {@code box}.
     *
     * @param together all that leave the colour by height nothing there, where that is known: else it has to be worked out
     */
    private Division near(Envelope box, Optional<MultiPolygon> together) {
        return new Division(each(shares, c -> Areas.near(c, box)), together.map(z -> Areas.near(z, box)));
    }

    private static List<Share> each(List<Share> shares, UnaryOperator<MultiPolygon> of) {
        return shares.stream()
                .map(share -> new Share(
                        share.region(),
                        share.shape(),
                        share.cells().stream().map(of).filter(c -> !c.isEmpty()).toList()))
                .filter(share -> !share.cells().isEmpty())
                .toList();
    }

    private static List<MultiPolygon> cells(List<Share> of) {
        return of.stream().flatMap(s -> s.cells().stream()).toList();
    }

    private List<MultiPolygon> cells(Predicate<Share> of) {
        return cells(shares.stream().filter(of).toList());
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
            taken = Areas.union(cells(shares));
        }
        return taken;
    }
}
