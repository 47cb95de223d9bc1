package dev.tranche.core.coat;

import dev.tranche.core.coat.Patches.Patch;
import dev.tranche.core.format.Coat;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * What the coats of a model's solids come to on each layer. A colour reaches as deep as it takes to hide what lies behind: from a
 * wall so many lines into the layer, from a face that looks up or down so many layers. The outermost line of a wall is all its
 * own, as lines are laid; deeper, a place has the colour of the nearest wall or face. What is deeper still has the colour that
 * covers most of its solid, and so have walls of that colour: no region is made of it.
 */
public final class Coating {
    /** What outlines are called, and told by. */
    private static final String ORIGIN = "Painted on the model";

    /** Of what is beneath a coat, and of what the file gives no colour. */
    private static final int BENEATH = 0;

    private static final int FEWEST_LINES = 2;
    private static final int MOST_LINES = 4;
    private static final int FEWEST_LAYERS = 2;
    /** mm */
    private static final double DEEPEST = 2;

    private final CutModel model;
    private final double lineWidth;
    private final Progress progress;
    private final int[] middles;
    private final Envelope reach;
    private final List<Coated> coated = new ArrayList<>();
    /** Shown, and without a coat. */
    private final List<Integer> bare;

    private final List<Spool> spools = new ArrayList<>();

    private Coating(
            CutModel model,
            Map<Integer, Coat> coats,
            Function<Coat.Hue, Spool> choice,
            double lineWidth,
            Progress progress) {
        this.model = model;
        this.lineWidth = lineWidth;
        this.progress = progress;
        this.middles = model.grid().middles();
        this.reach = model.footprint();
        Map<Integer, Coat> shown = new TreeMap<>(coats);
        shown.keySet().removeAll(model.hidden());
        shown.forEach((solid, coat) -> coated.add(new Coated(solid, coat, choice)));
        this.bare = IntStream.range(0, model.solids().size())
                .filter(i -> !model.hidden().contains(i) && !shown.containsKey(i))
                .boxed()
                .toList();
    }

    /**
     * @param coats of its solids, by their numbers
     * @param choice the spools that colours are printed with; asked once for each that has a colour
     * @param lineWidth mm
     * @param progress hears layers done of all layers
     * @return to be added last, the ones of a spool one after the other
     * @throws Refusal if colours change their outlines too often, or there are more than a plan holds
     */
    public static List<Region> regions(
            CutModel model,
            Map<Integer, Coat> coats,
            Function<Coat.Hue, Spool> choice,
            double lineWidth,
            Progress progress) {
        return new Coating(model, coats, choice, lineWidth, progress).regions();
    }

    /** @throws Refusal if so many colours, with those of the coats, are more than a plan holds */
    public static void requireRoom(int colours) {
        if (colours > ColourPlan.MOST_SPOOLS) {
            throw Refusal.of(
                    "With what is painted on the outside the plan would have %d colours or more, and it holds %d spools; paint the model in fewer.",
                    colours, ColourPlan.MOST_SPOOLS);
        }
    }

    /** Whether a region was made of a coat, whatever it is called and wherever it is now. */
    public static boolean made(Region region) {
        return region.shape() instanceof Shape.Zone zone && isOf(zone)
                || region.shape() instanceof Shape.Trace trace
                        && trace.courses().stream()
                                .flatMap(c -> c.zone().stream())
                                .allMatch(Coating::isOf);
    }

    private static boolean isOf(Shape.Zone zone) {
        return zone.outline().title().equals(ORIGIN);
    }

    private List<Region> regions() {
        Patches patches = new Patches(lineWidth, BENEATH);
        int count = model.grid().count();
        int together = 2 * Runtime.getRuntime().availableProcessors();
        for (int from = 1; from <= count; from += together) {
            int to = Math.min(count, from + together - 1);
            List<Painted> painted = IntStream.rangeClosed(from, to)
                    .parallel()
                    .mapToObj(this::painted)
                    .toList();
            int lowest = from;
            IntStream.rangeClosed(1, spools.size()).parallel().forEach(label -> {
                for (int layer = lowest; layer <= to; layer++) {
                    Painted it = painted.get(layer - lowest);
                    if (it.labels().contains(label)) {
                        patches.add(
                                label, layer, it.canvas(), model.section(layer).outline());
                    }
                }
            });
            progress.at(to, count);
        }
        Map<Integer, List<Patch>> bySpool =
                patches.all().stream().collect(Collectors.groupingBy(Patch::label, TreeMap::new, Collectors.toList()));
        List<Region> regions = new ArrayList<>();
        bySpool.forEach((label, its) -> {
            Spool spool = spools.get(label - 1);
            regions.addAll(Patches.regions(its, spool.name() + " as painted", ORIGIN, spool.id(), model.grid()));
        });
        return regions;
    }

    /** A layer, and the labels there are on it. */
    private record Painted(Canvas canvas, List<Integer> labels) {}

    private Painted painted(int layer) {
        Canvas canvas = new Canvas(reach, model.section(layer).outline());
        boolean several = coated.size() + bare.size() > 1;
        for (Coated solid : coated) {
            if (several) {
                canvas.within(model.section(solid.number, layer).outline());
            }
            solid.paint(layer, canvas);
            canvas.rest(BENEATH);
        }
        for (int solid : bare) {
            canvas.within(model.section(solid, layer).outline());
            canvas.cover(BENEATH);
        }
        List<Integer> labels = IntStream.rangeClosed(1, spools.size())
                .filter(canvas::shows)
                .boxed()
                .toList();
        if (!labels.isEmpty()) {
            canvas.narrow(lineWidth, BENEATH);
            canvas.grow();
        }
        return new Painted(canvas, labels);
    }

    private int label(Spool spool) {
        if (!spools.contains(spool)) {
            requireRoom(spools.size() + 2);
            spools.add(spool);
        }
        return spools.indexOf(spool) + 1;
    }

    /** A solid with a coat. */
    private final class Coated {
        private final int number;
        private final Coat coat;
        private final Mesh mesh;
        private final int[] labels;
        /** Behind faces, mm. */
        private final double depth;
        /** Behind walls, mm. */
        private final double wall;
        /** Triangles by their lowest corners, and how low those are, µm. */
        private final int[] rising;

        private final int[] lows;
        /** Of the highest triangle, µm. */
        private final int tallest;

        Coated(int number, Coat coat, Function<Coat.Hue, Spool> choice) {
            this.number = number;
            this.coat = coat;
            this.mesh = model.body().solids().get(number);
            List<Optional<Spool>> chosen = coat.hues().stream()
                    .map(hue -> hue.colour().map(colour -> choice.apply(hue)))
                    .toList();
            Optional<Spool> most = chosen.get(0);
            this.labels = chosen.stream()
                    .mapToInt(s -> s.isEmpty() || s.equals(most) ? BENEATH : label(s.get()))
                    .toArray();
            this.depth = depth(chosen.stream().flatMap(Optional::stream).toList());
            this.wall = lineWidth * Math.max(FEWEST_LINES, Math.min(MOST_LINES, Math.ceil(depth / lineWidth)));
            long[] keys = new long[mesh.triangles()];
            int high = 0;
            for (int t = 0; t < keys.length; t++) {
                keys[t] = (long) low(t) << 32 | t;
                high = Math.max(high, high(t) - low(t));
            }
            Arrays.parallelSort(keys);
            this.rising = Arrays.stream(keys).mapToInt(key -> (int) key).toArray();
            this.lows = Arrays.stream(keys).mapToInt(key -> (int) (key >> 32)).toArray();
            this.tallest = high;
        }

        /** Of all its colours, or one would spread behind its neighbours. */
        private double depth(List<Spool> all) {
            int layers = all.stream()
                    .flatMapToInt(own -> all.stream().mapToInt(behind -> Inlay.layersToHide(model, own, behind)))
                    .max()
                    .orElse(FEWEST_LAYERS);
            double thickness = model.grid().layerHeight().millimetres();
            return Math.max(FEWEST_LAYERS * thickness, Math.min(DEEPEST, layers * thickness));
        }

        private int low(int t) {
            return Math.min(mesh.z(3 * t), Math.min(mesh.z(3 * t + 1), mesh.z(3 * t + 2)));
        }

        private int high(int t) {
            return Math.max(mesh.z(3 * t), Math.max(mesh.z(3 * t + 1), mesh.z(3 * t + 2)));
        }

        void paint(int layer, Canvas canvas) {
            int plane = middles[layer - 1];
            int far = (int) Math.ceil(1000 * DEEPEST);
            for (int i = firstFrom(plane / 2 - far - tallest); i < rising.length && lows[i] <= plane / 2 + far; i++) {
                if ((i & 0xFFF) == 0) {
                    progress.beat();
                }
                if (high(rising[i]) >= plane / 2 - far) {
                    paint(rising[i], plane, canvas);
                }
            }
        }

        /** Of the triangles, the first that is as low as that or higher. */
        private int firstFrom(int low) {
            int at = Arrays.binarySearch(lows, low);
            while (at > 0 && lows[at - 1] == low) {
                at--;
            }
            return at < 0 ? -at - 1 : at;
        }

        private void paint(int triangle, int plane, Canvas canvas) {
            int label = labels[coat.hue(triangle)];
            mesh.cross(3 * triangle, plane, (x0, y0, x1, y1) -> canvas.claim(label, x0, y0, x1, y1, lineWidth, wall));
            double facing = Math.signum(mesh.areaVector(3 * triangle)[2]);
            double[] away = new double[3];
            double nearest = Double.MAX_VALUE;
            double farthest = -Double.MAX_VALUE;
            for (int c = 0; c < 3; c++) {
                away[c] = facing * (mesh.z(3 * triangle + c) / 1000.0 - plane / 2000.0);
                nearest = Math.min(nearest, away[c]);
                farthest = Math.max(farthest, away[c]);
            }
            if (facing != 0 && nearest < depth && farthest >= 0) {
                int c = 3 * triangle;
                canvas.claim(
                        label,
                        new double[] {mesh.x(c), mesh.x(c + 1), mesh.x(c + 2)},
                        new double[] {mesh.y(c), mesh.y(c + 1), mesh.y(c + 2)},
                        away,
                        model.grid().layerHeight().millimetres(),
                        depth);
            }
        }
    }
}
