package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The passes of a print in the order in which they are made.
 *
 * @param passes at least one a layer, from the bed up, or from band to band
 * @param proven whether it is known to be the best of its kind
 */
public record PrintOrder(List<Pass> passes, boolean proven) {
    public PrintOrder {
        passes = List.copyOf(passes);
    }

    /**
     * What a sliced file with tools of its own does, visit by visit.
     *
     * @param tools in which each that prints stands for a spool
     */
    public static PrintOrder sliced(GridMatch match, ToolTable tools) {
        Visits visits = new Visits(match);
        for (GridMatch.Visit visit : match.visits()) {
            for (int i = 0; i < visit.run().stints().size(); i++) {
                SlicedLayer.Stint stint = visit.run().stints().get(i);
                SpoolId spool = tools.spool(stint.tool(), visit.layer()).orElseThrow();
                visits.pass(visit.layer(), spool, stint.seconds(), stint.extruded(), visit.door(i));
            }
        }
        return new PrintOrder(visits.passes, true);
    }

    /**
     * What a file of one tool does that comes down again: each visit to a layer prints all its colours.
     *
     * @param layered the plan's own order, layer by layer
     */
    public static PrintOrder visited(GridMatch match, PrintOrder layered) {
        Map<Integer, List<Pass>> byLayer = layered.passes().stream().collect(Collectors.groupingBy(Pass::layer));
        Visits visits = new Visits(match);
        for (GridMatch.Visit visit : match.visits()) {
            for (Pass pass : byLayer.get(visit.layer())) {
                visits.pass(
                        visit.layer(),
                        pass.spool(),
                        pass.share() * visit.run().seconds(),
                        pass.plastic() * visit.run().extruded(),
                        pass.first() ? visit.door(0) : Optional.empty());
            }
        }
        return new PrintOrder(visits.passes, layered.proven());
    }

    /** Passes of a file, whose layers may come several times. */
    private static final class Visits {
        final List<Pass> passes = new ArrayList<>();
        private final GridMatch match;
        private final double[] done;

        Visits(GridMatch match) {
            this.match = match;
            this.done = new double[match.grid().count() + 1];
        }

        void pass(int layer, SpoolId spool, double seconds, double extruded, Optional<Door> door) {
            SlicedLayer all = match.layer(layer);
            double from = share(done[layer], all.seconds());
            done[layer] += seconds;
            passes.add(new Pass(
                    layer, spool, from, share(done[layer], all.seconds()), share(extruded, all.extruded()), door));
        }

        private static double share(double part, double whole) {
            // What is left of adding up seconds is no time.
            double share = whole > 0 ? Math.min(1, part / whole) : 0;
            return share > 1 - 1e-9 ? 1 : share;
        }
    }

    /**
     * The order of numbers: a layer begins with the loaded colour if it has it, and goes on by number. A layer in which
     * nothing prints belongs to whatever is loaded.
     *
     * @param numbering the whole palette by number
     */
    public static PrintOrder numbered(Colouring colouring, List<SpoolId> numbering) {
        int[] numbers =
                numbering.stream().mapToInt(colouring.plan().palette()::indexOf).toArray();
        return layered(colouring, new NumberedOrder(numbers).orders(stages(colouring)), true);
    }

    static PrintOrder layered(Colouring colouring, List<int[]> orders, boolean proven) {
        List<Pass> passes = new ArrayList<>();
        SpoolId loaded = first(colouring, orders);
        for (int layer = 1; layer <= orders.size(); layer++) {
            List<SpoolId> order = spools(colouring, orders.get(layer - 1));
            addLayer(passes, layer, order.isEmpty() ? List.of(loaded) : order, colouring.layer(layer));
            loaded = order.isEmpty() ? loaded : order.get(order.size() - 1);
        }
        return new PrintOrder(passes, proven);
    }

    static PrintOrder banded(Colouring colouring, List<Band> bands, List<int[]> orders, boolean proven) {
        List<Pass> passes = new ArrayList<>();
        SpoolId loaded = first(colouring, orders);
        for (int i = 0; i < bands.size(); i++) {
            List<SpoolId> order = spools(colouring, orders.get(i));
            for (SpoolId spool : order.isEmpty() ? List.of(loaded) : order) {
                boolean leads = order.isEmpty() || spool.equals(order.get(0));
                for (int layer = bands.get(i).first(); layer <= bands.get(i).last(); layer++) {
                    List<SpoolId> here = new ArrayList<>(order);
                    here.retainAll(colouring.layer(layer).spools());
                    if (here.contains(spool)) {
                        passes.add(pass(layer, here, here.indexOf(spool), ends(here, colouring.layer(layer))));
                    } else if (here.isEmpty() && leads) {
                        passes.add(new Pass(layer, spool, 0, 1));
                    }
                }
                loaded = spool;
            }
        }
        return new PrintOrder(passes, proven);
    }

    private static SpoolId first(Colouring colouring, List<int[]> orders) {
        return orders.stream()
                .filter(o -> o.length > 0)
                .findFirst()
                .map(o -> colouring.plan().palette().get(o[0]))
                .orElse(colouring.plan().starts().get(0).spool());
    }

    private static List<SpoolId> spools(Colouring colouring, int[] order) {
        List<SpoolId> spools = new ArrayList<>(order.length);
        for (int place : order) {
            spools.add(colouring.plan().palette().get(place));
        }
        return spools;
    }

    private static void addLayer(List<Pass> passes, int layer, List<SpoolId> order, LayerColours colours) {
        double[] ends = ends(order, colours);
        for (int i = 0; i < order.size(); i++) {
            passes.add(pass(layer, order, i, ends));
        }
    }

    private static Pass pass(int layer, List<SpoolId> order, int at, double[] ends) {
        double begins = at == 0 ? 0 : ends[at - 1];
        return new Pass(layer, order.get(at), begins, at == order.size() - 1 ? 1 : Math.max(begins, ends[at]));
    }

    /** Where each colour of a layer is done, as shares of all that is printed of it. */
    private static double[] ends(List<SpoolId> order, LayerColours colours) {
        double[] ends = new double[order.size()];
        double all = 0;
        for (int i = 0; i < ends.length; i++) {
            all += colours.tint(order.get(i)).map(Tint::squareMillimetres).orElse(0.0);
            ends[i] = all;
        }
        for (int i = 0; i < ends.length; i++) {
            ends[i] /= all;
        }
        return ends;
    }

    /** The layers as stages. */
    static List<Stage> stages(Colouring colouring) {
        List<Stage> stages = new ArrayList<>();
        int last = -1;
        for (int colours : present(colouring)) {
            // Runs of equal layers share one stage.
            stages.add(colours == last ? stages.get(stages.size() - 1) : Stage.of(colours));
            last = colours;
        }
        return stages;
    }

    /** What prints on each layer, as bits for places in the palette. */
    static int[] present(Colouring colouring) {
        Map<SpoolId, Integer> bits = new HashMap<>();
        colouring.plan().palette().forEach(s -> bits.put(s, 1 << bits.size()));
        int[] present = new int[colouring.layers().size()];
        LayerColours last = null;
        for (int i = 0; i < present.length; i++) {
            LayerColours layer = colouring.layers().get(i);
            present[i] = layer == last
                    ? present[i - 1]
                    : layer.spools().stream().mapToInt(bits::get).sum();
            last = layer;
        }
        return present;
    }

    /**
     * With what a file prints in spools that the plan does not have on a layer, as supports may be: it comes behind what it came
     * after in the file, and is no share of the layer's work.
     *
     * @param sliced what that file does
     */
    public PrintOrder besides(PrintOrder sliced) {
        record Place(int layer, SpoolId spool) {
            static Place of(Pass pass) {
                return new Place(pass.layer(), pass.spool());
            }
        }
        Set<Place> here = passes.stream().map(Place::of).collect(Collectors.toSet());
        Map<Place, List<Pass>> behind = new HashMap<>();
        Place before = null;
        for (Pass pass : sliced.passes) {
            Place place = Place.of(pass);
            if (here.contains(place)) {
                before = place;
            } else if (before != null) {
                behind.computeIfAbsent(before, p -> new ArrayList<>()).add(pass);
            }
        }
        List<Pass> all = new ArrayList<>();
        for (Pass pass : passes) {
            all.add(pass);
            behind.getOrDefault(Place.of(pass), List.of())
                    .forEach(b -> all.add(new Pass(b.layer(), b.spool(), pass.to(), pass.to())));
        }
        return new PrintOrder(all, proven);
    }

    /** The passes before which another spool has to be loaded. */
    public List<Pass> swaps() {
        List<Pass> swaps = new ArrayList<>();
        for (int i = 1; i < passes.size(); i++) {
            if (!passes.get(i).spool().equals(passes.get(i - 1).spool())) {
                swaps.add(passes.get(i));
            }
        }
        return swaps;
    }

    /** Layers that hold more than one colour. */
    public long mixedLayers() {
        Map<Integer, SpoolId> first = new HashMap<>();
        return passes.stream()
                .filter(p -> !p.spool().equals(first.computeIfAbsent(p.layer(), l -> p.spool())))
                .mapToInt(Pass::layer)
                .distinct()
                .count();
    }
}
