package dev.tranche.core.sequence;

import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import java.util.ArrayList;
import java.util.List;

/**
 * The passes of a print in the order in which they are made.
 *
 * @param passes at least one a layer, from the bed up
 */
public record PrintOrder(List<Pass> passes) {
    public PrintOrder {
        passes = List.copyOf(passes);
    }

    /**
     * The order that carries colours over: a layer begins with the loaded colour if it has it, and goes on in the order
     * of the palette. A layer in which nothing prints belongs to whatever is loaded.
     */
    public static PrintOrder carriedOver(Colouring colouring) {
        List<Pass> passes = new ArrayList<>();
        SpoolId loaded = first(colouring);
        for (int layer = 1; layer <= colouring.layers().size(); layer++) {
            LayerColours colours = colouring.layer(layer);
            List<SpoolId> order = new ArrayList<>(colours.spools());
            if (order.isEmpty()) {
                order.add(loaded);
            } else if (order.remove(loaded)) {
                order.add(0, loaded);
            }
            add(passes, layer, order, colours);
            loaded = order.get(order.size() - 1);
        }
        return new PrintOrder(passes);
    }

    private static SpoolId first(Colouring colouring) {
        return colouring.layers().stream()
                .flatMap(l -> l.spools().stream())
                .findFirst()
                .orElse(colouring.plan().starts().get(0).spool());
    }

    private static void add(List<Pass> passes, int layer, List<SpoolId> order, LayerColours colours) {
        double all = order.stream().mapToDouble(s -> size(colours, s)).sum();
        double done = 0;
        for (int i = 0; i < order.size(); i++) {
            double from = i == 0 ? 0 : done / all;
            done += size(colours, order.get(i));
            passes.add(new Pass(layer, order.get(i), from, i == order.size() - 1 ? 1 : Math.max(from, done / all)));
        }
    }

    private static double size(LayerColours colours, SpoolId spool) {
        return colours.tint(spool).map(Tint::squareMillimetres).orElse(0.0);
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
        return passes.stream()
                .filter(p -> !p.first())
                .mapToInt(Pass::layer)
                .distinct()
                .count();
    }
}
