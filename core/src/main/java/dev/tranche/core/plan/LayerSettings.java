package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;

/**
 * Layers as chosen; with a model they make a grid.
 *
 * @param raft height of what is printed under the model, 0 for nothing; heights of the grid are above it
 * @param shrink mm by which the slicing program draws in the outlines of the first layer, so that it does not spread
 */
public record LayerSettings(Height firstLayer, Height layerHeight, Height raft, double shrink) {
    public static final LayerSettings COMMON = new LayerSettings(Height.ofMicrometres(200), Height.ofMicrometres(200));

    public LayerSettings {
        new LayerGrid(firstLayer, layerHeight, firstLayer);
        if (raft.isAbove(Height.ofMicrometres(20_000))) {
            throw Refusal.of("A raft of %s mm is out of range; give 0 to 20.", raft);
        }
        if (!(shrink >= 0 && shrink <= 1)) {
            throw Refusal.of("A first layer drawn in by %s mm is out of range; give 0 to 1.", shrink);
        }
    }

    public LayerSettings(Height firstLayer, Height layerHeight) {
        this(firstLayer, layerHeight, Height.ZERO, 0);
    }

    public LayerSettings shrunkBy(double mm) {
        return new LayerSettings(firstLayer, layerHeight, raft, mm);
    }

    public LayerSettings withRaft(Height height) {
        return new LayerSettings(firstLayer, layerHeight, height, shrink);
    }

    public LayerSettings withLayers(Height first, Height each) {
        return new LayerSettings(first, each, raft, shrink);
    }

    public LayerGrid on(Height modelHeight) {
        return new LayerGrid(firstLayer, layerHeight, modelHeight);
    }
}
