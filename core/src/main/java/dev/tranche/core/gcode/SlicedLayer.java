package dev.tranche.core.gcode;

import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * A run of extruding moves at one height.
 *
 * @param z of the nozzle, which rides at the top of the layer
 * @param stints of the tools in their order; together from this layer's first line of plastic to the next layer's
 * @param extent of its plastic, mm
 * @param lines the largest lines of each tool, the largest first; the walls of what is printed are among them
 * @param door where something may be put in before this layer; empty where it begins without a travel
 */
public record SlicedLayer(Height z, List<Stint> stints, Envelope extent, List<Line> lines, Optional<Door> door) {
    public SlicedLayer {
        stints = List.copyOf(stints);
        lines = List.copyOf(lines);
    }

    /**
     * Plastic laid without a travel, as a wall is.
     *
     * @param tool that began it, from 0
     * @param extent of its middle, mm
     * @param extruded mm of filament
     * @param length mm
     */
    public record Line(int tool, Envelope extent, double extruded, double length) {
        /**
         * How wide it lies, mm: a rectangle with round ends whose area is what was fed for each mm (common practice).
         *
         * @param filament mm² of the filament's cross-section
         * @param height of the layer, mm
         */
        public double width(double filament, double height) {
            return extruded * filament / length / height + height * (1 - Math.PI / 4);
        }
    }

    /**
     * One tool printing on the layer.
     *
     * @param tool by its number in the file, from 0
     * @param extruded mm of filament
     * @param seconds it takes, with the change to it where that comes within the layer
     * @param door just before the line that chose the tool, if it was chosen since the last plastic
     */
    public record Stint(int tool, double extruded, double seconds, Optional<Door> door) {
        /** The same with so many seconds less waited at the change to it, and so many less of it all. */
        private Stint sparing(double waited, double all) {
            return new Stint(tool, extruded, Math.max(0, seconds - all), door.map(d -> d.sparing(waited)));
        }
    }

    /**
     * A place between two layers: after the last plastic of the one, and its retraction, before the first move
     * towards the other.
     *
     * @param offset of the byte before which lines may be put in; the beginning of a line
     * @param line from 1
     * @param state of the controller there
     * @param way places that the file passes from there, mm; it lays its first plastic from the last of them
     * @param warming what it waits for from there until then
     */
    public record Door(long offset, long line, ControllerState state, List<Coordinate> way, Warming warming) {
        public Door {
            way = List.copyOf(way);
        }

        Door(long offset, long line, ControllerState state) {
            this(offset, line, state, List.of(), Warming.NONE);
        }

        Door leadingTo(List<Coordinate> places, Warming waits) {
            return new Door(offset, line, state, places, waits);
        }

        /** The same where so many seconds need not be waited. */
        private Door sparing(double seconds) {
            return leadingTo(way, new Warming(Math.max(0, warming.seconds() - seconds), warming.to()));
        }
    }

    /**
     * Waiting until the nozzle is warm.
     *
     * @param seconds it takes in the file as it is
     * @param to what it comes to, °C
     */
    public record Warming(double seconds, double to) {
        static final Warming NONE = new Warming(0, 0);

        /** Seconds that need not be waited by a nozzle that is as warm already, °C. */
        public double sparedAt(double warm) {
            return Math.max(0, seconds - Heater.NOZZLE.secondsFrom(warm, to));
        }
    }

    /** What several visits to one height print, in their order; the first of them begins it. */
    static SlicedLayer together(List<SlicedLayer> visits) {
        if (visits.size() == 1) {
            return visits.get(0);
        }
        Envelope extent = new Envelope();
        visits.forEach(v -> extent.expandToInclude(v.extent()));
        return new SlicedLayer(
                visits.stream()
                        .map(SlicedLayer::z)
                        .max(Comparator.comparingInt(Height::micrometres))
                        .orElseThrow(),
                visits.stream().flatMap(v -> v.stints().stream()).toList(),
                extent,
                visits.stream()
                        .flatMap(v -> v.lines().stream())
                        .sorted(Comparator.comparingDouble(l -> -l.extent().getArea()))
                        .toList(),
                visits.get(0).door());
    }

    /**
     * Layers in the order of printing, without what is waited for only because another tool has printed before. What is waited for
     * between two layers is time of the lower one.
     */
    static List<SlicedLayer> warmAtChanges(List<SlicedLayer> layers) {
        List<double[]> spared = spared(layers);
        List<SlicedLayer> warm = new ArrayList<>(layers.size());
        for (int i = 0; i < layers.size(); i++) {
            SlicedLayer layer = layers.get(i);
            int last = layer.stints().size() - 1;
            double above = i + 1 < layers.size() ? spared.get(i + 1)[0] : 0;
            List<Stint> stints = new ArrayList<>();
            for (int j = 0; j <= last; j++) {
                double here = spared.get(i)[j];
                stints.add(layer.stints().get(j).sparing(here, (j == 0 ? 0 : here) + (j == last ? above : 0)));
            }
            double below = spared.get(i)[0];
            warm.add(new SlicedLayer(
                    layer.z(),
                    stints,
                    layer.extent(),
                    layer.lines(),
                    layer.door().map(d -> d.sparing(below))));
        }
        return warm;
    }

    /** Seconds that {@link #warmAtChanges} leaves out. */
    static double heatingAtChanges(List<SlicedLayer> layers) {
        List<double[]> spared = spared(layers);
        return spared.stream().flatMapToDouble(Arrays::stream).sum() - spared.get(0)[0];
    }

    /** For each stint the seconds that its tool would not be waited for, had it gone on as warm as it was left. */
    private static List<double[]> spared(List<SlicedLayer> layers) {
        Map<Integer, Double> left = new HashMap<>();
        List<double[]> spared = new ArrayList<>(layers.size());
        int printing = -1;
        for (SlicedLayer layer : layers) {
            double[] here = new double[layer.stints().size()];
            for (int j = 0; j < here.length; j++) {
                Stint stint = layer.stints().get(j);
                if (stint.door().isPresent()) {
                    Door door = stint.door().get();
                    left.put(printing, door.state().nozzleNow());
                    Warming warming = door.warming();
                    here[j] = warming.sparedAt(left.getOrDefault(stint.tool(), warming.to()));
                }
                printing = stint.tool();
            }
            spared.add(here);
        }
        return spared;
    }

    /** mm of filament. */
    public double extruded() {
        return stints.stream().mapToDouble(Stint::extruded).sum();
    }

    public double seconds() {
        return stints.stream().mapToDouble(Stint::seconds).sum();
    }
}
