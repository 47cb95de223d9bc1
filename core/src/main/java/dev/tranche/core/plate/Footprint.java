package dev.tranche.core.plate;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Sheet;
import dev.tranche.core.layer.CutModel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.ConvexHull;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * What a model covers of the bed, whatever its height: all its layers over one another.
 *
 * @param outline with the middle of its rectangle at the origin, mm
 * @param middle of that rectangle where the model itself has it, mm
 */
public record Footprint(MultiPolygon outline, Coordinate middle) {
    /** Finer than anyone places a copy, mm. */
    private static final double TOLERANCE = 0.02;
    /** Of a model of more, as many are looked at, evenly. */
    private static final int MOST_LAYERS = 60;

    public static Footprint of(CutModel model) {
        List<Section> sections = model.sections();
        List<MultiPolygon> layers = new ArrayList<>();
        for (int i : lookedAt(sections)) {
            MultiPolygon outline = sections.get(i).outline();
            if (layers.isEmpty() || layers.get(layers.size() - 1) != outline) {
                layers.add(outline);
            }
        }
        MultiPolygon all = Areas.of(TopologyPreservingSimplifier.simplify(union(layers), TOLERANCE));
        Envelope box = all.getEnvelopeInternal();
        Coordinate middle = box.isNull() ? new Coordinate() : box.centre();
        return new Footprint(
                Areas.of(AffineTransformation.translationInstance(-middle.x, -middle.y)
                        .transform(all)),
                middle);
    }

    /** Most of a model stands over its largest layer, and need not be laid over it. */
    private static MultiPolygon union(List<MultiPolygon> layers) {
        MultiPolygon largest =
                layers.stream().max(Comparator.comparingDouble(Areas::size)).orElse(Areas.NOTHING);
        Sheet sheet = new Sheet(largest);
        return Areas.union(Stream.concat(
                        Stream.of(largest),
                        layers.stream().filter(layer -> layer != largest).map(sheet::notWithin))
                .toList());
    }

    /** What a string round all layers of a solid would enclose, where the model has it. */
    public static Geometry hull(List<Section> sections) {
        Coordinate[] corners = lookedAt(sections).stream()
                .map(i -> sections.get(i).outline())
                .distinct()
                .flatMap(outline -> Arrays.stream(outline.getCoordinates()))
                .toArray(Coordinate[]::new);
        return new ConvexHull(corners, Areas.NOTHING.getFactory()).getConvexHull();
    }

    /** A rectangle of that size, as a tower's. */
    public static Footprint rectangle(double width, double depth) {
        GeometryFactory plane = Areas.NOTHING.getFactory();
        return new Footprint(
                Areas.of(plane.toGeometry(new Envelope(-width / 2, width / 2, -depth / 2, depth / 2))),
                new Coordinate());
    }

    /** Where the model itself has it. */
    public MultiPolygon inModel() {
        return Areas.of(
                AffineTransformation.translationInstance(middle.x, middle.y).transform(outline));
    }

    /** From places in the model to places on the bed on which it stands. */
    public AffineTransformation from(Spot spot) {
        return AffineTransformation.translationInstance(-middle.x, -middle.y).compose(spot.transformation());
    }

    /** From places on the bed to places in the model that stands there. */
    public AffineTransformation into(Spot spot) {
        AffineTransformation move = AffineTransformation.translationInstance(-spot.x(), -spot.y());
        move.rotate(-Math.toRadians(spot.turn()));
        move.translate(middle.x, middle.y);
        return move;
    }

    /** Evenly from the bed up, and those that reach furthest to each side. */
    private static SortedSet<Integer> lookedAt(List<Section> sections) {
        SortedSet<Integer> chosen = new TreeSet<>();
        double each = Math.max(1, sections.size() / (double) MOST_LAYERS);
        for (double at = 0; at < sections.size(); at += each) {
            chosen.add((int) at);
        }
        List<ToDoubleFunction<Envelope>> sides =
                List.of(e -> -e.getMinX(), Envelope::getMaxX, e -> -e.getMinY(), Envelope::getMaxY);
        for (ToDoubleFunction<Envelope> side : sides) {
            IntStream.range(0, sections.size())
                    .filter(i -> !sections.get(i).outline().isEmpty())
                    .boxed()
                    .max(Comparator.comparingDouble(
                            i -> side.applyAsDouble(sections.get(i).outline().getEnvelopeInternal())))
                    .ifPresent(chosen::add);
        }
        return chosen;
    }

    /** As it stands on a bed. */
    public MultiPolygon at(Spot spot) {
        return Areas.of(spot.transformation().transform(outline));
    }

    /** One of its islands, from 0, as it stands on a bed. */
    MultiPolygon islandAt(Spot spot, int island) {
        return Areas.of(spot.transformation().transform(outline.getGeometryN(island)));
    }

    /** The rectangle of it, turned by so many degrees. */
    Envelope turned(double degrees) {
        Envelope box = outline.getEnvelopeInternal();
        if (degrees % 180 == 0) {
            return box;
        }
        if (degrees % 90 == 0) {
            return new Envelope(box.getMinY(), box.getMaxY(), box.getMinX(), box.getMaxX());
        }
        return AffineTransformation.rotationInstance(Math.toRadians(degrees))
                .transform(outline)
                .getEnvelopeInternal();
    }
}
