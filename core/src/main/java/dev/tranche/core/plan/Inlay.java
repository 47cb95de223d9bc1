package dev.tranche.core.plan;

import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.function.IntUnaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Something to be seen on the underside of a print, coloured into its lowest layers. Seen from beneath left is right,
 * so it lies mirrored.
 *
 * @param region to be added last
 * @param replaces whether a part it was taken from stands elsewhere and is to be left out
 */
public record Inlay(Region region, boolean replaces) {
    private static final double ROOM = 0.7;
    /** A difference that is only just noticed, CIEDE2000. */
    private static final double UNSEEN = 1;

    /** A drawing, in the middle of what lies on the bed; made smaller where it would reach beyond. */
    public static Inlay of(CutModel model, Outline.Drawing drawing, int layers, SpoolId spool) {
        Envelope bed = onTheBed(model);
        Silhouette s = drawing.silhouette();
        double room = Math.min(bed.getWidth(), bed.getHeight() * s.width() / s.depth()) * ROOM;
        Outline fitted = drawing.wide(Math.max(Outline.SMALLEST, Math.min(drawing.width(), room)));
        Shape.Zone zone = new Shape.Zone(fitted, bed.centre().x, bed.centre().y, 0, true);
        return new Inlay(new Region(drawing.name(), zone, spool, range(model, layers)), false);
    }

    /**
     * A part. One that stands on the bed is coloured where it is; of one that stands elsewhere, lettering on top say, the
     * outline is laid into the underside, as if the model had been turned over about its middle.
     */
    public static Inlay of(CutModel model, int part, String name, int layers, SpoolId spool) {
        List<Section> sections = model.solids().get(part);
        if (!sections.get(0).outline().isEmpty()) {
            Shape own = new Shape.Parts(List.of(part));
            return new Inlay(new Region(name, own, spool, range(model, layers)), false);
        }
        MultiPolygon outline = Areas.union(sections.stream()
                .map(Section::outline)
                .filter(o -> !o.isEmpty())
                .distinct()
                .toList());
        if (outline.isEmpty()) {
            throw Refusal.of("“%s” has no plastic to take an outline from; show it first, or choose another.", name);
        }
        Coordinate at = outline.getEnvelopeInternal().centre();
        double middle = model.footprint().centre().x;
        Silhouette silhouette = Silhouette.of(outline);
        Shape.Zone zone = new Shape.Zone(
                new Outline.Drawing(name, silhouette, silhouette.width()), 2 * middle - at.x, at.y, 0, true);
        return new Inlay(new Region(name, zone, spool, range(model, layers)), true);
    }

    /**
     * A zone to be seen from above, coloured into the highest layers there are where most of it lies.
     *
     * @param deep how many layers it takes there, given the highest
     * @throws Refusal if most of it lies beside the model
     */
    public static Region onTop(CutModel model, Shape.Zone zone, IntUnaryOperator deep, String name, SpoolId spool) {
        MultiPolygon area = zone.area();
        int top = model.grid().count();
        while (top > 0 && Areas.intersection(area, model.section(top).outline()).getArea() < area.getArea() / 2) {
            top--;
        }
        if (top == 0) {
            throw Refusal.of("“%s” is too large for the model, or lies beside it; make it smaller.", name);
        }
        int first = Math.max(1, top - deep.applyAsInt(top) + 1);
        return new Region(name, zone, spool, Range.ofLayers(model.grid(), first, top));
    }

    private static Envelope onTheBed(CutModel model) {
        Envelope bed = model.section(1).outline().getEnvelopeInternal();
        if (bed.isNull()) {
            throw new Refusal("Nothing of the model lies on the bed, so there is no underside to lay an inlay into.");
        }
        return bed;
    }

    private static Range range(CutModel model, int layers) {
        if (layers < 1 || layers >= model.grid().count()) {
            throw Refusal.of(
                    "An inlay of %d layers does not fit a print of %d; give 1 to %d.",
                    layers, model.grid().count(), model.grid().count() - 1);
        }
        return Range.ofLayers(model.grid(), 1, layers);
    }

    /** How many layers of {@code own} it takes until nobody sees {@code behind} through them. */
    public static int layersToHide(CutModel model, Spool own, Spool behind) {
        return layersToHide(model, own, behind.colour().linear());
    }

    /** As {@link #layersToHide(CutModel, Spool, Spool)}, of whatever looks like {@code behind}. */
    public static int layersToHide(CutModel model, Spool own, LinearRgb behind) {
        double layer = Math.min(
                model.grid().firstLayer().millimetres(),
                model.grid().layerHeight().millimetres());
        return own.film().layersToHide(behind, layer, UNSEEN);
    }
}
