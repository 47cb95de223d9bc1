package dev.tranche.core.plan;

import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Outlooks;
import dev.tranche.core.layer.UprightCut;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

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
    private final Map<Corners, Mask> once;
    private final List<LayerColours> layers;
    /** Computed when first asked for. */
    private List<Relief> reliefs;
    /** Computed when first asked for; what an earlier plan was seen as, until then. */
    private Front front;

    /** The colours seen from the front, with the layers they were seen on. */
    private record Front(List<LayerColours> layers, Strata strata) {}

    /** For each layer the regions that reach it, and the spool of the colour by height. */
    private final List<Reach> reaches;

    private final SpoolId[] bases;
    private final Covers covers;
    private final Outlooks outlooks;

    private final List<Division> divisions;

    /** @param before what it was in other colours, if it was anything; what the change does not touch is taken over */
    private Colouring(
            ColourPlan plan,
            CutModel model,
            double lineWidth,
            int[] like,
            Optional<Colouring> before,
            Progress progress) {
        this.plan = plan;
        this.model = model;
        this.lineWidth = lineWidth;
        this.like = like;
        this.covers = before.map(b -> b.covers).orElseGet(Covers::new);
        this.outlooks = before.map(b -> b.outlooks).orElseGet(() -> new Outlooks(model));
        this.reaches = Reach.of(plan.regions(), model.grid());
        this.bases = bases(model.grid());
        this.known = new HashMap<>();
        this.masks = new ConcurrentHashMap<>();
        this.once = new ConcurrentHashMap<>();
        boolean sameWidth = before.isPresent() && before.get().lineWidth == lineWidth;
        boolean sameLetters = before.isPresent() && goesOnWith(before.get().plan.palette());
        this.front = before.map(b -> b.front).orElse(null);
        LayerColours[] made = new LayerColours[like.length];
        List<Integer> roots = new ArrayList<>();
        Set<List<Shape>> sought = new LinkedHashSet<>();
        for (int root = 1; root <= like.length; root = end(root) + 1) {
            if (sameWidth && sameLetters && isAsIn(before.get(), root, end(root))) {
                known.put(root, before.get().known.get(root));
                for (int layer = root; layer <= end(root); layer++) {
                    made[layer - 1] = before.get().layers.get(layer - 1);
                }
            } else {
                roots.add(root);
                known.put(root, new LayerWork.Known());
                for (int layer = root; layer <= end(root); layer++) {
                    sought.add(reaches.get(layer - 1).shapes());
                }
            }
        }
        sought.parallelStream().forEach(shapes -> {
            progress.at(0, made.length);
            mask(shapes, before);
        });
        AtomicInteger done = new AtomicInteger(made.length - roots.size());
        roots.parallelStream().forEach(root -> {
            LayerWork.Known was = before.map(b -> b.known.get(root))
                    .map(k -> sameWidth ? k : k.withoutTints())
                    .orElse(null);
            for (int layer = root; layer <= end(root); layer++) {
                made[layer - 1] = layer > root
                                && reaches.get(layer - 1) == reaches.get(layer - 2)
                                && bases[layer - 1].equals(bases[layer - 2])
                        ? made[layer - 2]
                        : new LayerWork(plan, model, lineWidth, layer, was, known.get(root))
                                .colours(
                                        reaches.get(layer - 1),
                                        masks.get(reaches.get(layer - 1).shapes()),
                                        bases[layer - 1]);
            }
            progress.at(Math.min(done.incrementAndGet(), made.length), made.length);
        });
        this.layers = List.of(made);
        this.divisions = divisions(before);
    }

    /** Where the same regions divide a layer as did before, whatever their colours, it is the very same division. */
    private List<Division> divisions(Optional<Colouring> before) {
        List<Division> made = new ArrayList<>(like.length);
        boolean asBefore = false;
        for (int i = 0; i < like.length; i++) {
            Reach here = reaches.get(i);
            boolean asBelow = i > 0 && here == reaches.get(i - 1);
            if (before.isPresent()) {
                Colouring old = before.get();
                Reach was = old.reaches.get(i);
                boolean known = asBelow && was == old.reaches.get(i - 1);
                asBefore = known ? asBefore : here.equals(was);
            }
            if (asBefore) {
                made.add(before.orElseThrow().divisions.get(i));
            } else if (asBelow && (like[i] == like[i - 1] || here.isOfZones())) {
                made.add(made.get(i - 1));
            } else {
                made.add(division(here, masks.get(here.shapes()), layers.get(i)));
            }
        }
        return List.copyOf(made);
    }

    private static Division division(Reach reach, Masks masks, LayerColours colours) {
        List<Integer> active = reach.regions();
        if (active.isEmpty()) {
            return Division.NONE;
        }
        boolean zonesOnly = masks.parts().isEmpty();
        return new Division(
                IntStream.range(0, active.size())
                        .mapToObj(i -> new Division.Share(
                                active.get(i),
                                reach.shapes().get(i),
                                zonesOnly
                                        ? List.of(masks.masks().get(i).area())
                                        : colours.field(active.get(i))
                                                .map(Field::cells)
                                                .orElse(List.of())))
                        .toList(),
                Optional.of(masks.zones().area()).filter(z -> zonesOnly));
    }

    /** How regions divide {@code layer}, from 1. */
    public Division division(int layer) {
        return divisions.get(layer - 1);
    }

    /** The spool of the colour by height on {@code layer}, from 1. */
    public SpoolId base(int layer) {
        return bases[layer - 1];
    }

    /** What of the model is seen, whatever its colours; all its colourings share them. */
    public Outlooks outlooks() {
        return outlooks;
    }

    /** The last layer of the run that begins with {@code root}. */
    private int end(int root) {
        int layer = root;
        while (layer < like.length && like[layer] == root) {
            layer++;
        }
        return layer;
    }

    private boolean goesOnWith(List<SpoolId> letters) {
        return letters.size() <= plan.palette().size()
                && letters.equals(plan.palette().subList(0, letters.size()));
    }

    /** Whether a run of layers looks as it did: the same regions in the same colours over the same base. */
    private boolean isAsIn(Colouring before, int root, int end) {
        for (int layer = root; layer <= end; layer++) {
            Reach here = reaches.get(layer - 1);
            if (!bases[layer - 1].equals(before.bases[layer - 1]) || !here.equals(before.reaches.get(layer - 1))) {
                return false;
            }
            for (int region : here.regions()) {
                if (!plan.regions()
                        .get(region)
                        .spool()
                        .equals(before.plan.regions().get(region).spool())) {
                    return false;
                }
            }
        }
        return true;
    }

    private void mask(List<Shape> shapes, Optional<Colouring> before) {
        Optional<Masks> was = before.map(b -> b.masks.get(shapes));
        was.ifPresent(m -> m.all().forEach(mask -> once.putIfAbsent(Corners.of(mask.area()), mask)));
        masks.put(shapes, was.orElseGet(() -> masks(shapes, before)));
    }

    private Masks masks(List<Shape> shapes, Optional<Colouring> before) {
        Map<Corners, Mask> known = before.map(b -> b.once).orElse(Map.of());
        return Masks.of(
                shapes,
                area -> once.computeIfAbsent(
                        Corners.of(area), c -> known.containsKey(c) ? known.get(c) : new Mask(area)));
    }

    /** An area by all its corners. JTS tells areas apart by the box round them first, and layers of a painting share boxes. */
    private record Corners(MultiPolygon area, int hash) {
        static Corners of(MultiPolygon area) {
            int hash = 0;
            for (int i = 0; i < area.getNumGeometries(); i++) {
                CoordinateSequence rim =
                        ((Polygon) area.getGeometryN(i)).getExteriorRing().getCoordinateSequence();
                for (int k = 0; k < rim.size(); k++) {
                    // Minus nothing is nothing.
                    hash = 31 * hash + Double.hashCode(rim.getX(k) + 0.0);
                    hash = 31 * hash + Double.hashCode(rim.getY(k) + 0.0);
                }
            }
            return new Corners(area, hash);
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Corners c && c.hash == hash && c.area.equalsExact(area);
        }

        @Override
        public int hashCode() {
            return hash;
        }
    }

    Covers covers() {
        return covers;
    }

    /**
     * @param lineWidth of the plastic, mm: what is thinner does not print
     * @param progress hears layers done of all layers
     */
    public static Colouring of(ColourPlan plan, CutModel model, double lineWidth, Progress progress) {
        return new Colouring(plan, model, lineWidth, runs(model), Optional.empty(), progress);
    }

    /** The same model in other colours; what the change does not touch is taken over. */
    public Colouring with(ColourPlan changed, double otherWidth) {
        return new Colouring(changed, model, otherWidth, like, Optional.of(this), Progress.UNHEARD);
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
        return known.get(like[layer - 1]).sheet(model.section(layer).outline()).within(area);
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

    /**
     * The colours seen from the front. Where an earlier plan was cut at the same place, layers that look as they did are
     * taken over.
     *
     * @param plain the model's own most telling cut
     */
    public synchronized Strata strata(UprightCut plain) {
        if (front == null || front.layers() != layers) {
            double y = Strata.mostTelling(this, plain);
            boolean there = front != null && front.strata().y() == y;
            List<LayerColours> seen = there ? front.layers() : List.of();
            front = new Front(layers, Strata.at(this, y, seen, there ? front.strata() : null));
        }
        return front.strata();
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
}
