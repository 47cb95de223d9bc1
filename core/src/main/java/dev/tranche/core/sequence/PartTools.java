package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer.Line;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.CutModel;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * Which tool of a sliced file prints each part of a model.
 *
 * <p>The wall of a part lies half a line inside it on all sides, so that its extent tells whose wall it is: that round a
 * pocket for the part lies half a line outside.
 *
 * @param tools by the numbers of the parts, from 0
 */
record PartTools(SortedMap<Integer, Integer> tools) {
    /** So many sections of parts are looked at while somebody waits. */
    private static final long MOST = 200_000;
    /** A wall lies no deeper inside its part than so many widths of a line, though the first layer is drawn in. */
    private static final double DEEPEST = 2;
    /** Nor does it reach beyond by more, mm, which is what rounding does. */
    private static final double ROUNDED = 0.05;
    /** Of the walls of a part, by the areas within, its tool prints at least so many, and on as many of its layers. */
    private static final double MOST_OF_IT = 0.9;

    PartTools {
        tools = Collections.unmodifiableSortedMap(new TreeMap<>(tools));
    }

    /** A piece of a part on a layer. */
    private record Island(int part, Envelope extent) {}

    /** @return empty where a part's walls are not found, or are of several tools, or its tool rests on many of its layers */
    static Optional<PartTools> of(Surroundings file) {
        GridMatch match = file.match();
        CutModel model = file.model();
        List<Integer> parts = IntStream.range(0, model.solids().size())
                .filter(i -> !model.hidden().contains(i))
                .boxed()
                .toList();
        if (parts.size() < 2 || (long) parts.size() * match.grid().count() > MOST) {
            return Optional.empty();
        }
        Map<Integer, Map<Integer, Double>> walls = new HashMap<>();
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            count(match.layer(layer).lines(), islands(model, parts, layer), file, walls);
        }
        SortedMap<Integer, Integer> tools = new TreeMap<>();
        for (int part : parts) {
            Map<Integer, Double> by = walls.getOrDefault(part, Map.of());
            double all = by.values().stream().mapToDouble(a -> a).sum();
            by.forEach((tool, area) -> {
                if (area >= MOST_OF_IT * all) {
                    tools.put(part, tool);
                }
            });
        }
        return Optional.of(new PartTools(tools))
                .filter(t -> t.tools().keySet().containsAll(parts))
                .filter(t -> t.isPrintedBy(match, model));
    }

    /** By their western ends. */
    private static NavigableMap<Double, List<Island>> islands(CutModel model, List<Integer> parts, int layer) {
        NavigableMap<Double, List<Island>> islands = new TreeMap<>();
        for (int part : parts) {
            Areas.polygons(model.section(part, layer).outline())
                    .map(p -> new Island(part, p.getEnvelopeInternal()))
                    .forEach(i -> islands.computeIfAbsent(i.extent().getMinX(), west -> new ArrayList<>())
                            .add(i));
        }
        return islands;
    }

    /** A wall that could be of several parts tells nothing. */
    private static void count(
            List<Line> lines,
            NavigableMap<Double, List<Island>> islands,
            Surroundings file,
            Map<Integer, Map<Integer, Double>> walls) {
        double deepest = DEEPEST * file.lineWidth();
        for (Line line : lines) {
            Envelope wall = line.extent();
            for (Coordinate copy : file.copies()) {
                double west = wall.getMinX() - copy.x;
                List<Island> round = islands.subMap(west - deepest, true, west + ROUNDED, true).values().stream()
                        .flatMap(List::stream)
                        .filter(i -> isRound(i.extent(), wall, copy, deepest))
                        .toList();
                if (round.stream().map(Island::part).distinct().count() == 1) {
                    walls.computeIfAbsent(round.get(0).part(), p -> new HashMap<>())
                            .merge(line.tool(), round.get(0).extent().getArea(), Double::sum);
                }
            }
        }
    }

    private static boolean isRound(Envelope island, Envelope wall, Coordinate copy, double deepest) {
        return isInset(wall.getMinX() - copy.x - island.getMinX(), deepest)
                && isInset(island.getMaxX() - wall.getMaxX() + copy.x, deepest)
                && isInset(wall.getMinY() - copy.y - island.getMinY(), deepest)
                && isInset(island.getMaxY() - wall.getMaxY() + copy.y, deepest);
    }

    private static boolean isInset(double by, double deepest) {
        return by >= -ROUNDED && by <= deepest;
    }

    /** Whether each part's tool prints on most of its layers: what is thinner than a line, no tool prints. */
    private boolean isPrintedBy(GridMatch match, CutModel model) {
        Map<Integer, Set<Integer>> layers = new HashMap<>();
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            for (Stint stint : match.layer(layer).stints()) {
                layers.computeIfAbsent(stint.tool(), t -> new HashSet<>()).add(layer);
            }
        }
        return tools.entrySet().stream().allMatch(t -> {
            List<Integer> its = IntStream.rangeClosed(1, match.grid().count())
                    .filter(layer -> !model.section(t.getKey(), layer).outline().isEmpty())
                    .boxed()
                    .toList();
            return its.stream().filter(layers.get(t.getValue())::contains).count() >= MOST_OF_IT * its.size();
        });
    }

    /** The parts that a tool prints. */
    Set<Integer> of(int tool) {
        return tools.keySet().stream().filter(p -> tools.get(p) == tool).collect(Collectors.toSet());
    }
}
