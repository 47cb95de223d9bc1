package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.geometry.Mesh;
import java.util.Optional;

/**
 * One solid of a model file.
 *
 * @param name as the file has it, with a number where several share it; empty if the file gives none
 * @param item of the file's list of things to build that it belongs to, from 0; files without such a list build one
 * @param colour that the file gives it, and {@code called} what it calls that; empty if it does not
 * @param coat where the file paints its outside in several, of which {@code colour} covers most
 */
public record Part(String name, int item, Optional<Srgb> colour, String called, Optional<Coat> coat, Mesh mesh) {
    public Part {
        if (coat.isPresent() && coat.get().triangles() != mesh.triangles()) {
            throw new IllegalArgumentException("a coat is of as many triangles as its mesh");
        }
    }

    /** Taken to be of another colour. */
    public Part in(Srgb other, String otherCalled) {
        return new Part(name, item, Optional.of(other), otherCalled, coat, mesh);
    }

    Part named(String other) {
        return new Part(other, item, colour, called, coat, mesh);
    }

    /** The same, made otherwise, as the so-and-so-many-th item. */
    Part made(Mesh other, int at) {
        return new Part(name, at, colour, called, coat, other);
    }
}
