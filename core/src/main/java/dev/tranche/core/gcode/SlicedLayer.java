package dev.tranche.core.gcode;

import dev.tranche.core.units.Height;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;

/**
 * A run of extruding moves at one height.
 *
 * @param z of the nozzle, which rides at the top of the layer
 * @param extruded mm of filament
 * @param seconds from this layer's first line of plastic to the next layer's
 * @param extent of its plastic, mm
 * @param door where something may be put in before this layer; empty where it begins without a travel
 */
public record SlicedLayer(Height z, double extruded, double seconds, Envelope extent, Optional<Door> door) {
    /**
     * A place between two layers: after the last plastic of the one, and its retraction, before the first move
     * towards the other.
     *
     * @param offset of the byte before which lines may be put in; the beginning of a line
     * @param line from 1
     * @param state of the controller there
     */
    public record Door(long offset, long line, ControllerState state) {}
}
