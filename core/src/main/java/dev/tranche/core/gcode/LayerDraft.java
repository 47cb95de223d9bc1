package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.gcode.SlicedLayer.Line;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.units.Height;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;

/** A layer as it is being read. */
final class LayerDraft {
    /** Lines of one layer that are kept. */
    private static final int MOST_LINES = 8;
    /** Of one tool, where tools are chosen: so that all its parts are found; and {@code MOST_LINES_OF_ALL} of all. */
    private static final int MOST_LINES_OF_TOOL = 64;

    private static final int MOST_LINES_OF_ALL = 128;
    /** Of the first {@value #FIRST_LAYERS} layers, so that all copies are found. */
    private static final int MOST_FIRST_LINES = 512;

    private static final int FIRST_LAYERS = 12;

    /** Of the layer it stands on; −1 if it stands on none. */
    private final int beneath;

    private int micrometres;
    private final Optional<Door> door;
    /** Of one tool's lines that are kept. */
    private final int most;

    private final List<StintDraft> stints = new ArrayList<>();
    private final Envelope extent = new Envelope();
    /** The largest first. */
    private final List<Line> lines = new ArrayList<>();
    /** How many of them each tool has. */
    private final Map<Integer, Integer> numbers = new HashMap<>();

    /** A stint as it is being read; its time is kept in an account of the clock. */
    static final class StintDraft {
        final int tool;
        private final int account;
        private Optional<Door> door = Optional.empty();
        private double extruded;

        private StintDraft(int tool, int account) {
            this.tool = tool;
            this.account = account;
        }

        /** Lays plastic, mm of filament; with the first of it, it is known where its door leads. */
        void lay(double filament, Doors doors) {
            if (extruded == 0) {
                door = doors.ofTool().map(doors::leadingHere);
            }
            extruded += filament;
        }
    }

    /**
     * @param beneath the height of what was printed before, if that is lower; else −1, µm
     * @param micrometres of the nozzle
     * @param nth layer it is, from 0
     * @param choosing whether the file chooses tools
     */
    LayerDraft(int beneath, int micrometres, Optional<Door> door, int nth, boolean choosing) {
        this.beneath = beneath;
        this.micrometres = micrometres;
        this.door = door;
        this.most = nth < FIRST_LAYERS ? MOST_FIRST_LINES : choosing ? MOST_LINES_OF_TOOL : MOST_LINES;
    }

    int micrometres() {
        return micrometres;
    }

    /** Whether plastic on its way up or down to a height, µm, is of this layer. */
    boolean holds(int z) {
        return z <= micrometres && z > beneath;
    }

    /** It turns out to be as high, µm. */
    void rise(int z) {
        micrometres = z;
    }

    /** Another tool, or the same after another layer. */
    StintDraft begin(int tool, int account) {
        StintDraft stint = new StintDraft(tool, account);
        stints.add(stint);
        return stint;
    }

    void add(Line line) {
        if (line.length() == 0) {
            return;
        }
        extent.expandToInclude(line.extent());
        double area = line.extent().getArea();
        int at = lines.size();
        while (at > 0 && lines.get(at - 1).extent().getArea() < area) {
            at--;
        }
        int before = numbers.getOrDefault(line.tool(), 0);
        if (before == most) {
            int smallest = smallestOf(line.tool());
            if (smallest < at) {
                return;
            }
            lines.remove(smallest);
        } else {
            numbers.put(line.tool(), before + 1);
        }
        lines.add(at, line);
        if (lines.size() > Math.max(most, MOST_LINES_OF_ALL)) {
            // Of the tool with the most lines, so that none with a few small ones is forgotten.
            int tool = Collections.max(numbers.entrySet(), Map.Entry.comparingByValue())
                    .getKey();
            lines.remove(smallestOf(tool));
            numbers.merge(tool, -1, Integer::sum);
        }
    }

    private int smallestOf(int tool) {
        int i = lines.size() - 1;
        while (lines.get(i).tool() != tool) {
            i--;
        }
        return i;
    }

    SlicedLayer layer(MotionClock clock) {
        return new SlicedLayer(Height.ofMicrometres(micrometres), stints(clock), extent, lines, door);
    }

    /** What a tool did without plastic, such as being chosen just before the next layer, is the time of the one before it. */
    private List<Stint> stints(MotionClock clock) {
        List<Stint> done = new ArrayList<>();
        for (StintDraft d : stints) {
            double seconds = clock.seconds(d.account);
            Stint last = done.isEmpty() ? null : done.get(done.size() - 1);
            if (last != null && (d.extruded == 0 || d.tool == last.tool())) {
                done.set(
                        done.size() - 1,
                        new Stint(last.tool(), last.extruded() + d.extruded, last.seconds() + seconds, last.door()));
            } else {
                done.add(new Stint(d.tool, d.extruded, seconds, d.door));
            }
        }
        return done;
    }
}
