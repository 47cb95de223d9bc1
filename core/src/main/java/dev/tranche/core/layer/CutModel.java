package dev.tranche.core.layer;

import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.SectionSweep;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;

/**
 * A model cut into the layers of a grid.
 *
 * @param body that was cut
 * @param hidden numbers of the solids that are left out
 * @param grid of its layers
 * @param solids for each solid one section a layer, cut at the layer's middle
 * @param sections one a layer: all solids taken together
 * @param surfaces where the model is flat, lowest first
 */
public record CutModel(
        Body body,
        Set<Integer> hidden,
        LayerGrid grid,
        List<List<Section>> solids,
        List<Section> sections,
        List<Surface> surfaces) {

    /** Cuts all of {@code body}; {@code progress} hears layers done of all layers. */
    public static CutModel of(Body body, LayerGrid grid, Progress progress) {
        return of(body, Set.of(), grid, progress);
    }

    /**
     * As {@link #of(Body, LayerGrid, Progress)}, without the solids that are hidden.
     *
     * @throws Refusal if all are
     */
    public static CutModel of(Body body, Set<Integer> hidden, LayerGrid grid, Progress progress) {
        int n = body.solids().size();
        int count = grid.count();
        List<List<Section>> solids = new ArrayList<>(n);
        for (int i = 0; i < n; i++) {
            int before = i * count;
            solids.add(
                    hidden.contains(i)
                            ? Collections.nCopies(count, Section.EMPTY)
                            : SectionSweep.cut(
                                    body.solids().get(i), grid.middles(), progress.part(before, (long) n * count)));
        }
        List<Section> sections = n == 1 ? solids.get(0) : Section.unions(solids, count, progress);
        double largest = sections.stream().mapToDouble(Section::area).max().orElse(0);
        return new CutModel(
                body, hidden, grid, solids, sections, Surfaces.find(shown(body, hidden), grid.layerHeight(), largest));
    }

    /** How high the solids that are not hidden reach. */
    public static Height height(Body body, Set<Integer> hidden) {
        return shown(body, hidden).height();
    }

    /** What the solids that are not hidden cover of the XY plane, mm. */
    public static Envelope footprint(Body body, Set<Integer> hidden) {
        return shown(body, hidden).footprint();
    }

    private static Body shown(Body body, Set<Integer> hidden) {
        if (hidden.isEmpty()) {
            return body;
        }
        List<Mesh> left = new ArrayList<>();
        for (int i = 0; i < body.solids().size(); i++) {
            if (!hidden.contains(i)) {
                left.add(body.solids().get(i));
            }
        }
        if (left.isEmpty()) {
            throw new Refusal("All parts are hidden; show one, so that there is something to print.");
        }
        return new Body(left, body.lifted());
    }

    /** What the solids that are not hidden cover of the XY plane, mm. */
    public Envelope footprint() {
        return footprint(body, hidden);
    }

    /** The section of {@code layer}, from 1. */
    public Section section(int layer) {
        return sections.get(layer - 1);
    }

    /** The section of one solid. */
    public Section section(int solid, int layer) {
        return solids.get(solid).get(layer - 1);
    }
}
