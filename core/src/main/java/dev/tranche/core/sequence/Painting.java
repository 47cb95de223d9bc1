package dev.tranche.core.sequence;

import dev.tranche.core.coat.Canvas;
import dev.tranche.core.coat.Patches;
import dev.tranche.core.coat.Patches.Patch;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.GridMatch.Visit;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedFile.ToolLine;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Where a sliced file prints the model with which tool, as it lays its lines: for models that were painted in a slicing program.
 *
 * @param base the tool that extrudes most; what no patch covers is its
 * @param patches of the others, from below, labelled by their tools
 */
public record Painting(int base, List<Patch> patches) {
    public Painting {
        patches = List.copyOf(patches);
    }

    /**
     * @param bytes of {@code file}, in which Tranche has put nothing
     * @param dialect of the printer
     * @throws Refusal if it prints in a spiral, or comes down again without a travel, or the model is not found in it
     */
    public static Painting of(Source bytes, Surroundings file, Dialect dialect, Progress progress) throws IOException {
        if (!isIn(file)) {
            throw new Refusal(
                    "Colours can be drawn from a file that prints the plan's model in layers, and this is none; slice it so, or draw them at the desk.");
        }
        return new Painter(file, dialect, progress).paint(bytes);
    }

    /** Whether a file prints the model, and in layers. */
    public static boolean isIn(Surroundings file) {
        return file.match().file().order() != SlicedFile.Order.SPIRAL
                && !file.copies().isEmpty();
    }

    /** Not for two threads. */
    private static final class Painter {
        private final GridMatch match;
        private final LayerGrid grid;
        private final Surroundings file;
        private final List<ToolLine> choices;
        private final Dialect dialect;
        /** Tool before one is chosen. */
        private final int first;

        private final Progress progress;
        private final List<Integer> tools;
        private final int base;
        private final Envelope reach;
        private final Coordinate moved;
        private final Patches patches;

        private int layer;
        private Set<Integer> printing = Set.of();
        private Canvas canvas;
        private Controller controller;
        private int tool;

        Painter(Surroundings file, Dialect dialect, Progress progress) {
            this.file = file;
            this.match = file.match();
            this.grid = match.grid();
            this.choices =
                    match.file().toolLines().stream().filter(t -> !t.heats()).toList();
            this.dialect = dialect;
            this.progress = progress;
            this.reach = file.model().footprint();
            this.moved = file.copies().get(0);
            Map<Integer, Double> fed = match.layers().stream()
                    .flatMap(l -> l.stints().stream())
                    .collect(Collectors.groupingBy(
                            Stint::tool, TreeMap::new, Collectors.summingDouble(Stint::extruded)));
            if (fed.size() > ColourPlan.MOST_SPOOLS) {
                throw Refusal.of(
                        "The file prints with %d tools, and a plan holds %d spools.",
                        fed.size(), ColourPlan.MOST_SPOOLS);
            }
            this.tools = List.copyOf(fed.keySet());
            this.base = fed.entrySet().stream()
                    .max(Comparator.comparingDouble(Map.Entry::getValue))
                    .orElseThrow()
                    .getKey();
            this.patches = new Patches(file.lineWidth(), tools.indexOf(base));
            this.first = match.layers().stream()
                    .flatMap(l -> l.stints().stream())
                    .findFirst()
                    .orElseThrow()
                    .tool();
        }

        Painting paint(Source bytes) throws IOException {
            if (match.file().order() == SlicedFile.Order.LAYER_BY_LAYER) {
                read(bytes, new Span(0, match.file().printedTo()), new Controller(dialect));
            } else {
                List<Visit> upwards = match.visits().stream()
                        .sorted(Comparator.comparingInt(Visit::layer))
                        .toList();
                for (Visit visit : upwards) {
                    int index = visit.index();
                    Controller there = index == 0
                            ? new Controller(dialect)
                            : new Controller(begins(index).state(), dialect);
                    read(bytes, new Span(offset(index), offset(index + 1)), there);
                }
            }
            while (layer < grid.count()) {
                next();
            }
            finish();
            return new Painting(
                    base,
                    patches.all().stream().map(p -> p.of(tools.get(p.label()))).toList());
        }

        /** Where a run of the file begins; the first with the file, and the one after the last with what follows all plastic. */
        private long offset(int index) {
            SlicedFile all = match.file();
            return index == 0
                    ? 0
                    : index == all.layers().size()
                            ? all.printedTo()
                            : begins(index).offset();
        }

        private Door begins(int index) {
            SlicedLayer run = match.file().layers().get(index);
            return run.door()
                    .orElseThrow(() -> Refusal.of(
                            "The G-code comes down again, and what it prints at %s mm begins without a travel, so its colours cannot be drawn; slice it layer by layer, or draw them at the desk.",
                            run.z()));
        }

        private void read(Source bytes, Span of, Controller there) throws IOException {
            controller = there;
            tool = first;
            int chosen = 0;
            GcodeScanner line = bytes.lines(of);
            while (line.next()) {
                while (chosen < choices.size() && choices.get(chosen).from() <= of.from() + line.offset()) {
                    tool = choices.get(chosen++).tool();
                }
                if (controller.execute(line) == Controller.Effect.MOVE && controller.de() > 0) {
                    laid();
                }
            }
        }

        private void laid() {
            int above = (int) Math.rint(controller.z() * 1000) - match.raft().micrometres();
            if (above <= 0 || controller.dx() == 0 && controller.dy() == 0) {
                return;
            }
            int at = Math.max(1, grid.firstAbove(Height.ofMicrometres(above)) - 1);
            while (layer < at) {
                next();
            }
            if (at == layer && canvas != null && printing.contains(tool)) {
                controller.along((x0, y0, x1, y1) -> canvas.lay(
                        tools.indexOf(tool), x0 - moved.x, y0 - moved.y, x1 - moved.x, y1 - moved.y, file.lineWidth()));
            }
        }

        /** Done with a layer, on to the one above. */
        private void next() {
            finish();
            layer++;
            progress.at(layer, grid.count());
            printing = file.toolsOfModel(layer);
            MultiPolygon section = file.model().section(layer).outline();
            canvas = printing.equals(Set.of(base)) || section.isEmpty() ? null : new Canvas(reach, section);
            if (canvas != null && printing.size() == 1) {
                canvas.cover(tools.indexOf(printing.iterator().next()));
            }
        }

        private void finish() {
            if (canvas == null) {
                return;
            }
            canvas.grow();
            MultiPolygon section = file.model().section(layer).outline();
            for (int number : printing) {
                if (number != base && canvas.shows(tools.indexOf(number))) {
                    patches.add(tools.indexOf(number), layer, canvas, section);
                }
            }
        }
    }
}
