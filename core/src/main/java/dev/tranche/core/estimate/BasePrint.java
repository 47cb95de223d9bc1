package dev.tranche.core.estimate;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedLayer;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Height;
import dev.tranche.core.units.Volume;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * The print without swaps: how long each layer takes and what plastic it holds.
 *
 * @param source where the figures come from
 * @param pace how many times as long as reckoned the machine takes; all times here have it in them
 * @param before time and plastic before layer 1: heating, a priming line, a raft
 * @param layers from layer 1
 * @param waysOver how much of the time goes into ways over what stands, s, which the same print in its own order would not take
 * @param heating how much of it a sliced file waits for the nozzle at its own changes of tools, s, of which one colour has none
 * @param holdsTower whether a sliced file prints more beside the model than a skirt, so that it may hold a tower
 */
public record BasePrint(
        Source source,
        double pace,
        LayerWork before,
        List<LayerWork> layers,
        double waysOver,
        double heating,
        boolean holdsTower) {
    /** Share of the time that printing takes with the way between lines. */
    static final double TRAVEL = 1.15;

    static final double SECONDS_PER_LAYER = 1;

    /** With the way to it, mm. */
    private static final double NARROWEST_TOWER = 6;

    /** How far the figures can be trusted. */
    public enum Source {
        MODEL,
        SLICED;

        /** How many times as long as reckoned from it a machine takes. */
        public double in(Pace pace) {
            return this == SLICED ? pace.fromFile() : pace.fromModel();
        }

        /** The pace of a machine that takes so many times as long as reckoned from it. */
        public Pace set(Pace pace, double times) {
            return this == SLICED ? new Pace(pace.fromModel(), times) : new Pace(times, pace.fromFile());
        }
    }

    /**
     * @param seconds to print it
     * @param plastic in it
     */
    public record LayerWork(double seconds, Volume plastic) {
        private LayerWork lasting(double times) {
            return new LayerWork(seconds * times, plastic);
        }
    }

    public BasePrint {
        layers = List.copyOf(layers);
    }

    /** Seconds from the start to the first plastic of {@code layer}, without swaps. */
    public double secondsUntil(int layer) {
        double sum = before.seconds();
        for (int i = 0; i < layer - 1; i++) {
            sum += layers.get(i).seconds();
        }
        return sum;
    }

    public double seconds() {
        return secondsUntil(layers.size() + 1);
    }

    /** What of it the same print in one colour would take. */
    public double plainSeconds() {
        return seconds() - waysOver - heating;
    }

    /**
     * A rough guess at the same print in other layers: each layer has its second, and the rest goes as one over the
     * layer height, since the same plastic is laid in thinner lines.
     *
     * @param grid this print is on
     * @param copies it holds
     */
    public double roughSecondsIn(LayerGrid grid, Height layerHeight, int count, int copies) {
        double aLayer = SECONDS_PER_LAYER * copies;
        double along = Math.max(0, seconds() - aLayer * grid.count());
        return along * grid.layerHeight().micrometres() / layerHeight.micrometres() + aLayer * count;
    }

    /**
     * As many copies side by side. What goes before layer 1 happens once; the second a layer takes besides is one for
     * every copy, for the way to it.
     */
    public BasePrint times(int copies) {
        return new BasePrint(
                source,
                pace,
                before,
                layers.stream()
                        .map(l ->
                                new LayerWork(l.seconds() * copies, l.plastic().times(copies)))
                        .toList(),
                waysOver,
                heating,
                holdsTower);
    }

    /** The same print, reckoned as it was, on a machine of that pace. */
    public BasePrint at(Pace measured) {
        double times = source.in(measured) / pace;
        return new BasePrint(
                source,
                pace * times,
                before.lasting(times),
                layers.stream().map(l -> l.lasting(times)).toList(),
                waysOver * times,
                heating * times,
                holdsTower);
    }

    /** The same print as if its file waited for the nozzle at no change of tools: {@code match} is that of such a file. */
    public BasePrint timed(GridMatch match) {
        return new BasePrint(
                source,
                pace,
                before,
                IntStream.rangeClosed(1, layers.size())
                        .mapToObj(l -> new LayerWork(
                                pace * match.layer(l).seconds(),
                                layers.get(l - 1).plastic()))
                        .toList(),
                waysOver,
                0,
                holdsTower);
    }

    /** The same print, put into another order than it was sliced in. */
    public BasePrint insteadOf(BasePrint sliced) {
        double over = Math.max(0, seconds() - heating - sliced.plainSeconds());
        return new BasePrint(source, pace, before, layers, over, heating, holdsTower);
    }

    /**
     * Times and plastic as the sliced file has them.
     *
     * @param model what it covers of the bed, wherever it is put
     */
    public static BasePrint from(GridMatch match, Filament filament, Envelope model) {
        double seconds = match.file().secondsBefore();
        double extruded = 0;
        for (SlicedLayer run : match.beneath()) {
            seconds += run.seconds();
            extruded += run.extruded();
        }
        List<LayerWork> layers = new ArrayList<>();
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            SlicedLayer run = match.layer(layer);
            layers.add(new LayerWork(run.seconds(), filament.volume(run.extruded())));
        }
        return new BasePrint(
                Source.SLICED,
                1,
                new LayerWork(seconds, filament.volume(extruded)),
                layers,
                0,
                match.file().heatingAtChanges(),
                reachesBeyond(match, model));
    }

    /** A skirt goes round the first layer only; whatever is wider above is more than the model. */
    private static boolean reachesBeyond(GridMatch match, Envelope model) {
        Envelope printed = match.part();
        return printed.getWidth() > model.getWidth() + NARROWEST_TOWER
                || printed.getHeight() > model.getHeight() + NARROWEST_TOWER;
    }

    /**
     * An estimate from the model's sections alone: walls take perimeter × count × line width × h, at most the
     * area; what no neighbour within the shell covers is solid; the rest is infill. Volume over line width × h ×
     * speed, 15 % for travel, 1 s a layer.
     *
     * <p>What neighbours cover is taken from areas, not outlines: exact where layers shrink or grow upwards.
     */
    public static BasePrint from(List<Section> sections, LayerGrid grid, Printer printer, PrintSettings settings) {
        double[] areas = sections.stream().mapToDouble(Section::area).toArray();
        List<LayerWork> layers = new ArrayList<>(areas.length);
        for (int i = 0; i < areas.length; i++) {
            double h = grid.thickness(i + 1).millimetres();
            double walls = Math.min(areas[i], sections.get(i).perimeter() * settings.walls() * printer.lineWidth());
            double inside = areas[i] - walls;
            double solid = Math.min(inside, Math.max(0, areas[i] - covered(areas, i, settings.shellLayers())));
            double plastic = (walls + solid + settings.infill() * (inside - solid)) * h;
            double along = plastic / (printer.lineWidth() * h * printer.motion().printSpeed());
            layers.add(new LayerWork(along * TRAVEL + SECONDS_PER_LAYER, new Volume(plastic)));
        }
        return new BasePrint(Source.MODEL, 1, new LayerWork(0, Volume.NONE), layers, 0, 0, false);
    }

    /** Plastic in all layers. */
    public Volume plastic() {
        return new Volume(
                layers.stream().mapToDouble(l -> l.plastic().cubicMillimetres()).sum());
    }

    /** With the infill that would put {@code plastic} into the model, between none and all of it. */
    public static PrintSettings holding(
            Volume plastic, List<Section> sections, LayerGrid grid, Printer printer, PrintSettings settings) {
        double hollow =
                from(sections, grid, printer, settings.filled(0)).plastic().cubicMillimetres();
        double full =
                from(sections, grid, printer, settings.filled(1)).plastic().cubicMillimetres();
        double share = full > hollow ? (plastic.cubicMillimetres() - hollow) / (full - hollow) : 0;
        return settings.filled(Math.max(0, Math.min(1, share)));
    }

    private static double covered(double[] areas, int layer, int reach) {
        double least = areas[layer];
        for (int i = layer - reach; i <= layer + reach; i++) {
            least = Math.min(least, i < 0 || i >= areas.length ? 0 : areas[i]);
        }
        return least;
    }
}
