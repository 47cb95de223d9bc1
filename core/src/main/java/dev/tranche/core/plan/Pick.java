package dev.tranche.core.plan;

import dev.tranche.core.layer.CutModel;
import java.util.Comparator;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Location;

/**
 * What lies at a point of a layer.
 *
 * @param part number of the solid, from 0; where several overlap, one that the region colours, else the smallest
 * @param region its place in the order, {@link Field#BASE} for the colour by height
 */
public record Pick(OptionalInt part, int region, SpoolId spool) {

    /** Nothing, if there is no plastic at (x, y), mm in the model's own axes. */
    public static Optional<Pick> at(Colouring colouring, int layer, double x, double y) {
        Coordinate point = new Coordinate(x, y);
        return colouring.layer(layer).fields().stream()
                .filter(f -> f.cells().stream().anyMatch(c -> holds(c, point)))
                .findFirst()
                .map(f -> new Pick(part(colouring, layer, point, f), f.region(), f.spool()));
    }

    private static OptionalInt part(Colouring colouring, int layer, Coordinate point, Field field) {
        CutModel model = colouring.model();
        return IntStream.range(0, model.solids().size())
                .filter(i -> holds(model.section(i, layer).outline(), point))
                .boxed()
                .min(Comparator.comparing((Integer i) -> !colours(colouring.plan(), field, i))
                        .thenComparing(i -> model.section(i, layer).area()))
                .map(OptionalInt::of)
                .orElse(OptionalInt.empty());
    }

    private static boolean colours(ColourPlan plan, Field field, int part) {
        return field.region() != Field.BASE
                && plan.regions().get(field.region()).shape() instanceof Shape.Parts parts
                && parts.numbers().contains(part);
    }

    private static boolean holds(Geometry area, Coordinate point) {
        return area.getEnvelopeInternal().contains(point)
                && SimplePointInAreaLocator.locate(point, area) != Location.EXTERIOR;
    }
}
