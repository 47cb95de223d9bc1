package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import java.util.Optional;

/**
 * One solid of a model file.
 *
 * @param name as the file has it, with a number where several share it; empty if the file gives none
 * @param colour that the file gives it, and {@code called} what it calls that; empty if it does not
 */
public record Part(String name, Optional<Srgb> colour, String called, Mesh mesh) {
    Part named(String other) {
        return new Part(other, colour, called, mesh);
    }
}
