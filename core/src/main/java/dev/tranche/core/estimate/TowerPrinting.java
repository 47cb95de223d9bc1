package dev.tranche.core.estimate;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.purge.Tower;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.units.Volume;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;

/** The tower that grows beside a print and takes the purge; without one it takes no time and no plastic. */
record TowerPrinting(Optional<Tower> tower, LayerGrid grid, Printer printer) {

    static TowerPrinting none(LayerGrid grid, Printer printer) {
        return new TowerPrinting(Optional.empty(), grid, printer);
    }

    /**
     * @param width of the tower, mm
     * @param purge that goes onto it before each pass, by its place in {@code passes}
     */
    static TowerPrinting of(
            double width, List<Pass> passes, IntFunction<Volume> purge, LayerGrid grid, Printer printer) {
        Map<Integer, Volume> byLayer = new HashMap<>();
        int highest = 0;
        for (int i = 0; i < passes.size(); i++) {
            highest = Math.max(highest, passes.get(i).layer());
            Volume onto = purge.apply(i);
            if (!onto.equals(Volume.NONE)) {
                byLayer.merge(highest, onto, Volume::plus);
            }
        }
        return new TowerPrinting(Optional.of(Tower.of(width, grid, byLayer, printer.lineWidth())), grid, printer);
    }

    /** How long it takes to print so much of a purge onto {@code layer}; nothing without a tower. */
    double seconds(int layer, Volume purge) {
        return tower.isEmpty()
                ? 0
                : purge.cubicMillimetres()
                        / (printer.lineWidth()
                                * grid.thickness(layer).millimetres()
                                * printer.motion().printSpeed())
                        * BasePrint.TRAVEL;
    }

    /** How long {@code layer} takes beyond its purge: its shell, and the way there. */
    double idleSeconds(int layer) {
        return tower.filter(t -> layer <= t.layers().size())
                .map(t -> seconds(layer, t.idle(layer)) + BasePrint.SECONDS_PER_LAYER)
                .orElse(0.0);
    }

    /** What it takes on {@code layer} beyond the purge. */
    Volume idle(int layer) {
        return tower.map(t -> t.idle(layer)).orElse(Volume.NONE);
    }
}
