package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;

/**
 * Which colours each layer of a model holds, and where.
 *
 * <p>Regions lie over the colours by height in precedence order, and the last wins: the area of a region is its own
 * section, for a zone within the model's, less all regions after it; what no region takes belongs to the tranche.
 *
 * <p>Layers of one shape are worked out once, and {@link #with} works out only what a change of the plan touches. What
 * is worked out does not depend on what was there before.
 */
public final class Colouring {
    private static final int WHOLE = -1;

    private final ColourPlan plan;
    private final CutModel model;
    private final double lineWidth;
    /** For each layer the lowest of the unbroken run of layers of its very shape. */
    private final int[] like;
    /** What has been worked out for the layers that are the lowest of their run. */
    private final Map<Integer, Known> known;

    private final Map<List<Shape>, Masks> masks;
    private final Map<MultiPolygon, Mask> once;
    private final List<LayerColours> layers;
    /** Computed when first asked for. */
    private List<Relief> reliefs;

    /**
     * What determines a cell, whatever its colour: of one part, or of the whole section where there is none, less the parts
     * {@code taken}, less the mask; or, of a zone, what lies within the mask.
     */
    private record Key(int part, Set<Integer> taken, Mask mask, boolean zone) {}

    /** What has been worked out for a layer; its section is indexed once, when first asked for. */
    private static final class Known {
        private final Map<Key, MultiPolygon> areas = new HashMap<>();
        private final Map<List<Key>, Tint> tints = new HashMap<>();
        private PreparedGeometry section;

        PreparedGeometry section(MultiPolygon outline) {
            if (section == null) {
                section = PreparedGeometryFactory.prepare(outline);
            }
            return section;
        }
    }

    private Colouring(
            ColourPlan plan,
            CutModel model,
            double lineWidth,
            int[] like,
            Map<Integer, Known> before,
            Map<MultiPolygon, Mask> onceBefore,
            Progress progress) {
        this.plan = plan;
        this.model = model;
        this.lineWidth = lineWidth;
        this.like = like;
        this.known = new HashMap<>();
        this.masks = new HashMap<>();
        this.once = new HashMap<>();
        LayerGrid grid = model.grid();
        List<int[]> reach = plan.regions().list().stream()
                .map(r -> new int[] {r.range().first(grid), r.range().last(grid)})
                .toList();
        SpoolId[] bases = bases(grid);
        List<List<Integer>> active = new ArrayList<>();
        for (int layer = 1; layer <= grid.count(); layer++) {
            int at = layer;
            List<Integer> here = IntStream.range(0, reach.size())
                    .filter(r -> reach.get(r)[0] <= at && at <= reach.get(r)[1])
                    .boxed()
                    .toList();
            active.add(here);
            List<Shape> shapes = shapes(here);
            masks.computeIfAbsent(
                    shapes,
                    s -> Masks.of(
                            s,
                            area -> once.computeIfAbsent(
                                    area, a -> onceBefore.containsKey(a) ? onceBefore.get(a) : new Mask(a))));
            known.computeIfAbsent(like[layer - 1], l -> new Known());
        }
        LayerColours[] made = new LayerColours[grid.count()];
        AtomicInteger done = new AtomicInteger();
        List<Integer> roots = known.keySet().stream().sorted().toList();
        roots.parallelStream().forEach(root -> {
            for (int layer = root; layer <= made.length && like[layer - 1] == root; layer++) {
                made[layer - 1] = layer > root
                                && active.get(layer - 1).equals(active.get(layer - 2))
                                && bases[layer - 1].equals(bases[layer - 2])
                        ? made[layer - 2]
                        : new Layer(layer, before.get(root), known.get(root))
                                .colours(active.get(layer - 1), bases[layer - 1]);
                progress.at(done.incrementAndGet(), made.length);
            }
        });
        this.layers = List.of(made);
    }

    /**
     * @param lineWidth of the plastic, mm: what is thinner does not print
     * @param progress hears layers done of all layers
     */
    public static Colouring of(ColourPlan plan, CutModel model, double lineWidth, Progress progress) {
        return new Colouring(plan, model, lineWidth, runs(model), Map.of(), Map.of(), progress);
    }

    /** The same model in other colours; what the change does not touch is taken over. */
    public Colouring with(ColourPlan changed, double otherWidth) {
        Map<Integer, Known> kept = otherWidth == lineWidth ? known : withoutTints();
        return new Colouring(changed, model, otherWidth, like, kept, once, Progress.UNHEARD);
    }

    private Map<Integer, Known> withoutTints() {
        Map<Integer, Known> kept = new HashMap<>();
        known.forEach((layer, k) -> {
            Known areas = new Known();
            areas.areas.putAll(k.areas);
            areas.section = k.section;
            kept.put(layer, areas);
        });
        return kept;
    }

    /** Whether this is what such a plan looks like. */
    public boolean isOf(ColourPlan other, double otherWidth) {
        return plan.equals(other) && lineWidth == otherWidth;
    }

    public CutModel model() {
        return model;
    }

    public ColourPlan plan() {
        return plan;
    }

    /** The colours of {@code layer}, from 1. */
    public LayerColours layer(int layer) {
        return layers.get(layer - 1);
    }

    public List<LayerColours> layers() {
        return layers;
    }

    /** How each region lies in the model, in their order. */
    public synchronized List<Relief> reliefs() {
        if (reliefs == null) {
            reliefs = IntStream.range(0, plan.regions().size())
                    .mapToObj(i -> Relief.of(this, i))
                    .toList();
        }
        return reliefs;
    }

    private static int[] runs(CutModel model) {
        int[] like = new int[model.grid().count()];
        for (int i = 0; i < like.length; i++) {
            like[i] = i > 0 && alike(model, i, i + 1) ? like[i - 1] : i + 1;
        }
        return like;
    }

    private static boolean alike(CutModel model, int below, int above) {
        for (List<Section> solid : model.solids()) {
            MultiPolygon a = solid.get(below - 1).outline();
            MultiPolygon b = solid.get(above - 1).outline();
            if (a != b && !a.equalsExact(b)) {
                return false;
            }
        }
        return true;
    }

    private SpoolId[] bases(LayerGrid grid) {
        SpoolId[] bases = new SpoolId[grid.count()];
        for (Tranche tranche : plan.tranches(grid)) {
            Arrays.fill(bases, tranche.firstLayer() - 1, tranche.lastLayer(), tranche.spool());
        }
        return bases;
    }

    private List<Shape> shapes(List<Integer> active) {
        return active.stream().map(r -> plan.regions().get(r).shape()).toList();
    }

    /** The work on one layer. */
    private final class Layer {
        private final int layer;
        private final Known before;
        private final Known now;

        Layer(int layer, Known before, Known now) {
            this.layer = layer;
            this.before = before == null ? new Known() : before;
            this.now = now;
            now.section = this.before.section;
        }

        LayerColours colours(List<Integer> active, SpoolId base) {
            Masks m = masks.get(shapes(active));
            Map<SpoolId, List<Key>> bySpool = new LinkedHashMap<>();
            plan.palette().forEach(s -> bySpool.put(s, new ArrayList<>()));
            List<Field> fields = new ArrayList<>();
            List<List<Integer>> owned = owned(active, m);
            field(fields, bySpool, Field.BASE, base, base(owned, m));
            Set<Integer> later = new HashSet<>(m.parts());
            for (int i = 0; i < active.size(); i++) {
                Region region = plan.regions().get(active.get(i));
                later.removeAll(owned.get(i));
                List<Key> keys = region.shape() instanceof Shape.Zone
                        ? List.of(
                                new Key(WHOLE, m.partsAfter().get(i), m.masks().get(i), true))
                        : cells(owned.get(i), later, m.masks().get(i));
                field(fields, bySpool, active.get(i), region.spool(), keys);
            }
            List<Tint> tints = new ArrayList<>();
            bySpool.forEach((spool, keys) -> {
                Tint tint = tint(keys);
                if (!tint.isEmpty()) {
                    tints.add(tint.in(spool));
                }
            });
            return new LayerColours(List.copyOf(fields), List.copyOf(tints));
        }

        private void field(
                List<Field> fields, Map<SpoolId, List<Key>> bySpool, int region, SpoolId spool, List<Key> keys) {
            fields.add(new Field(region, spool, keys.stream().map(this::area).toList()));
            bySpool.get(spool).addAll(keys);
        }

        /** For each active region the parts that it colours on this layer: those that no later region takes. */
        private List<List<Integer>> owned(List<Integer> active, Masks m) {
            List<List<Integer>> owned = new ArrayList<>();
            for (int i = 0; i < active.size(); i++) {
                Set<Integer> after = m.partsAfter().get(i);
                owned.add(
                        plan.regions().get(active.get(i)).shape() instanceof Shape.Parts p
                                ? p.numbers().stream()
                                        .filter(n -> n < model.solids().size() && !after.contains(n))
                                        .toList()
                                : List.of());
            }
            return owned;
        }

        /** The colour by height: all of the section, or the parts that no region colours, less what regions take. */
        private List<Key> base(List<List<Integer>> owned, Masks m) {
            if (m.parts().isEmpty()) {
                return List.of(new Key(WHOLE, Set.of(), m.zones(), false));
            }
            List<Integer> rest = IntStream.range(0, model.solids().size())
                    .filter(n -> !m.parts().contains(n))
                    .boxed()
                    .toList();
            return cells(rest, m.parts(), m.zones());
        }

        /**
         * Parts of one region, each less the parts of later regions and less those before it, so that no two overlap.
         */
        private List<Key> cells(List<Integer> parts, Set<Integer> later, Mask mask) {
            List<Key> keys = new ArrayList<>();
            for (int i = 0; i < parts.size(); i++) {
                int part = parts.get(i);
                Envelope box = model.section(part, layer).outline().getEnvelopeInternal();
                if (box.isNull()) {
                    continue;
                }
                Set<Integer> taken = new TreeSet<>();
                later.stream().filter(n -> meets(n, box)).forEach(taken::add);
                parts.subList(0, i).stream().filter(n -> meets(n, box)).forEach(taken::add);
                keys.add(new Key(part, taken, mask, false));
            }
            return keys;
        }

        private boolean meets(int part, Envelope box) {
            return part < model.solids().size()
                    && model.section(part, layer)
                            .outline()
                            .getEnvelopeInternal()
                            .intersects(box);
        }

        private MultiPolygon area(Key key) {
            MultiPolygon at = now.areas.get(key);
            if (at == null) {
                at = before.areas.get(key);
                at = at == null ? workOut(key) : at;
                now.areas.put(key, at);
            }
            return at;
        }

        private MultiPolygon workOut(Key key) {
            MultiPolygon area = key.part() == WHOLE
                    ? model.section(layer).outline()
                    : model.section(key.part(), layer).outline();
            if (key.zone()) {
                area = within(key.mask().area(), area);
            }
            for (int part : key.taken()) {
                if (part < model.solids().size()) {
                    area = Areas.difference(area, model.section(part, layer).outline());
                }
            }
            return key.zone() ? area : without(area, key.mask().area());
        }

        /** What of a mask lies in the section: nearly always all of it or nothing. */
        private MultiPolygon within(MultiPolygon mask, MultiPolygon section) {
            PreparedGeometry all = now.section(section);
            return all.containsProperly(mask)
                    ? mask
                    : all.disjoint(mask) ? Areas.NOTHING : Areas.intersection(mask, section);
        }

        private MultiPolygon without(MultiPolygon area, MultiPolygon mask) {
            boolean whole = area == model.section(layer).outline();
            return whole && !mask.isEmpty() && now.section(area).containsProperly(mask)
                    ? Areas.punched(area, mask)
                    : Areas.difference(area, mask);
        }

        private Tint tint(List<Key> keys) {
            Tint tint = now.tints.get(keys);
            if (tint == null) {
                tint = before.tints.get(keys);
                tint = tint == null ? Tint.of(keys.stream().map(this::area).toList(), lineWidth) : tint;
                now.tints.put(List.copyOf(keys), tint);
            }
            return tint;
        }
    }
}
