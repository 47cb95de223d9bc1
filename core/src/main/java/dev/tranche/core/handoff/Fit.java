package dev.tranche.core.handoff;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Line;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.machine.Printer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * How what a sliced file prints lies on the model of a plan, wherever on the bed it stands.
 *
 * <p>Places where it may stand are those where the model's largest island, or one at a corner, has a wall round it in what the
 * file draws, or pieces that are one taken together; there any of its islands is looked for on each layer. Skirts, towers and other copies are drawn elsewhere. On half of the layers it has to be found, all at the same
 * place, and everywhere there has to be plastic as far as it goes.
 *
 * @param differs the first layer that is none of the model's, if the file prints another one
 * @param shrink mm by which its first layer is drawn in; empty where the wall of that was not found
 * @param copies by how much the model is moved for each that the file prints, mm, the nearest row first; nothing where the file
 *     prints another model
 */
public record Fit(Optional<Difference> differs, OptionalDouble shrink, List<Coordinate> copies) {
    /** Of a layer that are looked at for the model; all are, for its copies. */
    private static final int LARGEST = 32;

    /** So many of the model's islands on a layer tell one place from the next. */
    private static final int ISLANDS = 512;

    /** Within so many widths of a line two walls are one. */
    private static final double LINES = 2;

    /** Nearer than this two places are one, mm. */
    private static final double SAME = 0.05;

    /** What coordinates of a file are rounded to makes two places no better than one another, mm. */
    private static final double AS_GOOD = 0.01;

    /** So many layers are looked at for the place where the model stands. */
    private static final int TRIALS = 9;
    /** Walls reach beyond the model no further than by what rounding does, mm. */
    private static final double ROUNDED = 0.1;

    /**
     * What the file prints on a layer, and what the model has there.
     *
     * @param layer from 1
     * @param printed extent of the largest thing the file draws, mm, and {@code model} of the model's largest island
     */
    public record Difference(int layer, Envelope printed, Envelope model) {}

    /** @param sections of the model, one a layer */
    public static Fit of(GridMatch match, List<Section> sections, Printer printer) {
        double near = LINES * printer.lineWidth();
        List<Layer> layers = IntStream.rangeClosed(1, match.grid().count())
                .filter(l -> !sections.get(l - 1).outline().isEmpty())
                .mapToObj(l -> Layer.of(l, match.layer(l), sections.get(l - 1).outline(), near))
                .toList();
        if (layers.isEmpty()) {
            return new Fit(Optional.empty(), OptionalDouble.empty(), List.of());
        }
        Coordinate moved = moved(match, layers, near);
        List<Layer> others =
                layers.stream().filter(l -> !l.isFound(moved, near)).toList();
        Optional<Difference> differs = others.stream()
                .filter(l -> 2 * others.size() > layers.size() || !l.isCovered(moved, near))
                .findFirst()
                .map(Layer::difference);
        return new Fit(
                differs,
                differs.isPresent() || layers.get(0).number() > 1
                        ? OptionalDouble.empty()
                        : shrink(match, layers.get(0).island(), moved, printer),
                differs.isPresent() ? List.of() : copies(match, sections, layers, moved, near));
    }

    /** Walls round the model's largest island on the second layer, which has no skirt or brim. */
    private static List<Coordinate> copies(
            GridMatch match, List<Section> sections, List<Layer> layers, Coordinate moved, double near) {
        Layer layer = layers.get(Math.min(1, layers.size() - 1));
        List<Envelope> lines =
                match.layer(layer.number()).lines().stream().map(Line::extent).toList();
        List<Envelope> things = Stream.concat(lines.stream(), Layer.together(lines, near).stream())
                .sorted(Comparator.comparingDouble(t -> misfit(t, layer.island(), centre(t, layer.island()))))
                .toList();
        // Islands of one copy that are alike are no copies of it: a copy has all that the first has.
        List<Envelope> drawn = islands(sections.get(layer.number() - 1).outline())
                .filter(i -> things.stream().anyMatch(t -> isNear(t, i, moved, near)))
                .toList();
        List<Coordinate> copies = new ArrayList<>(List.of(moved));
        for (Envelope thing : things) {
            Coordinate at = centre(thing, layer.island());
            if (isNear(thing, layer.island(), at, near)
                    && copies.stream()
                            .noneMatch(c -> isOver(c, at, layer.island())
                                    || drawn.stream().anyMatch(i -> isNear(thing, i, c, near)))
                    && drawn.stream().allMatch(i -> things.stream().anyMatch(t -> isNear(t, i, at, near)))) {
                copies.add(at);
            }
        }
        copies.sort(Comparator.comparingDouble((Coordinate c) -> c.y).thenComparingDouble(c -> c.x));
        return copies;
    }

    private static Stream<Envelope> islands(MultiPolygon outline) {
        return Areas.polygons(outline).map(Geometry::getEnvelopeInternal);
    }

    /** Walls within walls are of one copy. */
    private static boolean isOver(Coordinate one, Coordinate other, Envelope island) {
        return Math.abs(one.x - other.x) < island.getWidth() / 2 && Math.abs(one.y - other.y) < island.getHeight() / 2;
    }

    /**
     * A place where the model may stand.
     *
     * @param good by how much nearer than it has to be its outline is, in the mean of all layers, mm
     */
    private record Place(Coordinate at, double good) {
        static Place of(Coordinate at, List<Layer> layers, double near) {
            return new Place(
                    at,
                    layers.stream()
                            .mapToDouble(l -> Math.max(0, near - l.misfit(at, near)))
                            .average()
                            .orElse(0));
        }
    }

    /**
     * Where most layers have the model, and have it best: walls that are laid by several tools are each smaller than it. Of places
     * as good, where most of its islands are drawn.
     */
    private static Coordinate moved(GridMatch match, List<Layer> layers, double near) {
        int each = Math.max(1, layers.size() / TRIALS);
        List<Layer> tried = IntStream.iterate(0, i -> i < layers.size(), i -> i + each)
                .mapToObj(layers::get)
                .toList();
        List<Place> found = new ArrayList<>();
        tried.stream().flatMap(l -> l.places(near)).forEach(at -> {
            if (found.stream().noneMatch(known -> known.at().distance(at) < SAME)) {
                found.add(Place.of(at, layers, near));
            }
        });
        double most = found.stream().mapToDouble(Place::good).max().orElse(0);
        List<Coordinate> best = found.stream()
                .filter(p -> p.good() > most - AS_GOOD)
                .map(Place::at)
                .toList();
        if (best.size() == 1) {
            return best.get(0);
        }
        return best.stream()
                .max(Comparator.comparingLong(at -> tried.stream()
                        .mapToLong(l -> l.islandsAt(match.layer(l.number()).lines(), at, near))
                        .sum()))
                .orElseGet(() -> centre(layers.get(0).extent(), layers.get(0).whole()));
    }

    private static Coordinate centre(Envelope printed, Envelope model) {
        return new Coordinate(printed.centre().x - model.centre().x, printed.centre().y - model.centre().y);
    }

    /** By the largest wall that does not reach beyond the model, as a brim does. */
    private static OptionalDouble shrink(GridMatch match, Envelope island, Coordinate moved, Printer printer) {
        double near = LINES * printer.lineWidth();
        double filament = printer.filament().volume(1).cubicMillimetres();
        double height = match.grid().thickness(1).millimetres();
        return match.layer(1).lines().stream()
                .filter(l -> isNear(l.extent(), island, moved, near))
                .mapToDouble(l -> inset(l, island, l.width(filament, height)))
                .filter(inset -> inset > -ROUNDED)
                .map(inset -> Math.max(0, inset))
                .findFirst();
    }

    private static double inset(Line line, Envelope island, double width) {
        double across = island.getWidth() - line.extent().getWidth() - width;
        double along = island.getHeight() - line.extent().getHeight() - width;
        return (across + along) / 4;
    }

    private static boolean isNear(Envelope printed, Envelope model, Coordinate moved, double near) {
        return misfit(printed, model, moved) <= near;
    }

    /** By how much the farthest of four sides is off, mm. */
    private static double misfit(Envelope printed, Envelope model, Coordinate moved) {
        double west = Math.abs(printed.getMinX() - model.getMinX() - moved.x);
        double east = Math.abs(printed.getMaxX() - model.getMaxX() - moved.x);
        double south = Math.abs(printed.getMinY() - model.getMinY() - moved.y);
        double north = Math.abs(printed.getMaxY() - model.getMaxY() - moved.y);
        return Math.max(Math.max(west, east), Math.max(south, north));
    }

    /**
     * A layer of the file beside the model's.
     *
     * @param islands of the model, the largest first, {@code fromWest} the same in that order, and {@code whole} all of the
     *     model there
     * @param drawn what the file draws that could be an island, the largest first
     * @param extent of all the file's plastic there
     * @param corners where the model would stand if the line and the island nearest to a corner of the bed were the same
     */
    private record Layer(
            int number,
            List<Envelope> islands,
            List<Envelope> fromWest,
            Envelope whole,
            List<Envelope> drawn,
            Envelope extent,
            List<Coordinate> corners) {

        static Layer of(int number, SlicedLayer run, MultiPolygon outline, double near) {
            List<Envelope> all = Fit.islands(outline).toList();
            List<Envelope> islands = all.stream()
                    .sorted(Comparator.comparingDouble(Envelope::getArea).reversed())
                    .limit(ISLANDS)
                    .toList();
            List<Envelope> lines =
                    run.lines().stream().limit(LARGEST).map(Line::extent).toList();
            return new Layer(
                    number,
                    islands,
                    islands.stream()
                            .sorted(Comparator.comparingDouble(Envelope::getMinX))
                            .toList(),
                    outline.getEnvelopeInternal(),
                    Stream.concat(lines.stream(), together(lines, near).stream())
                            .sorted(Comparator.comparingDouble(Envelope::getArea)
                                    .reversed())
                            .toList(),
                    run.extent(),
                    Stream.of(
                                    Comparator.comparingDouble((Envelope e) -> e.getMinX() + e.getMinY()),
                                    Comparator.comparingDouble((Envelope e) -> -e.getMaxX() - e.getMaxY()))
                            .flatMap(order -> corner(run, all, order, near).stream())
                            .toList());
        }

        private static Optional<Coordinate> corner(
                SlicedLayer run, List<Envelope> islands, Comparator<Envelope> order, double near) {
            Envelope island = Collections.min(islands, order);
            return run.lines().stream()
                    .map(Line::extent)
                    .min(order)
                    .filter(line -> isNear(line, island, centre(line, island), near))
                    .map(line -> centre(line, island));
        }

        /** The model's largest. */
        Envelope island() {
            return islands.get(0);
        }

        /** How many of the model's islands are among the lines drawn, if it is moved so far. */
        long islandsAt(List<Line> lines, Coordinate moved, double near) {
            return islands.stream()
                    .filter(i -> lines.stream().anyMatch(l -> isNear(l.extent(), i, moved, near)))
                    .count();
        }

        /** What touches is one thing. */
        private static List<Envelope> together(List<Envelope> lines, double near) {
            List<Envelope> groups = new ArrayList<>();
            for (Envelope line : lines) {
                Envelope group = new Envelope(line);
                for (int i = groups.size() - 1; i >= 0; i--) {
                    if (touch(groups.get(i), group, near)) {
                        group.expandToInclude(groups.remove(i));
                    }
                }
                groups.add(group);
            }
            return groups;
        }

        /** What stands free within another is none of it, as a model within a skirt is. */
        private static boolean touch(Envelope one, Envelope other, double near) {
            Envelope reach = new Envelope(other);
            reach.expandBy(near);
            return one.intersects(reach) && !isWithin(one, other, near) && !isWithin(other, one, near);
        }

        private static boolean isWithin(Envelope outer, Envelope inner, double near) {
            Envelope free = new Envelope(outer);
            free.expandBy(-near);
            return !free.isNull() && free.covers(inner);
        }

        /** By how much the model would be moved if one of the things drawn were the island, or all of them all of it. */
        Stream<Coordinate> places(double near) {
            Stream<Coordinate> found = Stream.concat(
                            drawn.stream().map(d -> new Envelope[] {d, island()}),
                            Stream.of(new Envelope[][] {{extent, whole}}))
                    .filter(pair -> isNear(pair[0], pair[1], centre(pair[0], pair[1]), near))
                    .map(pair -> centre(pair[0], pair[1]));
            return Stream.concat(found, corners.stream());
        }

        boolean isFound(Coordinate moved, double near) {
            return misfit(moved, near) <= near;
        }

        /** Of whatever of its fits the model best, moved so far, mm; more than {@code near} where nothing does. */
        double misfit(Coordinate moved, double near) {
            double best = Fit.misfit(extent, whole, moved);
            for (Envelope thing : drawn) {
                double west = thing.getMinX() - moved.x - near;
                int at = Collections.binarySearch(
                        fromWest, new Envelope(west, west, 0, 0), Comparator.comparingDouble(Envelope::getMinX));
                for (int i = at < 0 ? -at - 1 : at;
                        i < fromWest.size() && fromWest.get(i).getMinX() <= west + 2 * near;
                        i++) {
                    best = Math.min(best, Fit.misfit(thing, fromWest.get(i), moved));
                }
            }
            return best;
        }

        boolean isCovered(Coordinate moved, double near) {
            Envelope needed = new Envelope(
                    whole.getMinX() + moved.x,
                    whole.getMaxX() + moved.x,
                    whole.getMinY() + moved.y,
                    whole.getMaxY() + moved.y);
            Envelope reach = new Envelope(extent);
            reach.expandBy(near);
            return reach.covers(needed);
        }

        Difference difference() {
            return new Difference(number, drawn.isEmpty() ? extent : drawn.get(0), island());
        }
    }
}
