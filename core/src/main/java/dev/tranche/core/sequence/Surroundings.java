package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.layer.CutModel;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * What a sliced file prints beside a model and round it, as skirts, shields and towers are.
 *
 * @param copies by how much the model is moved for each that the file prints, mm; none where that is not known
 * @param lineWidth mm
 */
public record Surroundings(GridMatch match, CutModel model, List<Coordinate> copies, double lineWidth) {
    /** Of what a tool extrudes, as far as lines are told from retractions. */
    private static final double ALL = 0.99;
    /** In widths of a line: skirts lie further off than this (common practice), and a brim may be the model's as well. */
    private static final double APART = 2;

    public Surroundings {
        copies = List.copyOf(copies);
    }

    /** The same of the file without what Tranche has put in. */
    public Surroundings in(GridMatch other) {
        return new Surroundings(other, model, copies, lineWidth);
    }

    /** The tools that print nothing of the model on {@code layer}, from 1, as far as that is known. */
    public Set<Integer> toolsBeside(int layer) {
        List<Envelope> standing = standing(layer);
        return standing.isEmpty()
                ? Set.of()
                : tools(layer)
                        .filter(tool -> isBeside(tool, match.layer(layer), standing))
                        .collect(Collectors.toSet());
    }

    /** The tools that print the model on {@code layer}, from 1: those that do not print beside it, or else all. */
    Set<Integer> toolsOfModel(int layer) {
        Set<Integer> all = tools(layer).collect(Collectors.toSet());
        if (all.size() < 2) {
            return all;
        }
        Set<Integer> rest = new HashSet<>(all);
        rest.removeAll(toolsBeside(layer));
        return rest.isEmpty() ? all : rest;
    }

    private Stream<Integer> tools(int layer) {
        return match.layer(layer).stints().stream().map(Stint::tool).distinct();
    }

    private List<Envelope> standing(int layer) {
        Envelope section = model.section(layer).outline().getEnvelopeInternal();
        return copies.stream()
                .map(by -> {
                    Envelope copy = new Envelope(section);
                    copy.translate(by.x, by.y);
                    return copy;
                })
                .toList();
    }

    private boolean isBeside(int tool, SlicedLayer layer, List<Envelope> standing) {
        double all = layer.stints().stream()
                .filter(s -> s.tool() == tool)
                .mapToDouble(Stint::extruded)
                .sum();
        double beside = layer.lines().stream()
                .filter(l -> l.tool() == tool)
                .filter(l -> standing.stream().allMatch(copy -> isBeside(l.extent(), copy)))
                .mapToDouble(SlicedLayer.Line::extruded)
                .sum();
        return beside >= ALL * all;
    }

    /** Apart from it, or round it, further than programs that slice differ on where a slope ends. */
    private boolean isBeside(Envelope line, Envelope copy) {
        Envelope round = new Envelope(copy);
        round.expandBy(APART * lineWidth);
        return !line.intersects(round) || line.contains(round);
    }
}
