package dev.tranche.core.layer;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.SectionSweep;
import dev.tranche.core.units.Progress;
import java.util.List;

/**
 * A model cut into the layers of a grid.
 *
 * @param mesh that was cut
 * @param grid of its layers
 * @param sections one a layer, cut at the layer's middle
 * @param surfaces where the mesh is flat, lowest first
 */
public record CutModel(Mesh mesh, LayerGrid grid, List<Section> sections, List<Surface> surfaces) {

    /** Cuts {@code mesh}; {@code progress} hears layers done of all layers. */
    public static CutModel of(Mesh mesh, LayerGrid grid, Progress progress) {
        List<Section> sections = SectionSweep.cut(mesh, grid.middles(), progress);
        double largest = sections.stream().mapToDouble(Section::area).max().orElse(0);
        return new CutModel(mesh, grid, sections, Surfaces.find(mesh, grid.layerHeight(), largest));
    }

    /** The section of {@code layer}, from 1. */
    public Section section(int layer) {
        return sections.get(layer - 1);
    }
}
