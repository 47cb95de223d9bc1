package dev.tranche.core.handoff;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Prism;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * A piece of the print in one colour, for a slicing program.
 *
 * <p>A part that has one colour from bottom to top is handed over as it is. What is cut by heights or zones becomes
 * steps as high as its layers, each closed, so that slicing it in the plan's layers gives the plan's areas again.
 *
 * @param name for people
 * @param meshes closed surfaces, all in the model's own frame; steps are made whenever one comes to them, since all of a painted
 *     model's would fill the memory
 */
public record ColourSolid(String name, SpoolId spool, Iterable<Mesh> meshes) {
    /** Less is what rounding leaves where areas meet, mm². */
    private static final double SLIVER = 1e-3;

    /**
     * All pieces of a print: together they are the model, and none overlaps another.
     *
     * @param names of the parts
     * @param progress hears layers done of all layers, and of each colour the steps that are made
     */
    public static List<ColourSolid> of(Colouring colouring, List<String> names, Progress progress) {
        CutModel model = colouring.model();
        List<ColourSolid> solids = new ArrayList<>();
        Map<SpoolId, List<Integer>> whole = new LinkedHashMap<>();
        for (int part = 0; part < model.solids().size(); part++) {
            if (!model.hidden().contains(part)) {
                int number = part;
                onlySpool(colouring, part, progress).ifPresent(spool -> {
                    whole.computeIfAbsent(spool, s -> new ArrayList<>()).add(number);
                    solids.add(new ColourSolid(
                            names.get(number),
                            spool,
                            List.of(model.body().solids().get(number))));
                });
            }
        }
        addSteps(solids, colouring, whole, 1, model.grid().count(), progress);
        return solids;
    }

    /**
     * The pieces of a run of layers, at the height at which they are in the model.
     *
     * @param first layer, from 1, and {@code last}
     */
    public static List<ColourSolid> ofLayers(Colouring colouring, int first, int last, Progress progress) {
        List<ColourSolid> solids = new ArrayList<>();
        addSteps(solids, colouring, Map.of(), first, last, progress);
        return solids;
    }

    private static void addSteps(
            List<ColourSolid> solids,
            Colouring colouring,
            Map<SpoolId, List<Integer>> whole,
            int first,
            int last,
            Progress progress) {
        List<SpoolId> palette = colouring.plan().palette();
        int layers = last - first + 1;
        for (int i = 0; i < palette.size(); i++) {
            SpoolId spool = palette.get(i);
            Progress part = progress.part((long) i * layers, (long) palette.size() * layers);
            List<Step> steps = steps(colouring, spool, whole.getOrDefault(spool, List.of()), first, last, part);
            if (!steps.isEmpty()) {
                solids.add(new ColourSolid("Colour " + colouring.plan().letter(spool), spool, made(steps, progress)));
            }
        }
    }

    private static Iterable<Mesh> made(List<Step> steps, Progress progress) {
        return () -> IntStream.range(0, steps.size())
                .peek(done -> progress.at(done, steps.size()))
                .mapToObj(steps::get)
                .flatMap(Step::prisms)
                .iterator();
    }

    /** Layers of one area of a colour. */
    private record Step(MultiPolygon area, Height bottom, Height top) {
        Stream<Mesh> prisms() {
            return Prism.of(area, bottom, top).stream();
        }
    }

    /** The spool in which all of a part prints, on every layer that it reaches, if there is one. */
    private static Optional<SpoolId> onlySpool(Colouring colouring, int part, Progress progress) {
        CutModel model = colouring.model();
        SpoolId only = null;
        MultiPolygon below = Areas.NOTHING;
        List<Tint> tintsBelow = List.of();
        for (int layer = 1; layer <= model.grid().count(); layer++) {
            progress.beat();
            MultiPolygon section = model.section(part, layer).outline();
            List<Tint> tints = colouring.layer(layer).tints();
            if (section.isEmpty() || section.equalsExact(below) && tints.equals(tintsBelow)) {
                continue;
            }
            Tint tint = only == null
                    ? holding(tints, section)
                    : colouring.layer(layer).tint(only).orElse(null);
            boolean all = tint != null && (tints.size() == 1 || left(section, tint) < SLIVER);
            if (!all) {
                return Optional.empty();
            }
            only = tint.spool();
            below = section;
            tintsBelow = tints;
        }
        return Optional.ofNullable(only);
    }

    /** How much of a section a colour does not have, mm². */
    private static double left(MultiPolygon section, Tint tint) {
        MultiPolygon rest = section;
        for (MultiPolygon cell : tint.cells()) {
            rest = Areas.difference(rest, cell);
        }
        return rest.getArea();
    }

    private static Tint holding(List<Tint> tints, MultiPolygon section) {
        Tint best = null;
        double most = 0;
        for (Tint tint : tints) {
            double shared = tints.size() == 1 ? 1 : section.getArea() - left(section, tint);
            if (shared > most) {
                most = shared;
                best = tint;
            }
        }
        return best;
    }

    private static List<Step> steps(
            Colouring colouring, SpoolId spool, List<Integer> whole, int first, int last, Progress progress) {
        LayerGrid grid = colouring.model().grid();
        List<Step> steps = new ArrayList<>();
        Ground ground = Ground.NONE;
        MultiPolygon open = Areas.NOTHING;
        int since = first;
        for (int layer = first; layer <= last + 1; layer++) {
            Ground here = layer > last ? Ground.NONE : Ground.of(colouring, spool, whole, layer);
            if (!here.equals(ground)) {
                ground = here;
                MultiPolygon left = here.left();
                if (!left.equalsExact(open)) {
                    if (!open.isEmpty()) {
                        steps.add(new Step(open, grid.bottom(since), grid.top(layer - 1)));
                    }
                    open = left;
                    since = layer;
                }
            }
            progress.at(Math.min(layer, last) - first + 1, last - first + 1);
        }
        return steps;
    }

    /**
     * What a step is made of on a layer.
     *
     * @param cells where the colour is
     * @param whole sections of the parts that are handed over as they are
     */
    private record Ground(List<MultiPolygon> cells, List<MultiPolygon> whole) {
        static final Ground NONE = new Ground(List.of(), List.of());

        static Ground of(Colouring colouring, SpoolId spool, List<Integer> whole, int layer) {
            CutModel model = colouring.model();
            return colouring
                    .layer(layer)
                    .tint(spool)
                    .map(tint -> new Ground(
                            tint.cells(),
                            whole.stream()
                                    .map(part -> model.section(part, layer).outline())
                                    .toList()))
                    .orElse(NONE);
        }

        /** What of the colour is in none of those parts. */
        MultiPolygon left() {
            MultiPolygon rest = Areas.difference(Areas.union(cells), Areas.union(whole));
            List<Polygon> kept = Areas.polygons(rest)
                    .filter(piece -> Areas.size(piece) > SLIVER)
                    .toList();
            return kept.size() == rest.getNumGeometries() ? rest : Areas.of(kept);
        }
    }
}
