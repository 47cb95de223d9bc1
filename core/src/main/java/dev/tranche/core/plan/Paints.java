package dev.tranche.core.plan;

import dev.tranche.core.layer.LayerGrid;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** What a plan is printed with, spools and mixtures alike, as it comes out of the nozzle on each layer. */
public final class Paints {
    private final Map<SpoolId, Spool> shelf;
    private final Mixtures mixtures;
    private final LayerGrid grid;
    private final Map<Shaded, Spool> known = new ConcurrentHashMap<>();

    /** A paint in one of its shades. */
    public record Shaded(SpoolId paint, int shade) {}

    /** @param shelf holds every spool of the plan */
    public Paints(Map<SpoolId, Spool> shelf, Mixtures mixtures, LayerGrid grid) {
        this.shelf = mixtures.onto(shelf);
        this.mixtures = mixtures;
        this.grid = grid;
    }

    /** The spool that a paint is, or would be, on {@code layer}, from 1; nothing of what is not on the shelf. */
    public Spool at(SpoolId paint, int layer) {
        return paint.isMixture() ? of(shaded(paint, layer)) : shelf.get(paint);
    }

    /** The spool that a paint is, or would be, at the very bottom of {@code layer}. */
    public Spool beneath(SpoolId paint, int layer) {
        return mixtures.find(paint)
                .map(m -> of(new Shaded(paint, m.shade(grid.bottom(layer)))))
                .orElseGet(() -> shelf.get(paint));
    }

    /** A spool of the shelf, or a mixture half turned. */
    public Spool of(SpoolId paint) {
        return shelf.get(paint);
    }

    public Spool of(Shaded shaded) {
        Spool half = shelf.get(shaded.paint());
        return mixtures.find(shaded.paint())
                .filter(m -> half != null)
                .map(m ->
                        known.computeIfAbsent(shaded, s -> m.recipe(s.shade()).mixed(m.id(), half.name(), shelf::get)))
                .orElse(half);
    }

    /** A paint in the shade it has in the middle of {@code layer}. */
    public Shaded shaded(SpoolId paint, int layer) {
        return new Shaded(
                paint,
                mixtures.find(paint).map(m -> m.shade(grid.middle(layer))).orElse(0));
    }

    /** What of which spool comes out on {@code layer}. */
    public Recipe recipe(SpoolId paint, int layer) {
        return mixtures.find(paint)
                .map(m -> m.recipe(m.shade(grid.middle(layer))))
                .orElseGet(() -> Recipe.of(paint));
    }

    public Mixtures mixtures() {
        return mixtures;
    }
}
