package dev.tranche.core.layer;

import dev.tranche.core.units.Height;

/**
 * A wished height and what the layers make of it.
 *
 * @param layer the first layer above the border, from 1
 * @param wished what was asked for
 * @param actual the border as it will be printed: the bottom of {@code layer}
 */
public record Snap(int layer, Height wished, Height actual) {

    /** {@code actual − wished} in micrometres; within half a layer. */
    public int error() {
        return actual.micrometres() - wished.micrometres();
    }

    public double errorMillimetres() {
        return error() / 1000.0;
    }
}
