package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/**
 * A sliced file whose layers are those of a plan. A file that comes down again visits them several times.
 *
 * @param file whose heights are the plan's, and perhaps some beneath them
 * @param grid of the plan
 * @param before how many heights of the file come before layer 1: a priming line or a raft
 * @param raft how far the raft lifts every layer; 0 without one
 * @param visits what prints on the plan's layers, in the order of the file
 * @param beneath what prints before them: a priming line or rafts
 * @param layers of the plan from layer 1, each with all its visits
 */
public record GridMatch(
        SlicedFile file,
        LayerGrid grid,
        int before,
        Height raft,
        List<Visit> visits,
        List<SlicedLayer> beneath,
        List<SlicedLayer> layers) {
    /** Nearer than this two heights are one, µm. */
    private static final int NEAR = 20;
    /** No raft, nor line to prime on, has more. */
    private static final int MOST_BEFORE = 10;
    /** A first layer above something else is no thicker than so many of the others. */
    private static final int MOST_TIMES = 3;
    /** A raft has at least as many layers. */
    private static final int LEAST_RAFT = 2;
    /** A raft comes off where it leaves so much air, µm, or more; common practice. */
    private static final int LEAST_GAP = 100;

    /**
     * Runs before the first layer may be a line that primes the nozzle, or a raft: at least {@value #LEAST_RAFT} layers,
     * together thicker than one of the model. Whether it really is one is the owner's to say.
     *
     * @throws Refusal naming the first layer that differs, if the file was not sliced on this grid
     */
    public static GridMatch of(SlicedFile file, LayerGrid grid) {
        file.requireLayers();
        List<SlicedLayer> runs = levels(file);
        Beneath beneath = Beneath.of(runs, grid);
        if (!beneath.fits(runs, grid)) {
            boolean even = isEven(file, grid);
            if (!even && isAmongOthers(runs, grid)) {
                return matched(file, grid, 0, Height.ZERO, false);
            }
            throw differs(file, runs, grid, even ? beneath.runs() : 0);
        }
        return matched(file, grid, beneath.runs(), Height.ofMicrometres(beneath.raft()), beneath.primed());
    }

    /**
     * What comes before the plan's first layer.
     *
     * @param runs how many there are of it
     * @param raft µm that it lifts every layer
     * @param primed whether it is a line that primes the nozzle
     */
    private record Beneath(int runs, int raft, boolean primed) {
        static Beneath of(List<SlicedLayer> runs, LayerGrid grid) {
            int before = runs.size() - grid.count();
            if (isPrimed(runs, grid)) {
                return new Beneath(1, 0, true);
            }
            int raft = before < LEAST_RAFT || before > MOST_BEFORE
                    ? 0
                    : runs.get(before).z().micrometres() - grid.top(1).micrometres();
            boolean lifted = raft > grid.layerHeight().micrometres() && !stand(runs, 0, 0, grid);
            return lifted ? new Beneath(before, raft, false) : new Beneath(0, 0, false);
        }

        /** Whether the plan's layers are those after so many others, so many µm higher. */
        private static boolean stand(List<SlicedLayer> all, int above, int lift, LayerGrid grid) {
            return IntStream.rangeClosed(1, grid.count())
                    .allMatch(layer -> near(
                            all.get(above + layer - 1).z(),
                            Height.ofMicrometres(lift + grid.top(layer).micrometres())));
        }

        boolean fits(List<SlicedLayer> all, LayerGrid grid) {
            return all.size() == runs + grid.count() && stand(all, runs, raft, grid);
        }
    }

    /** Whether each layer of the plan is there, and what else there is lies in them, as supports in layers of their own do. */
    private static boolean isAmongOthers(List<SlicedLayer> runs, LayerGrid grid) {
        int found = 0;
        for (SlicedLayer run : runs) {
            found += found < grid.count() && near(run.z(), grid.top(found + 1)) ? 1 : 0;
        }
        return found == grid.count() && near(runs.get(runs.size() - 1).z(), grid.printedHeight());
    }

    /** One run for each height, rising but for a line that primes the nozzle above the first layer. */
    private static List<SlicedLayer> levels(SlicedFile file) {
        List<SlicedLayer> runs = file.layers();
        if (file.order() == SlicedFile.Order.LAYER_BY_LAYER) {
            return runs;
        }
        TreeMap<Integer, SlicedLayer> byHeight = new TreeMap<>();
        boolean primed = runs.size() > 1 && runs.get(0).z().isAbove(runs.get(1).z());
        for (SlicedLayer run : runs.subList(primed ? 1 : 0, runs.size())) {
            int z = run.z().micrometres();
            Integer near = byHeight.ceilingKey(z - NEAR);
            byHeight.putIfAbsent(near != null && near <= z + NEAR ? near : z, run);
        }
        List<SlicedLayer> levels = new ArrayList<>(primed ? List.of(runs.get(0)) : List.of());
        levels.addAll(byHeight.values());
        return levels;
    }

    private static GridMatch matched(SlicedFile file, LayerGrid grid, int before, Height raft, boolean primed) {
        List<Visit> visits = new ArrayList<>();
        List<SlicedLayer> beneath = new ArrayList<>();
        List<List<SlicedLayer>> runs = new ArrayList<>();
        IntStream.range(0, grid.count()).forEach(i -> runs.add(new ArrayList<>(1)));
        for (int i = 0; i < file.layers().size(); i++) {
            SlicedLayer run = file.layers().get(i);
            boolean under = primed && i == 0 || !run.z().isAbove(raft);
            int above = Math.max(0, run.z().micrometres() - raft.micrometres());
            int layer = under ? 0 : Math.max(1, grid.firstAbove(Height.ofMicrometres(above)) - 1);
            if (under) {
                beneath.add(run);
            } else {
                visits.add(new Visit(layer, i, run));
                runs.get(layer - 1).add(run);
            }
        }
        return new GridMatch(
                file,
                grid,
                before,
                raft,
                List.copyOf(visits),
                List.copyOf(beneath),
                runs.stream().map(SlicedLayer::together).toList());
    }

    /** A line that primes the nozzle is higher than the first layer, or a run of its own before it. */
    private static boolean isPrimed(List<SlicedLayer> runs, LayerGrid grid) {
        return runs.size() > 1
                && near(runs.get(1).z(), grid.top(1))
                && (grid.count() == 1 || runs.size() == 2 || near(runs.get(2).z(), grid.top(2)));
    }

    private static boolean near(Height one, Height other) {
        return Math.abs(one.micrometres() - other.micrometres()) <= NEAR;
    }

    /**
     * The layers that a file itself has: its first, and the height of all the others. What comes before them, to prime the nozzle or
     * as a raft, is none of them where the rest are as many as a model of that height has.
     *
     * @return nothing where they are not even
     */
    public static Optional<List<Height>> layersOf(SlicedFile file, Height model) {
        List<SlicedLayer> runs = levels(file);
        return IntStream.rangeClosed(0, Math.min(MOST_BEFORE, runs.size() - 2))
                .boxed()
                .flatMap(before -> evenFrom(runs, before, model).filter(layers -> isMatch(runs, before, layers, model)))
                .findFirst()
                .or(() -> evenFrom(runs, 0, model).findFirst());
    }

    /** The same, where they are other ones than the plan's. */
    public static Optional<List<Height>> otherLayers(SlicedFile file, LayerGrid grid) {
        return layersOf(file, grid.modelHeight())
                .filter(l -> !near(l.get(0), grid.firstLayer()) || !near(l.get(1), grid.layerHeight()));
    }

    /** Whether its layers may be of one height; of what comes down again nobody has looked. */
    private static boolean isEven(SlicedFile file, LayerGrid grid) {
        return file.order() != SlicedFile.Order.LAYER_BY_LAYER
                || layersOf(file, grid.modelHeight()).isPresent();
    }

    /**
     * Even layers after so many other runs: the first of them stands on the bed, or on those, or above the gap that a raft leaves to
     * come off, which is known by how high the model is.
     */
    private static Stream<List<Height>> evenFrom(List<SlicedLayer> runs, int before, Height model) {
        int[] tops = runs.stream()
                .skip(Math.max(0, before - 1))
                .mapToInt(r -> r.z().micrometres())
                .toArray();
        int from = Math.min(1, before);
        if (tops.length < from + 2 || tops[from + 1] <= tops[from]) {
            return Stream.empty();
        }
        int each = tops[from + 1] - tops[from];
        boolean even = IntStream.range(from, tops.length)
                .allMatch(i -> Math.abs(tops[i] - tops[from] - (i - from) * each) <= NEAR);
        int above = tops[from] - tops[0];
        int ofModel = model.micrometres() - (tops.length - from - 1) * each;
        boolean isGap = ofModel <= above - LEAST_GAP && 2 * ofModel >= each && Math.abs(above - each) > NEAR;
        return even
                ? IntStream.of(isGap ? ofModel : above, above, tops[from])
                        .filter(first -> first > 0 && (before == 0 || first <= MOST_TIMES * each))
                        .mapToObj(first -> List.of(Height.ofMicrometres(first), Height.ofMicrometres(each)))
                : Stream.empty();
    }

    private static boolean isMatch(List<SlicedLayer> runs, int before, List<Height> layers, Height model) {
        try {
            LayerGrid grid = new LayerGrid(layers.get(0), layers.get(1), model);
            Beneath beneath = Beneath.of(runs, grid);
            return beneath.runs() == before && beneath.fits(runs, grid);
        } catch (Refusal absurd) {
            return false;
        }
    }

    /** What differs first, and what to do that has not been done. */
    private static Refusal differs(SlicedFile file, List<SlicedLayer> runs, LayerGrid grid, int before) {
        int count = runs.size() - before;
        String counts = Words.format("The G-code has %s and the plan %d", Words.count(count, "layer"), grid.count());
        for (int layer = 1; layer <= Math.min(count, grid.count()); layer++) {
            Height found = runs.get(before + layer - 1).z();
            if (!near(found, grid.top(layer))) {
                String where = Words.format(
                        "%sayer %d ends at %s mm in the G-code and at %s mm in the plan",
                        count == grid.count() ? "L" : counts + ": l", layer, found, grid.top(layer));
                return new Refusal(where + otherwise(file, runs, grid));
            }
        }
        String end = count > grid.count()
                ? Words.format(
                        ": its layer %d ends at %s mm, and the model at %s mm; slice this very model, or scale the plan's to the file's",
                        grid.count() + 1, runs.get(before + grid.count()).z(), grid.modelHeight())
                : Words.format(
                        ": it ends at %s mm, and the model at %s mm; slice this very model, or scale the plan's to the file's",
                        runs.get(runs.size() - 1).z(), grid.modelHeight());
        return new Refusal(counts + end + ".");
    }

    /** Nobody is told to slice as he did. */
    private static String otherwise(SlicedFile file, List<SlicedLayer> runs, LayerGrid grid) {
        boolean holdsAll = file.order() == SlicedFile.Order.SEVERAL_TIMES
                && IntStream.rangeClosed(1, grid.count())
                        .allMatch(l -> runs.stream().anyMatch(r -> near(r.z(), grid.top(l))));
        if (holdsAll) {
            return "; it has all of the plan's layers and others between, as walls set off by half a layer have; slice it without those.";
        }
        if (layersOf(file, grid.modelHeight()).isEmpty()) {
            return "; the file's layers are of several heights and a plan's of one, so slice it with layers of one height, and supports in the same.";
        }
        return otherLayers(file, grid).isEmpty()
                ? "; slice this very model again."
                : "; set the plan's layers to the file's, or slice the model with a first layer of " + grid.firstLayer()
                        + " mm and layers of " + grid.layerHeight() + " mm.";
    }

    /**
     * Plastic of one layer without another height in between.
     *
     * @param layer of the plan, from 1
     * @param index among the file's runs, from 0
     */
    public record Visit(int layer, int index, SlicedLayer run) {
        /**
         * Where lines may be put in before stint {@code nth}, from 0: before the line that chooses its tool, or before the
         * way to this height.
         */
        public Optional<Door> door(int nth) {
            Optional<Door> chosen = run.stints().get(nth).door();
            return chosen.isPresent() || nth > 0 ? chosen : run.door();
        }
    }

    /** How many layers of the file lie in the plan's beside their own, as those of supports do. */
    public int between() {
        return file.order() == SlicedFile.Order.LAYER_BY_LAYER ? visits.size() - grid.count() : 0;
    }

    /** All that the file prints on the plan's {@code layer}, from 1. */
    public SlicedLayer layer(int layer) {
        return layers.get(layer - 1);
    }

    /** Where it prints the part, mm: all layers but the first, which may have a skirt round it or a line to prime on beside it. */
    public Envelope part() {
        Envelope all = new Envelope();
        layers.stream().skip(layers.size() > 1 ? 1 : 0).forEach(l -> all.expandToInclude(l.extent()));
        return all;
    }

    /** The plan's layer that a run of the file prints, by its index; 0 for what lies beneath, one more than there are after the last. */
    public int layerOf(int index) {
        if (index >= file.layers().size()) {
            return grid.count() + 1;
        }
        int at = Collections.binarySearch(
                visits,
                new Visit(0, index, file.layers().get(Math.max(0, index))),
                Comparator.comparingInt(Visit::index));
        return at < 0 ? 0 : visits.get(at).layer();
    }

    /** What the file's own comments call the plan's {@code layer}, if they number layers or give their heights. */
    public Optional<String> markerOf(int layer) {
        return file.markers()
                .map(m -> m.firstNumber().isPresent()
                        ? Long.toString(m.firstNumber().getAsLong() + height(layer) - m.firstRun())
                        : layer(layer).z() + " mm");
    }

    /** How many heights of the file come before the plan's {@code layer}. */
    private int height(int layer) {
        return file.order() == SlicedFile.Order.LAYER_BY_LAYER
                ? visits.stream()
                        .filter(v -> v.layer() <= layer)
                        .mapToInt(Visit::index)
                        .max()
                        .orElseThrow()
                : before + layer - 1;
    }
}
