package dev.tranche.core.plan;

import java.util.HashMap;
import java.util.Map;
import java.util.function.DoubleSupplier;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How deep areas lie under the plastic of one model, kept from one colouring of it to the next: an area that an edit did
 * not touch is the very same.
 */
final class Covers {
    private static final int MOST = 5_000;

    private final Map<Key, Double> known = new HashMap<>();

    private record Key(MultiPolygon area, int edge, int step) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Key k && k.area == area && k.edge == edge && k.step == step;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(area) + 31 * edge + step;
        }
    }

    /**
     * @param edge the layer from which on it is covered, upwards or downwards by {@code step}
     * @param thickness works it out, mm
     */
    synchronized double of(MultiPolygon area, int edge, int step, DoubleSupplier thickness) {
        if (known.size() > MOST) {
            known.clear();
        }
        return known.computeIfAbsent(new Key(area, edge, step), k -> thickness.getAsDouble());
    }
}
