package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Height;

/** First-layer height and layer height, as chosen; with a model they make a grid. */
public record LayerSettings(Height firstLayer, Height layerHeight) {
    public static final LayerSettings COMMON = new LayerSettings(Height.ofMicrometres(200), Height.ofMicrometres(200));

    public LayerSettings {
        new LayerGrid(firstLayer, layerHeight, firstLayer);
    }

    public LayerGrid on(Height modelHeight) {
        return new LayerGrid(firstLayer, layerHeight, modelHeight);
    }
}
