package dev.tranche.core.plan;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;

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

    private final ColourPlan plan;
    private final CutModel model;
    private final double lineWidth;
    /** For each layer the lowest of the unbroken run of layers of its very shape. */
    private final int[] like;
    /** What has been worked out for the layers that are the lowest of their run. */
    private final Map<Integer, LayerWork.Known> known;

    private final Map<List<Shape>, Masks> masks;
    private final Map<MultiPolygon, Mask> once;
    private final List<LayerColours> layers;
    /** Computed when first asked for. */
    private List<Relief> reliefs;

    private Colouring(
            ColourPlan plan,
            CutModel model,
            double lineWidth,
            int[] like,
            Map<Integer, LayerWork.Known> before,
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
            known.computeIfAbsent(like[layer - 1], l -> new LayerWork.Known());
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
                        : new LayerWork(plan, model, lineWidth, layer, before.get(root), known.get(root))
                                .colours(
                                        active.get(layer - 1),
                                        masks.get(shapes(active.get(layer - 1))),
                                        bases[layer - 1]);
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
        Map<Integer, LayerWork.Known> kept = otherWidth == lineWidth ? known : withoutTints();
        return new Colouring(changed, model, otherWidth, like, kept, once, Progress.UNHEARD);
    }

    private Map<Integer, LayerWork.Known> withoutTints() {
        Map<Integer, LayerWork.Known> kept = new HashMap<>();
        known.forEach((layer, k) -> kept.put(layer, k.withoutTints()));
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

    /** What of {@code area} lies in the section of {@code layer}. */
    MultiPolygon within(MultiPolygon area, int layer) {
        return known.get(like[layer - 1]).within(area, model.section(layer).outline());
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
}
