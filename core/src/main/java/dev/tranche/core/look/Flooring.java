package dev.tranche.core.look;

import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.Flat;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Inlay;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A level place coloured by height, in one action: the colour starts so many layers beneath that it hides what lies under it, and
 * goes back at the place itself, so that what stands higher keeps its own.
 *
 * @param first layer of the colour, and {@code last} its last, which is the place's own
 */
public record Flooring(int first, int last) {

    /** @param layers of the colour under a floor's surface, 1 or more */
    public static Flooring of(LayerGrid grid, Flat flat, int layers) {
        if (flat.layer() >= grid.count()) {
            throw new Refusal("That is the model's own top; start a colour there or below it instead.");
        }
        if (flat.form() == Flat.Form.COVERED) {
            throw new Refusal("Nothing of that place is seen, since another part lies on it; colour the part instead.");
        }
        return new Flooring(Math.max(1, flat.layer() - layers + 1), flat.layer());
    }

    /**
     * As deep as it takes. Raised tops are coloured from where they rise, if that is deep enough.
     *
     * @param flats of the model, lowest first
     */
    public static Flooring of(Colouring colouring, List<Flat> flats, Flat flat, Spool own, Map<SpoolId, Spool> shelf) {
        CutModel model = colouring.model();
        int layers = 1;
        int needed = 1;
        do {
            layers = needed;
            Spool behind = shelf.get(colouring.base(Math.max(1, flat.layer() - layers)));
            needed = Math.max(layers, Inlay.layersToHide(model, own, behind));
        } while (needed > layers && layers < flat.layer());
        Optional<Flat> foot = flats.stream()
                .filter(f -> flat.form() == Flat.Form.RAISED && f.layer() < flat.layer())
                .reduce((a, b) -> b);
        int rise = foot.map(f -> flat.layer() - f.layer()).orElse(0);
        return of(model.grid(), flat, Math.max(rise, layers));
    }

    public int layers() {
        return last - first + 1;
    }

    /** A plan with it. */
    public ColourPlan on(ColourPlan plan, SpoolId spool, LayerGrid grid) {
        Height from = grid.bottom(first);
        Height back = grid.top(last);
        return plan.within(from, back, spool);
    }
}
