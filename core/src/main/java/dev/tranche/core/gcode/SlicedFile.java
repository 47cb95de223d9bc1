package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Dialect.Counting;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a G-code file turns out to hold. Blocks that Tranche wrote are told apart and count for nothing else.
 *
 * @param size bytes
 * @param lines of text
 * @param layers in the order of printing; never empty
 * @param secondsBefore from the first line to the first plastic: heating, homing
 * @param start before the first plastic comes out, wherever that is: hot, at home, and before the way there
 * @param printedTo offset after the line that lays the last plastic
 * @param end how the printer stands there
 * @param pieces marks of pieces that Tranche has put into another order; 0 for none
 * @param order how the print is built up
 * @param stops commands that stop the machine, wherever they stand
 * @param blocks that Tranche wrote earlier
 * @param toolLines that choose a tool, or heat one by its number, in their order
 * @param unloadings where filament is drawn out of the nozzle and pushed in again
 * @param markers comments that number the layers, if there are any
 * @param crlf whether lines end with CR LF
 * @param readingsDiffer whether firmwares come to different counts of filament
 * @param sense how a firmware has to count to make lines of plastic of it, where they differ and only one way does
 * @param numbered whether its lines carry numbers, which a firmware wants to rise by one
 * @param originMoved the first line after which the file's places are no longer the machine's, from 1
 * @param notFollowed the first line that leads the nozzle, or says where it is, in a way that is not followed here
 */
public record SlicedFile(
        long size,
        long lines,
        List<SlicedLayer> layers,
        double secondsBefore,
        Door start,
        long printedTo,
        ControllerState end,
        int pieces,
        Order order,
        List<Stop> stops,
        List<Block> blocks,
        List<ToolLine> toolLines,
        List<Unloading> unloadings,
        Optional<Markers> markers,
        boolean crlf,
        boolean readingsDiffer,
        Counting sense,
        boolean numbered,
        OptionalLong originMoved,
        Optional<NotFollowed> notFollowed) {

    /** How a print is built up. */
    public enum Order {
        LAYER_BY_LAYER,
        /** It comes down again: one object after another, or bands. */
        SEVERAL_TIMES,
        SPIRAL
    }

    /**
     * A command that stops the machine.
     *
     * @param text the line as it stands
     * @param place just before it
     * @param to offset after its ending
     * @param gap what stands between the plastic before and the plastic after it
     * @param before index of the layer whose plastic comes before it, from 0; −1 before the first
     * @param after index of the layer whose plastic comes after it; the number of layers after the last
     * @param ended whether a line break ends it, so that it can be taken out
     * @param taken whether Tranche took it out earlier
     */
    public record Stop(
            String text, Door place, long to, Span gap, int before, int after, boolean ended, boolean taken) {
        /** From 1. */
        public long line() {
            return place.line();
        }

        public Span span() {
            return new Span(place.offset(), to);
        }

        /** The same when it is known where the next plastic comes, in the layer with index {@code layer}. */
        Stop until(long offset, int layer) {
            return new Stop(text, place, to, new Span(gap.from(), offset), before, layer, ended, taken);
        }

        /** Whether plastic comes before and after it. */
        public boolean interrupts(SlicedFile file) {
            return before >= 0 && after < file.layers().size();
        }
    }

    /**
     * Lines that Tranche put in.
     *
     * @param from offset of the first byte
     * @param to offset after the last
     * @param stamp whose plan, in which state
     * @param kept lines of the file that it took out, which stand in it as they stood
     */
    public record Block(long from, long to, BlockStamp stamp, List<Span> kept) {
        public Block {
            kept = List.copyOf(kept);
        }
    }

    /** Bytes of a file, from one offset to before another. */
    public record Span(long from, long to) {
        /** Whether an offset lies in it, or at its end. */
        public boolean holds(long offset) {
            return from <= offset && offset <= to;
        }
    }

    /**
     * A line that only a machine with several tools understands.
     *
     * @param line from 1
     * @param from offset of its first byte
     * @param to offset after its ending
     * @param tool by its number
     * @param heats whether it heats that tool, and does not choose it
     * @param printing the tool that prints next, or did last; of a line that chooses one, the one before it, −1 for none
     * @param ended whether a line break ends it, so that it can be taken out
     * @param heat what it says to the nozzle, without the number of a tool; empty where it heats nothing
     * @param owes the state there, where the tool it chooses was left drawn back otherwise than the one before it
     */
    public record ToolLine(
            long line,
            long from,
            long to,
            int tool,
            boolean heats,
            int printing,
            boolean ended,
            String heat,
            Optional<ControllerState> owes) {
        public Span span() {
            return new Span(from, to);
        }

        /** Whether it means the one nozzle, though by a number that a machine without tools does not know. */
        public boolean meansTheNozzle() {
            return heats && tool == printing && tool > 0;
        }

        /** The same when it is known who prints next. */
        ToolLine heating(int next) {
            return new ToolLine(line, from, to, tool, true, next, ended, heat, owes);
        }

        ToolLine owing(ControllerState there) {
            return new ToolLine(
                    line,
                    from,
                    to,
                    tool,
                    heats,
                    printing,
                    ended,
                    heat,
                    Optional.of(there).filter(ControllerState::owesFilament));
        }
    }

    /**
     * Filament that is drawn out of the nozzle and pushed in again, as for a machine that changes it by itself.
     *
     * @param length how far it is drawn back, mm
     * @param before how far it was when that began, mm, and is where none of the lines is done
     * @param lines that move it, at least two
     */
    public record Unloading(double length, double before, List<Fed> lines) {
        public Unloading {
            lines = List.copyOf(lines);
        }

        /** Offset of the first line. */
        public long from() {
            return lines.get(0).span().from();
        }

        /** Whether it is under way at a place in the file. */
        public boolean holds(long offset) {
            return from() <= offset
                    && offset <= lines.get(lines.size() - 1).span().from();
        }

        /** The same place with filament drawn back as it is where none of the lines moves it. */
        public ControllerState without(ControllerState there) {
            return there.drawn(Draw.of(before), Draw.of(before));
        }
    }

    /**
     * A line that moves filament.
     *
     * @param line from 1
     * @param text of it, without what a controller does not obey
     * @param without what does all it does but that: the way, the speed, the count of the extruder
     */
    public record Fed(Span span, long line, String text, List<String> without) {
        public Fed {
            without = List.copyOf(without);
        }
    }

    /**
     * Comments equal but for their numbers, of which one rises by one with each layer, or is its height.
     *
     * @param example the first of them
     * @param firstRun index of the layer it stands before
     * @param firstNumber the number it holds; empty where it holds the height of the nozzle
     */
    public record Markers(String example, int firstRun, OptionalLong firstNumber) {}

    /** What goes in and out of the nozzle at its changes of tools, where those are swaps since the printer has no tools. */
    public List<Unloading> leftToSwaps(Printer printer) {
        if (unloadings.isEmpty() || printer.abilities().understands(Command.T)) {
            return List.of();
        }
        TreeSet<Long> chosen = new TreeSet<>();
        toolLines.stream().filter(t -> !t.heats()).map(ToolLine::from).forEach(chosen::add);
        return unloadings.stream()
                .filter(u -> Optional.ofNullable(chosen.ceiling(u.from()))
                        .filter(u::holds)
                        .isPresent())
                .toList();
    }

    /** How the printer stands at a door, if it does nothing that is left to a swap. */
    public ControllerState withoutSwaps(Door door, Printer printer) {
        return printer.abilities().understands(Command.T)
                ? door.state()
                : unloadingAt(door.offset()).map(u -> u.without(door.state())).orElse(door.state());
    }

    /** What goes in and out of the nozzle round a place in it. */
    public Optional<Unloading> unloadingAt(long offset) {
        int found = Collections.binarySearch(unloadings, null, (u, none) -> Long.compare(u.from(), offset));
        int last = found < 0 ? -found - 2 : found;
        return last < 0 ? Optional.empty() : Optional.of(unloadings.get(last)).filter(u -> u.holds(offset));
    }

    /** What it prints at each height, with all visits to it; in the order of printing where each is visited once, else rising. */
    public List<SlicedLayer> levels() {
        if (order != Order.SEVERAL_TIMES) {
            return layers;
        }
        TreeMap<Height, List<SlicedLayer>> levels =
                layers.stream().collect(Collectors.groupingBy(SlicedLayer::z, TreeMap::new, Collectors.toList()));
        return levels.values().stream().map(SlicedLayer::together).toList();
    }

    /**
     * The same with the comments by which another order of it numbers its layers, and with its stops in that order.
     *
     * @param stopsAs the stops of this file as they come in {@code other}
     */
    public SlicedFile namedAs(SlicedFile other, List<Stop> stopsAs) {
        return new SlicedFile(
                size,
                lines,
                layers,
                secondsBefore,
                start,
                printedTo,
                end,
                pieces,
                order,
                stopsAs,
                blocks,
                toolLines,
                unloadings,
                other.markers,
                crlf,
                readingsDiffer,
                sense,
                numbered,
                originMoved,
                notFollowed);
    }

    /**
     * The same as if each tool were as warm at a change to it as it was left, so that the file need not wait for it: so long it
     * prints in another order than its own.
     */
    public SlicedFile warmAtChanges() {
        return new SlicedFile(
                size,
                lines,
                SlicedLayer.warmAtChanges(layers),
                secondsBefore,
                start,
                printedTo,
                end,
                pieces,
                order,
                stops,
                blocks,
                toolLines,
                unloadings,
                markers,
                crlf,
                readingsDiffer,
                sense,
                numbered,
                originMoved,
                notFollowed);
    }

    /** Whether it has the firmware draw filament back (G10) before a way to plastic, as far as that is seen. */
    public boolean drawsByFirmware() {
        return Stream.concat(
                        layers.stream().flatMap(l -> l.door().stream()),
                        layers.stream().flatMap(l -> l.stints().stream()).flatMap(s -> s.door().stream()))
                .anyMatch(d -> d.state().draw().byFirmware());
    }

    /** Whether a firmware of that dialect makes lines of plastic of it, as far as can be told. */
    public boolean makesSenseTo(Dialect dialect) {
        return sense == Counting.NOT_SAID || (sense == Counting.WITH_PLACES) == dialect.movesCountFilament();
    }

    /** Seconds it waits for the nozzle at changes of tools after its first plastic, which it would not {@link #warmAtChanges()}. */
    public double heatingAtChanges() {
        return SlicedLayer.heatingAtChanges(layers);
    }

    /** Seconds from the first line to the last. */
    public double seconds() {
        return secondsBefore + layers.stream().mapToDouble(SlicedLayer::seconds).sum();
    }

    /** Whether it prints with a tool that a machine without tools does not have. */
    public boolean namesTools() {
        return layers.stream().flatMap(l -> l.stints().stream()).anyMatch(s -> s.tool() > 0);
    }

    /** Whether tools are changed during the print: then those changes are its swaps. */
    public boolean changesTools() {
        return layers.stream()
                        .flatMap(l -> l.stints().stream())
                        .mapToInt(SlicedLayer.Stint::tool)
                        .distinct()
                        .count()
                > 1;
    }

    /** Swaps, halts and first loads that Tranche wrote into it. */
    public long stopsWritten() {
        return blocks.stream().filter(b -> b.stamp().what().stops()).count();
    }

    /** mm of filament. */
    public double extruded() {
        return layers.stream().mapToDouble(SlicedLayer::extruded).sum();
    }

    /**
     * @throws Refusal if it has none
     */
    public void requireLayers() {
        if (order == Order.SPIRAL) {
            throw new Refusal("The G-code rises while it extrudes, in a spiral, so it has no layers to stop between; "
                    + "slice it again without the spiral.");
        }
    }
}
