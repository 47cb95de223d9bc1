package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A sliced file whose layers are those of a plan, one for one.
 *
 * @param file layer by layer
 * @param grid of the plan
 * @param before how many runs of the file come before layer 1: a priming line or a raft
 * @param raft how far the raft lifts every layer; 0 without one
 */
public record GridMatch(SlicedFile file, LayerGrid grid, int before, Height raft) {
    /** What programs lose when they print heights with two or three decimals, µm. */
    private static final int ROUNDING = 5;

    /**
     * @throws Refusal naming the first layer that differs, if the file was not sliced on this grid
     */
    public static GridMatch of(SlicedFile file, LayerGrid grid) {
        file.requireLayerByLayer();
        List<SlicedLayer> runs = file.layers();
        int layers = grid.count();
        int before = runs.size() - layers;
        boolean primed = before == 1 && near(runs.get(1).z(), grid.top(1));
        boolean fromBed = near(runs.get(0).z(), grid.top(1));
        if (before < 0 || before > 0 && fromBed && !primed) {
            throw mismatch(
                    grid, Words.format("The G-code has %s and the plan %d", Words.count(runs.size(), "layer"), layers));
        }
        int raft = before == 0 || primed
                ? 0
                : runs.get(before).z().micrometres() - grid.top(1).micrometres();
        for (int layer = 1; layer <= layers; layer++) {
            Height found = runs.get(before + layer - 1).z();
            int expected = raft + grid.top(layer).micrometres();
            if (raft < 0 || !near(found, Height.ofMicrometres(expected))) {
                throw mismatch(
                        grid,
                        Words.format(
                                "Layer %d ends at %s mm in the G-code and at %s mm in the plan",
                                layer, found, grid.top(layer)));
            }
        }
        return new GridMatch(file, grid, before, Height.ofMicrometres(raft));
    }

    private static boolean near(Height one, Height other) {
        return Math.abs(one.micrometres() - other.micrometres()) <= ROUNDING;
    }

    private static Refusal mismatch(LayerGrid grid, String what) {
        return new Refusal(what + "; slice the model with a first layer of " + grid.firstLayer() + " mm and layers of "
                + grid.layerHeight() + " mm, or set the plan's layers to the file's.");
    }

    /** The file's run for the plan's {@code layer}, from 1. */
    public SlicedLayer layer(int layer) {
        return file.layers().get(before + layer - 1);
    }

    /**
     * Where lines may be put in before stint {@code nth}, from 0, of {@code layer}: before the line that chooses its
     * tool, or between two layers.
     */
    public Optional<Door> door(int layer, int nth) {
        SlicedLayer run = layer(layer);
        Optional<Door> chosen =
                nth < run.stints().size() ? run.stints().get(nth).door() : Optional.empty();
        return chosen.isPresent() || nth > 0 ? chosen : run.door();
    }

    /** What the file's own comments call the plan's {@code layer}, if they number layers. */
    public OptionalLong markerOf(int layer) {
        return file.markers()
                .map(m -> OptionalLong.of(m.firstNumber() + before + layer - 1 - m.firstRun()))
                .orElse(OptionalLong.empty());
    }
}
