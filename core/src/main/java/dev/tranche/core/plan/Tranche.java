package dev.tranche.core.plan;

import dev.tranche.core.layer.Snap;

/**
 * An unbroken run of layers with one base colour.
 *
 * @param index of its start in the plan, from 0
 * @param firstLayer from 1
 * @param lastLayer not below {@code firstLayer}
 * @param start how the wished height snapped
 */
public record Tranche(int index, SpoolId spool, int firstLayer, int lastLayer, Snap start) {
    public Tranche {
        if (firstLayer < 1 || lastLayer < firstLayer) {
            throw new IllegalArgumentException("layers " + firstLayer + " to " + lastLayer);
        }
    }

    public int layers() {
        return lastLayer - firstLayer + 1;
    }

    public boolean covers(int layer) {
        return layer >= firstLayer && layer <= lastLayer;
    }
}
