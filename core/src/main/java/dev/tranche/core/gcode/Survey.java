package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Block;
import dev.tranche.core.gcode.SlicedFile.Order;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedFile.Stop;
import dev.tranche.core.gcode.SlicedFile.ToolLine;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.gcode.SlicedLayer.Line;
import dev.tranche.core.gcode.SlicedLayer.Stint;
import dev.tranche.core.gcode.SlicedLayer.Warming;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/** Reads a G-code file once, from end to end, in memory that does not grow with it. */
public final class Survey {
    private static final int MOST_RUNS = 100_000;
    private static final int MOST_STINTS = 1_000_000;
    private static final int MOST_STOPS = 1_000;
    /** Of one move, mm: a tenth of a kilometre. */
    private static final double FARTHEST = 100_000;
    /** A month, s. */
    private static final double LONGEST_PAUSE = 30 * 86_400.0;

    /** Of one layer that are kept. */
    private static final int MOST_LINES = 8;
    /** Of one tool, where tools are chosen: so that all its parts are found; and {@code MOST_LINES_OF_ALL} of all. */
    private static final int MOST_LINES_OF_TOOL = 32;

    private static final int MOST_LINES_OF_ALL = 96;
    /** Of the first {@value #FIRST_RUNS} layers, so that all copies are found. */
    private static final int MOST_FIRST_LINES = 512;

    private static final int FIRST_RUNS = 12;
    /** On the way from one line of plastic to the next, that are kept. */
    private static final int MOST_TRAVELS = 64;

    /** One line in so many that looks like a move is chance. */
    private static final int HARDLY = 20;

    private static final int REPORT_EVERY = 1 << 16;

    private final GcodeScanner line;
    private final Controller controller;
    private final MotionClock clock;
    private final MotionRelay relay;
    private final OwnLines own;
    private final MarkerHunt markers = new MarkerHunt();
    private final List<Run> runs = new ArrayList<>();
    private final List<Stop> stops = new ArrayList<>();
    private final List<Block> blocks = new ArrayList<>();
    private final List<ToolLine> toolLines = new ArrayList<>();
    /** Heat that was asked for since the last plastic. */
    private final List<Heating> heating = new ArrayList<>();

    /** Of the line at that place of {@link #toolLines}: what was asked for before it. */
    private record Heating(int line, double before) {}

    /** Of the block that is being read. */
    private List<Span> kept = new ArrayList<>();

    private Run run;
    /** What the clock's present account stands for. */
    private Draft stint;

    private int accounts;
    /** Where the tool was changed since the last plastic. */
    private Door toolDoor;
    /** Z of the last plastic, mm. */
    private double runHeight;

    private Door door;
    /** Before the first plastic; nothing as long as none has come, and {@code fed} the line that may bring it. */
    private Door start;

    private Door fed;
    /** Where each travel since the last plastic has ended, and how many of them came before each door. */
    private final List<Coordinate> travels = new ArrayList<>();

    private int doorFrom;
    private int toolDoorFrom;
    /** How long the file has waited for the nozzle so far, s, and had by each door. */
    private double warmed;

    private double doorWarmed;
    private double toolDoorWarmed;
    /** Whether plastic has come out since the last travel, so that the next travel is a door. */
    private boolean doorWanted = true;

    /** Whether the last move laid plastic, so that the next begins where plastic is. */
    private boolean drawing;

    private final Trace trace = new Trace();

    /** Offset after the last plastic. */
    private long plasticTo;

    /** How the printer stands there, as soon as another command comes; {@code afterFor} the offset it belongs to. */
    private ControllerState after;

    private long afterFor;
    /** Feed of the last plastic, mm/s. */
    private double laidAt;

    /** How many stops know what comes after them. */
    private int settledStops;

    private int pieces;
    private long moves;
    private long rising;
    private int tool = -1;
    private boolean crlf;
    /** The last line that called a place another. */
    private long lastOrigin;

    private boolean numbered;
    private OptionalLong originMoved = OptionalLong.empty();
    private long blockFrom;
    private BlockStamp blockStamp;

    private static final class Run {
        final int micrometres;
        final Optional<Door> door;
        final List<Draft> stints = new ArrayList<>();
        final Envelope extent = new Envelope();
        /** The largest first. */
        final List<Line> lines = new ArrayList<>();

        /** Of one tool. */
        final int most;

        Run(int micrometres, Optional<Door> door, int most) {
            this.micrometres = micrometres;
            this.door = door;
            this.most = most;
        }

        void add(Trace trace) {
            if (trace.length == 0) {
                return;
            }
            Envelope box = new Envelope(trace.minX, trace.maxX, trace.minY, trace.maxY);
            extent.expandToInclude(box);
            int at = lines.size();
            while (at > 0 && lines.get(at - 1).extent().getArea() < box.getArea()) {
                at--;
            }
            int smallest = -1;
            int before = 0;
            for (int i = 0; i < lines.size(); i++) {
                if (lines.get(i).tool() == trace.tool) {
                    smallest = i;
                    before++;
                }
            }
            if (before == most) {
                if (smallest < at) {
                    return;
                }
                lines.remove(smallest);
            }
            lines.add(at, new Line(trace.tool, box, trace.extruded, trace.length));
            if (lines.size() > Math.max(most, MOST_LINES_OF_ALL)) {
                lines.remove(lines.size() - 1);
            }
        }
    }

    /** The line that is being drawn. */
    private static final class Trace {
        int tool;
        double extruded;
        double length;
        double minX;
        double minY;
        double maxX;
        double maxY;

        void begin(int by, double x, double y) {
            tool = by;
            extruded = 0;
            length = 0;
            minX = x;
            maxX = x;
            minY = y;
            maxY = y;
        }

        void include(double x, double y) {
            if (x < minX) {
                minX = x;
            }
            if (x > maxX) {
                maxX = x;
            }
            if (y < minY) {
                minY = y;
            }
            if (y > maxY) {
                maxY = y;
            }
        }
    }

    /** A stint in the making. */
    private static final class Draft {
        final int tool;
        final int account;
        Door door;
        double extruded;

        Draft(int tool, int account, Door door) {
            this.tool = tool;
            this.account = account;
            this.door = door;
        }
    }

    private Survey(InputStream in, Dialect dialect, MotionClock clock, MotionRelay relay) {
        this.controller = new Controller(dialect);
        this.own = new OwnLines(dialect);
        this.line = new GcodeScanner(in);
        this.clock = clock;
        this.relay = relay;
    }

    /**
     * @param in read to its end and left open
     * @param size bytes it will give, for progress
     * @param motion of the printer that will run the file, and {@code dialect} of its firmware
     * @throws Refusal if it is no G-code, or never extrudes
     */
    public static SlicedFile read(InputStream in, long size, Motion motion, Dialect dialect, Progress progress)
            throws IOException {
        MotionClock clock = new MotionClock(motion);
        try (MotionRelay relay = new MotionRelay(clock)) {
            return new Survey(in, dialect, clock, relay).run(size, progress);
        }
    }

    private SlicedFile run(long size, Progress progress) throws IOException {
        long end = 0;
        while (line.next()) {
            end = line.end();
            if ((line.line() & REPORT_EVERY - 1) == 0) {
                progress.at(Math.min(size, line.end()), size);
            }
            if (line.line() == 1) {
                crlf = line.endsWithCrLf();
            }
            if (line.taken() && blockStamp == null) {
                continue;
            }
            if (line.taken()) {
                kept.add(new Span(line.offset(), line.end()));
            }
            if (!own.isEmpty() && (blockStamp == null || line.taken()) && ownLine()) {
                continue;
            }
            if (line.letter() == 0 && !line.goesOn()) {
                comment();
            } else if (blockStamp == null || line.taken()) {
                command();
            }
        }
        lift();
        settleHeat();
        settleStops(Long.MAX_VALUE);
        relay.finish();
        if (blockStamp != null) {
            throw Refusal.of(
                    "The file ends inside lines that Tranche put in (%s %d); use an undamaged copy of it.",
                    blockStamp.what().code(), blockStamp.number());
        }
        if (runs.isEmpty()) {
            throw new Refusal(
                    moves <= line.line() / HARDLY
                            ? "The file holds " + (moves == 0 ? "no" : "hardly any")
                                    + " moves (G0 or G1); it is no G-code. Choose the file your slicing program wrote."
                            : "The file moves but never extrudes, so it prints nothing; slice the model again and choose that file.");
        }
        return new SlicedFile(
                end,
                line.line(),
                layers(),
                clock.seconds(0),
                start,
                plasticTo,
                afterFor == plasticTo ? after : controller.state(),
                pieces,
                order(),
                stops,
                blocks,
                List.copyOf(toolLines),
                markers.found(runs.size(), runHeight),
                crlf,
                controller.readingsDiffer(),
                numbered,
                originMoved);
    }

    private void comment() {
        if (!line.isComment()) {
            if (blockStamp == null && line.beginsWithParenthesis()) {
                markers.comment(line.buffer(), line.start(), line.lineEnd(), runs.size(), runHeight);
            }
            return;
        }
        if (blockStamp != null) {
            if (line.beginsWithComment() && BlockStamp.isMark(line.comment())) {
                requireEnd();
                blocks.add(new Block(blockFrom, line.end(), blockStamp, kept));
                kept = new ArrayList<>();
                blockStamp = null;
            }
            return;
        }
        byte[] bytes = line.buffer();
        int from = line.commentStart();
        if (line.beginsWithComment()
                && line.lineEnd() - from > 15
                && bytes[from + 2] == 't'
                && bytes[from + 3] == 'r') {
            Optional<BlockStamp> stamp = BlockStamp.beginning(line.comment());
            if (stamp.isPresent()) {
                blockStamp = stamp.get();
                blockFrom = line.offset();
                return;
            }
            if (BlockStamp.isEnd(line.comment())) {
                throw Refusal.of(
                        "Line %d of the G-code is “%s”, and nothing that Tranche put in begins before it; use an undamaged copy of the file.",
                        line.line(), Words.quoted(line.comment()));
            }
            if (BlockStamp.isPiece(line.comment())) {
                pieces++;
                return;
            }
        }
        markers.comment(bytes, from, line.lineEnd(), runs.size(), runHeight);
    }

    /** What begins before the last block has ended, or ends another, tells that lines are lost. */
    private void requireEnd() {
        if (!blockStamp.endsWith(line.comment())) {
            throw Refusal.of(
                    "Line %d of the G-code is “%s”, and the lines that Tranche put in before it (%s %d) have not ended; use an undamaged copy of the file.",
                    line.line(), Words.quoted(line.comment()), blockStamp.what().code(), blockStamp.number());
        }
    }

    private void command() {
        numbered |= line.isNumbered();
        boolean move = line.letter() == 'G' ? line.number() >= 0 && line.number() <= 3 : line.letter() == 0;
        if (move && doorWanted && !line.has('E') && (line.has('X') || line.has('Y') || line.has('Z'))) {
            door = new Door(line.offset(), line.line(), controller.state());
            doorFrom = travels.size();
            doorWarmed = warmed;
            doorWanted = false;
        }
        if (drawing && afterFor != plasticTo && !(line.has('E') && (line.has('X') || line.has('Y')))) {
            afterFor = plasticTo;
            after = controller.state();
        }
        if (start == null && move && line.has('E')) {
            fed = new Door(line.offset(), line.line(), controller.state());
        }
        if (line.letter() == 'M' && line.has('T') && toolLine()) {
            return;
        }
        switch (controller.execute(line)) {
            case MOVE -> moved();
            case DWELL, HEAT -> {
                if (!(controller.pause() < LONGEST_PAUSE)) {
                    throw Refusal.of(
                            "Line %d of the G-code waits for %.0f s, longer than any print; the file is damaged.",
                            line.line(), controller.pause());
                }
                relay.pause(controller.pause(), accounts);
                if (line.is('M', 109)) {
                    warmed += controller.pause();
                }
                settle();
            }
            case TOOL -> toolChosen(line.number());
            case NONE -> {
                if (line.is('G', 28)) {
                    settle();
                } else if (line.is('G', 92)) {
                    lastOrigin = line.line();
                }
                if (line.letter() == 'M' && isStop(line.number())) {
                    stopFound();
                } else if (line.is('M', 117)) {
                    markers.comment(line.buffer(), line.start() + 4, line.lineEnd(), runs.size(), runHeight);
                }
            }
        }
    }

    /** The door before the first plastic is the one after the last heating and homing. */
    private void settle() {
        doorWanted |= runs.isEmpty();
    }

    /** What stops a machine is common practice in open firmware. */
    private static boolean isStop(int m) {
        return switch (m) {
            case 0, 1, 25, 226, 600, 601 -> true;
            default -> false;
        };
    }

    private void stopFound() {
        if (stops.size() == MOST_STOPS) {
            throw Refusal.of(
                    "The G-code stops the machine over %d times by line %d, and nobody would stand by that; slice it without stops.",
                    MOST_STOPS, line.line());
        }
        stops.add(new Stop(
                line.text().strip(),
                new Door(line.offset(), line.line(), controller.state()),
                line.end(),
                new Span(plasticTo, Long.MAX_VALUE),
                runs.size() - 1,
                runs.size(),
                line.hasEnding(),
                line.taken()));
    }

    /** What lies behind a stop is known when the next plastic comes, or none comes any more. */
    private void settleStops(long until) {
        for (; settledStops < stops.size(); settledStops++) {
            Stop s = stops.get(settledStops);
            int after = until == Long.MAX_VALUE ? runs.size() : runs.size() - 1;
            stops.set(
                    settledStops,
                    new Stop(
                            s.text(),
                            s.place(),
                            s.to(),
                            new Span(s.gap().from(), until),
                            s.before(),
                            after,
                            s.ended(),
                            s.taken()));
        }
    }

    /** A line that only this printer's owner knows. */
    private boolean ownLine() {
        if (own.stops(line)) {
            stopFound();
            return true;
        }
        int number = own.tool(line);
        if (number >= 0) {
            toolChosen(number);
        }
        return number >= 0;
    }

    /** From here on the time belongs to another tool, though its first plastic may be long in coming. */
    private void toolChosen(int number) {
        if (number < 0) {
            return;
        }
        remember(number, false);
        if (number == tool) {
            return;
        }
        if (!heating.isEmpty()) {
            // What was said to the tool that rests from here on was not said to the nozzle.
            controller.heat(heating.get(0).before());
        }
        if (tool < 0 && run != null) {
            // What has printed without being chosen is the first.
            controller.choose(0);
        }
        tool = number;
        ControllerState left = controller.state();
        controller.choose(number);
        ControllerState there = left.awaiting(controller.draw());
        toolDoor = new Door(line.offset(), line.line(), there);
        toolDoorFrom = travels.size();
        toolDoorWarmed = warmed;
        owes(there);
        if (run != null) {
            beginStint();
        }
    }

    /**
     * Commands to a tool by its number: M6 chooses it, M104 and M109 heat it. The nozzle of a machine that has but one is
     * heated by what is said to the tool that prints next; what is said to one that rests means nothing to it.
     *
     * @return whether nothing more comes of the line
     */
    private boolean toolLine() {
        int number = (int) Math.max(-1, Math.min(1_000_000, line.get('T')));
        if (line.number() == 6) {
            toolChosen(number);
            return true;
        }
        if (line.number() != 104 && line.number() != 109) {
            return false;
        }
        remember(number, true);
        heating.add(new Heating(toolLines.size() - 1, controller.nozzleTarget()));
        return number != Math.max(0, tool);
    }

    /** Whose heat it was is known when the next plastic comes, or none comes any more. */
    private void settleHeat() {
        for (Heating h : heating) {
            ToolLine l = toolLines.get(h.line());
            toolLines.set(h.line(), l.heating(Math.max(0, tool)));
        }
        heating.clear();
    }

    /** Of the line just remembered: what has to be made good where it is taken out and no spool is changed. */
    private void owes(ControllerState there) {
        if (there.owesFilament()) {
            ToolLine l = toolLines.get(toolLines.size() - 1);
            toolLines.set(toolLines.size() - 1, l.owing(there));
        }
    }

    /** The line as it would be said to the only nozzle there is. */
    private String heat() {
        StringBuilder said = new StringBuilder("M").append(line.number());
        for (char word : new char[] {'S', 'R'}) {
            if (line.has(word)) {
                said.append(' ')
                        .append(word)
                        .append(Words.format("%.1f", line.get(word)).replaceAll("\\.0$", ""));
            }
        }
        return said.toString();
    }

    private void remember(int number, boolean heats) {
        if (toolLines.size() == MOST_STINTS) {
            throw Refusal.of("The G-code names tools over a million times by line %d; it is damaged.", line.line());
        }
        toolLines.add(new ToolLine(
                line.line(),
                line.offset(),
                line.end(),
                number,
                heats,
                tool,
                line.hasEnding(),
                heats ? heat() : "",
                Optional.empty()));
    }

    private void beginStint() {
        if (accounts == MOST_STINTS) {
            throw Refusal.of("The G-code changes tools over a million times by line %d; it is damaged.", line.line());
        }
        accounts++;
        if (originMoved.isEmpty() && !controller.standsOnOrigin()) {
            originMoved = OptionalLong.of(lastOrigin);
        }
        stint = new Draft(Math.max(0, tool), accounts, toolDoor);
        run.stints.add(stint);
    }

    private void moved() {
        moves++;
        Controller c = controller;
        double de = c.de();
        double dx = c.dx();
        double dy = c.dy();
        if (start == null && de > 0) {
            start = doorWanted ? fed : door;
        }
        if (!(c.length() + Math.abs(de) < FARTHEST)) {
            throw Refusal.of(
                    "Line %d of the G-code moves by %.0f mm, further than any printer goes; the file is damaged.",
                    line.line(), c.length() + Math.abs(de));
        }
        if (de > 0 && c.length() > 0 && (dx != 0 || dy != 0)) {
            if (c.dz() != 0) {
                rising++;
            }
            if (run == null || c.z() != runHeight) {
                runHeight = c.z();
                int z = (int) Math.rint(Math.max(0, Math.min(10_000, runHeight)) * 1000);
                if (run == null || run.micrometres != z) {
                    begin(z);
                }
            }
            if (!heating.isEmpty()) {
                settleHeat();
            }
            if (settledStops < stops.size()) {
                settleStops(line.offset());
            }
            plasticTo = line.end();
            laidAt = c.feed();
            if (stint.extruded == 0 && stint.door != null) {
                stint.door = stint.door.leadingTo(since(toolDoorFrom), warmingSince(toolDoorWarmed));
            }
            travels.clear();
            stint.extruded += de;
            toolDoor = null;
            if (!drawing) {
                trace.begin(stint.tool, c.x() - dx, c.y() - dy);
                drawing = true;
            }
            trace.include(c.x(), c.y());
            trace.extruded += de;
            trace.length += c.length();
            doorWanted = true;
        } else {
            if (drawing && afterFor != plasticTo) {
                afterFor = plasticTo;
                after = c.state().asLaid(c.x() - dx, c.y() - dy, c.z() - c.dz(), c.e() - de, laidAt);
            }
            lift();
            if (dx != 0 || dy != 0) {
                travel();
            }
        }
        relay.move(dx, dy, c.dz(), de, c.length(), c.chord(), c.speed(), c.acceleration(), accounts);
    }

    private void travel() {
        if (travels.size() == MOST_TRAVELS) {
            travels.remove(MOST_TRAVELS - 1);
        }
        travels.add(new Coordinate(controller.x(), controller.y()));
    }

    /** The way from a door to where the plastic that is about to come begins. */
    private List<Coordinate> since(int from) {
        return from < travels.size()
                ? travels.subList(from, travels.size())
                : List.of(new Coordinate(controller.x() - controller.dx(), controller.y() - controller.dy()));
    }

    private Warming warmingSince(double then) {
        return new Warming(warmed - then, controller.nozzleTarget());
    }

    /** Ends the line that is being drawn. */
    private void lift() {
        if (drawing) {
            run.add(trace);
            drawing = false;
        }
    }

    private void begin(int z) {
        if (runs.size() == MOST_RUNS) {
            throw Refusal.of(
                    "The G-code has over %d layers by line %d; it is no layered print.", MOST_RUNS, line.line());
        }
        Optional<Door> here = doorWanted
                ? Optional.empty()
                : Optional.ofNullable(door).map(d -> d.leadingTo(since(doorFrom), warmingSince(doorWarmed)));
        lift();
        int most = tool < 0 ? MOST_LINES : MOST_LINES_OF_TOOL;
        run = new Run(z, here, runs.size() < FIRST_RUNS ? MOST_FIRST_LINES : most);
        runs.add(run);
        beginStint();
    }

    private List<SlicedLayer> layers() {
        List<SlicedLayer> layers = new ArrayList<>(runs.size());
        for (int i = 0; i < runs.size(); i++) {
            Run r = runs.get(i);
            layers.add(new SlicedLayer(Height.ofMicrometres(r.micrometres), stints(r), r.extent, r.lines, r.door));
        }
        return List.copyOf(layers);
    }

    /** What a tool did without plastic, such as being chosen just before the next layer, is the time of the one before it. */
    private List<Stint> stints(Run r) {
        List<Stint> stints = new ArrayList<>();
        for (Draft d : r.stints) {
            double seconds = clock.seconds(d.account);
            Stint last = stints.isEmpty() ? null : stints.get(stints.size() - 1);
            if (last != null && (d.extruded == 0 || d.tool == last.tool())) {
                stints.set(
                        stints.size() - 1,
                        new Stint(last.tool(), last.extruded() + d.extruded, last.seconds() + seconds, last.door()));
            } else {
                stints.add(new Stint(d.tool, d.extruded, seconds, Optional.ofNullable(d.door)));
            }
        }
        return stints;
    }

    /** A first line of plastic higher than the first layer is a priming line, not an object. */
    private Order order() {
        if (rising > 100 && rising > moves / 4) {
            return Order.SPIRAL;
        }
        for (int i = 2; i < runs.size(); i++) {
            if (runs.get(i).micrometres < runs.get(i - 1).micrometres) {
                return Order.SEVERAL_TIMES;
            }
        }
        return Order.LAYER_BY_LAYER;
    }
}
