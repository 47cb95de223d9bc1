package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.units.Height;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How a region lies in the model.
 *
 * @param buried height over which regions after it take all but 1 % of it, mm
 * @param shown height over which it has something of its own, mm
 * @param proud how far it reaches above everything else, mm: a zone above the model, a part above the other parts
 * @param above thickness of other plastic that covers all of its top, mm
 * @param below thickness of other plastic that covers all of its underside, mm; 0 on the bed
 */
public record Relief(double buried, double shown, double proud, double above, double below) {
    private static final double SPECK = 0.05;
    private static final double SHARE = 0.01;

    /** Nothing of it prints, since regions after it take it. */
    public boolean wholly() {
        return buried > 0 && shown == 0;
    }

    /** It meets no plastic at all. */
    public boolean missing() {
        return buried == 0 && shown == 0;
    }

    /** @param region its place in the order */
    public static Relief of(Colouring colouring, int region) {
        CutModel model = colouring.model();
        LayerGrid grid = model.grid();
        Region it = colouring.plan().regions().get(region);
        int first = Math.max(1, it.range().first(grid));
        int last = Math.min(grid.count(), it.range().last(grid));
        int buried = 0;
        int shown = 0;
        int lowest = 0;
        int highest = 0;
        Shape before = null;
        MultiPolygon zone = Areas.NOTHING;
        double most = 0;
        for (int layer = first; layer <= last; layer++) {
            Optional<Shape> shape = it.shape().on(layer, grid);
            if (shape.isEmpty()) {
                continue;
            }
            if (before != shape.get()) {
                zone = shape.get() instanceof Shape.Zone z ? z.area() : Areas.NOTHING;
                most = Areas.size(zone);
                before = shape.get();
            }
            double left = colouring
                    .layer(layer)
                    .field(region)
                    .map(Field::squareMillimetres)
                    .orElse(0.0);
            int thickness = grid.thickness(layer).micrometres();
            // A zone has no more than all of itself; what that settles need not be laid over the section.
            boolean much = left > SPECK && !zone.isEmpty() && left >= SHARE * most;
            double own = much ? left : own(colouring, it, zone, layer);
            if (much || left > SPECK && left >= SHARE * own) {
                shown += thickness;
                lowest = lowest == 0 ? layer : lowest;
                highest = layer;
            } else if (own > SPECK) {
                buried += thickness;
            }
        }
        boolean any = shown > 0;
        return new Relief(
                buried / 1000.0,
                shown / 1000.0,
                proud(model, it),
                any ? cover(colouring, region, highest, 1) : 0,
                any ? cover(colouring, region, lowest, -1) : 0);
    }

    /** What the region would have of a layer if it came last, mm². */
    private static double own(Colouring colouring, Region region, MultiPolygon zone, int layer) {
        CutModel model = colouring.model();
        return region.shape() instanceof Shape.Parts parts
                ? parts.numbers().stream()
                        .filter(n -> n < model.solids().size())
                        .mapToDouble(n -> model.section(n, layer).area())
                        .sum()
                : Areas.size(colouring.within(zone, layer));
    }

    private static double proud(CutModel model, Region region) {
        if (region.shape() instanceof Shape.Parts parts) {
            int own = top(model, parts.numbers(), true);
            int others = top(model, parts.numbers(), false);
            return others == 0 ? 0 : Math.max(0, own - others) / 1000.0;
        }
        return region.range()
                .to()
                .map(t ->
                        Math.max(0, t.micrometres() - model.grid().modelHeight().micrometres()) / 1000.0)
                .orElse(0.0);
    }

    private static int top(CutModel model, List<Integer> numbers, boolean chosen) {
        int top = 0;
        for (int i = 0; i < model.body().solids().size(); i++) {
            if (numbers.contains(i) == chosen && !model.hidden().contains(i)) {
                Height height = model.body().solids().get(i).height();
                top = Math.max(top, height.micrometres());
            }
        }
        return top;
    }

    /** Thickness of the layers beyond {@code edge} that cover all the region has there. */
    private static double cover(Colouring colouring, int region, int edge, int step) {
        CutModel model = colouring.model();
        MultiPolygon area = colouring.layer(edge).field(region).orElseThrow().area();
        return colouring.covers().of(area, edge, step, () -> thickness(colouring, model, area, edge, step));
    }

    private static double thickness(Colouring colouring, CutModel model, MultiPolygon area, int edge, int step) {
        int covered = 0;
        for (int layer = edge + step; layer >= 1 && layer <= model.grid().count(); layer += step) {
            if (Areas.size(colouring.within(area, layer)) < (1 - SHARE) * Areas.size(area)) {
                break;
            }
            covered += model.grid().thickness(layer).micrometres();
        }
        return covered / 1000.0;
    }
}
