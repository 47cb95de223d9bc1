package dev.tranche.core.sequence;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.geometry.Sheet;
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
        List<Standing> standing = standing(layer);
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

    /** The tools that print nothing of the model anywhere, as those of skirts, towers and supports alone. */
    Set<Integer> toolsBesideAll() {
        Set<Integer> beside = new HashSet<>();
        Set<Integer> others = new HashSet<>();
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            Set<Integer> here = toolsBeside(layer);
            tools(layer).forEach(tool -> (here.contains(tool) ? beside : others).add(tool));
        }
        beside.removeAll(others);
        return beside;
    }

    private Stream<Integer> tools(int layer) {
        return match.layer(layer).stints().stream().map(Stint::tool).distinct();
    }

    private List<Standing> standing(int layer) {
        Sheet section = new Sheet(model.section(layer).outline());
        return copies.stream().map(by -> new Standing(section, by)).toList();
    }

    private boolean isBeside(int tool, SlicedLayer layer, List<Standing> standing) {
        double all = layer.stints().stream()
                .filter(s -> s.tool() == tool)
                .mapToDouble(Stint::extruded)
                .sum();
        double beside = 0;
        double within = 0;
        for (SlicedLayer.Line line : layer.lines()) {
            if (line.tool() == tool && standing.stream().allMatch(copy -> isBeside(line.extent(), copy))) {
                beside += line.extruded();
            } else if (line.tool() == tool) {
                within += line.extruded();
                if (within > (1 - ALL) * all) {
                    // Mostly known after the first line.
                    return false;
                }
            }
        }
        return beside >= ALL * all;
    }

    /** A copy of the model's section. */
    private record Standing(Sheet section, Coordinate by) {
        Envelope extent() {
            return moved(section.outline().getEnvelopeInternal(), by.x, by.y);
        }

        /** Whether any of it lies where a line does. */
        boolean meets(Envelope line) {
            return section.meets(moved(line, -by.x, -by.y));
        }

        private static Envelope moved(Envelope box, double x, double y) {
            Envelope there = new Envelope(box);
            there.translate(x, y);
            return there;
        }
    }

    /**
     * Apart from it, or round it, further than programs that slice differ on where a slope ends; or in a gap of it, as what holds up
     * a roof.
     */
    private boolean isBeside(Envelope line, Standing copy) {
        Envelope round = copy.extent();
        round.expandBy(APART * lineWidth);
        return !line.intersects(round) || line.contains(round) || copy.extent().intersects(line) && !copy.meets(line);
    }
}
