package dev.tranche.core.gcode;

import dev.tranche.core.gcode.LayerDraft.StintDraft;
import dev.tranche.core.gcode.SlicedFile.Order;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * Reads a G-code file once, from end to end, in memory that does not grow with it.
 *
 * <p>Line by line it lets the {@link Controller} execute what the file says, and tells the clock and those who keep what is
 * found: layers, doors, stops, tools, and what Tranche wrote earlier.
 */
public final class Survey {
    private static final int MOST_LAYERS = 100_000;
    private static final int MOST_STINTS = 1_000_000;
    /** Of one move, mm: a tenth of a kilometre. */
    private static final double FARTHEST = 100_000;
    /** Of one line, s: a month. */
    private static final double LONGEST = 30 * 86_400.0;
    /** Of a print, s: a year. */
    private static final double A_YEAR = 365 * 86_400.0;
    /** Nothing is printed higher, mm. */
    private static final double HIGHEST = 10_000;

    /** The clock's account of filament that goes out of the nozzle and in again, if a swap does that. */
    private static final int FEEDING = 1;

    /** Moves on the way up, which a line to prime on does not have. */
    private static final int MANY = 100;
    /** A wall that climbs to its layer begins no deeper than a layer is thick, mm. */
    private static final double HIGHEST_JOINT = 1.5;

    /** One line in so many that looks like a move is chance. */
    private static final int HARDLY = 20;

    private static final int REPORT_EVERY = 1 << 16;

    private final GcodeScanner line;
    private final boolean changesItself;
    private final Controller controller;
    private final MotionClock clock;
    private final MotionRelay relay;
    private final OwnLines own;
    private final MarkerHunt markers = new MarkerHunt();
    private final BlockLog blocks = new BlockLog();
    private final StopLog stops = new StopLog();
    private final ToolLog tools = new ToolLog();
    private final UnloadLog unloads = new UnloadLog();
    private final Doors doors;
    private final Trace trace = new Trace();
    private final List<LayerDraft> layers = new ArrayList<>();

    private LayerDraft layer;
    /** What the clock's present account stands for. */
    private StintDraft stint;

    private int accounts;
    /** Chosen by the file; −1 before it chooses one. */
    private int tool = -1;
    /** Z of the last plastic, mm. */
    private double height;
    /** Offset after the last plastic. */
    private long plasticTo;

    /** How the printer stands there, as soon as another command comes; {@code afterFor} the offset it belongs to. */
    private ControllerState after;

    private long afterFor;
    /** Feed of the last plastic, mm/s. */
    private double laidAt;

    private long moves;
    /** Moves that lay plastic on the way up or down. */
    private long rising;
    /** The furthest that a line without a break goes up, mm. */
    private double climb;
    /** Whether plastic comes without a break since the height {@code foot}. */
    private boolean unbroken;

    private double foot;
    /** Whether the layer has been begun by a line that is still going up. */
    private boolean climbing;

    private boolean crlf;
    private boolean numbered;
    /** The last line that called a place another. */
    private long lastOrigin;

    private OptionalLong originMoved = OptionalLong.empty();
    private Optional<NotFollowed> notFollowed = Optional.empty();

    private Survey(InputStream in, Dialect dialect, boolean changesItself, MotionClock clock, MotionRelay relay) {
        this.changesItself = changesItself;
        this.controller = new Controller(dialect);
        this.doors = new Doors(controller);
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
        return read(in, size, motion, dialect, false, progress);
    }

    /** @param changesItself whether the printer changes filament as the file says, so that this takes time */
    public static SlicedFile read(
            InputStream in, long size, Motion motion, Dialect dialect, boolean changesItself, Progress progress)
            throws IOException {
        MotionClock clock = new MotionClock(motion);
        try (MotionRelay relay = new MotionRelay(clock)) {
            Survey survey = new Survey(in, dialect, changesItself, clock, relay);
            long end = survey.read(size, progress);
            relay.finish();
            return survey.found(end);
        }
    }

    /** Answers the offset of the end. */
    private long read(long size, Progress progress) throws IOException {
        long end = 0;
        while (line.next()) {
            end = line.end();
            if ((line.line() & REPORT_EVERY - 1) == 0) {
                progress.at(Math.min(size, end), size);
            }
            if (line.line() == 1) {
                crlf = line.endsWithCrLf();
            }
            if (line.taken()) {
                if (!blocks.isOpen()) {
                    continue;
                }
                blocks.takes(line);
            }
            boolean ofTheFile = !blocks.isOpen() || line.taken();
            if (ofTheFile && !own.isEmpty() && ownLine()) {
                continue;
            }
            if (line.letter() == 0 && !line.goesOn()) {
                comment();
            } else if (ofTheFile) {
                command();
            }
        }
        lift();
        return end;
    }

    private SlicedFile found(long end) {
        blocks.requireClosed();
        if (layers.isEmpty()) {
            throw new Refusal(
                    moves <= line.line() / HARDLY
                            ? "The file holds " + (moves == 0 ? "no" : "hardly any")
                                    + " moves (G0 or G1); it is no G-code. Choose the file your slicing program wrote."
                            : "The file moves but never extrudes, so it prints nothing; slice the model again and choose that file.");
        }
        if (!(clock.total() < A_YEAR)) {
            throw new Refusal(
                    "The G-code prints for over a year by the speeds (F) and waits (G4) in it; correct them, or slice the model again.");
        }
        tools.settle(printing());
        return new SlicedFile(
                end,
                line.line(),
                layers.stream().map(l -> l.layer(clock)).toList(),
                clock.seconds(0),
                doors.start(),
                plasticTo,
                afterFor == plasticTo ? after : controller.state(),
                blocks.pieces(),
                order(),
                stops.ended(layers.size()),
                blocks.blocks(),
                List.copyOf(tools.lines()),
                List.copyOf(unloads.found()),
                markers.found(layers.size(), height),
                crlf,
                controller.readings().differ(),
                controller.readings().sense(),
                numbered,
                originMoved,
                notFollowed);
    }

    private void comment() {
        if (line.isComment() ? !blocks.takesComment(line) : !blocks.isOpen() && line.beginsWithParenthesis()) {
            hunt(line.isComment() ? line.commentStart() : line.start());
        }
    }

    /** What stands from there to the end of the line may number a layer. */
    private void hunt(int from) {
        markers.comment(line.buffer(), from, line.lineEnd(), layers.size(), height);
    }

    private void command() {
        numbered |= line.isNumbered();
        if (line.letter() == 'G' ? line.number() >= 0 && line.number() <= 3 : line.letter() == 0) {
            doors.before(line);
        }
        if (trace.isDrawing() && afterFor != plasticTo && !(line.has('E') && (line.has('X') || line.has('Y')))) {
            afterFor = plasticTo;
            after = controller.state();
        }
        if (line.letter() == 'M' && line.has('T') && toolLine()) {
            return;
        }
        switch (controller.execute(line)) {
            case MOVE -> moved();
            case DWELL, BED -> paused();
            case HEAT -> heated();
            case TOOL -> toolChosen(line.number());
            case NONE -> {
                if (notFollowed.isEmpty()) {
                    notFollowed = NotFollowed.in(line);
                }
                if (line.is('G', 28)) {
                    settle();
                } else if (line.is('G', 92)) {
                    lastOrigin = line.line();
                } else if (StopLog.isStop(line)) {
                    stopFound();
                } else if (line.is('M', 117)) {
                    hunt(line.start() + 4);
                }
            }
        }
    }

    private void paused() {
        double seconds = controller.pause();
        if (!(seconds < LONGEST)) {
            throw Refusal.of(
                    "Line %d of the G-code waits for %.0f s, longer than any print; the file is damaged.",
                    line.line(), seconds);
        }
        relay.pause(seconds, accounts);
        settle();
    }

    private void heated() {
        doors.warmed(controller.pause());
        paused();
    }

    /** The door before the first plastic is the one after the last heating and homing. */
    private void settle() {
        if (layers.isEmpty()) {
            doors.open();
        }
    }

    private void stopFound() {
        stops.found(line, controller.state(), plasticTo, layers.size());
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

    /** What has printed without being chosen is the first. */
    private int printing() {
        return Math.max(0, tool);
    }

    /** From here on the time belongs to another tool, though its first plastic may be long in coming. */
    private void toolChosen(int number) {
        if (number < 0) {
            return;
        }
        tools.chooses(line, number, tool);
        if (number == tool) {
            return;
        }
        // What was said to the tool that rests from here on was not said to the nozzle.
        tools.before().ifPresent(controller::heat);
        if (tool < 0 && layer != null) {
            controller.choose(printing());
        }
        tool = number;
        ControllerState left = controller.state();
        controller.choose(number);
        ControllerState there = left.awaiting(controller.draw());
        doors.toolChosen(line, there);
        tools.owes(there);
        if (layer != null) {
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
        tools.heats(line, number, tool, controller.nozzleTarget());
        return number != printing();
    }

    private void beginStint() {
        if (accounts == MOST_STINTS) {
            throw Refusal.of("The G-code changes tools over a million times by line %d; it is damaged.", line.line());
        }
        accounts = Math.max(FEEDING, accounts) + 1;
        if (originMoved.isEmpty() && !controller.standsOnOrigin()) {
            originMoved = OptionalLong.of(lastOrigin);
        }
        stint = layer.begin(printing(), accounts);
    }

    private void moved() {
        moves++;
        Controller c = controller;
        double de = c.de();
        double dx = c.dx();
        double dy = c.dy();
        if (de == 0 && c.length() == 0) {
            // Where only a speed is said, plastic goes on.
            return;
        }
        if (de > 0) {
            doors.fed();
        }
        if (!(c.length() + Math.abs(de) < FARTHEST)) {
            throw Refusal.of(
                    "Line %d of the G-code moves by %.0f mm, further than any printer goes; the file is damaged.",
                    line.line(), c.length() + Math.abs(de));
        }
        double longest = Math.max(c.length(), Math.abs(de));
        if (!(longest / c.speed() < LONGEST)) {
            throw Refusal.of(
                    "Line %d of the G-code takes over a month to move by %.2f mm; correct the speed (F) that it moves with.",
                    line.line(), longest);
        }
        boolean isOut = unloads.isOutAfter(line, c);
        if (de > 0 && c.length() > 0 && (dx != 0 || dy != 0) && !isOut) {
            drawn(dx, dy, de);
        } else {
            if (trace.isDrawing() && afterFor != plasticTo) {
                afterFor = plasticTo;
                after = c.state().asLaid(c.x() - dx, c.y() - dy, c.z() - c.dz(), c.e() - de, laidAt);
            }
            lift();
            unbroken = false;
            climbing = false;
            if (dx != 0 || dy != 0) {
                doors.travelled();
            }
        }
        boolean feeds = isOut && c.length() == 0 && !changesItself;
        int account = feeds ? FEEDING : accounts;
        relay.move(dx, dy, c.dz(), de, c.length(), c.chord(), c.speed(), c.acceleration(), account);
    }

    /** A move that lays plastic. */
    private void drawn(double dx, double dy, double de) {
        Controller c = controller;
        doors.ofTool().ifPresent(this::knowDraw);
        if (!unbroken) {
            unbroken = true;
            foot = c.z() - c.dz();
        }
        if (c.dz() != 0) {
            rising++;
            climb = Math.max(climb, c.z() - foot);
        }
        if (layer == null || c.z() != height) {
            height = c.z();
            int z = (int) Math.rint(Math.max(0, Math.min(HIGHEST, height)) * 1000);
            if (layer == null || !(c.dz() != 0 ? layer.holds(z) : layer.micrometres() == z) && !climbsTo(z)) {
                begin(z);
                climbing = c.dz() != 0;
            }
        }
        climbing &= c.dz() != 0;
        tools.settle(printing());
        stops.settle(line.offset(), layers.size() - 1);
        plasticTo = line.end();
        laidAt = c.feed();
        stint.lay(de, doors);
        doors.laid();
        if (!trace.isDrawing()) {
            trace.begin(stint.tool, c.x() - dx, c.y() - dy);
        }
        trace.draw(c.x(), c.y(), de, c.length());
    }

    /** How far the filament of the tool that was chosen is drawn back is told by what comes before its first plastic. */
    private void knowDraw(Doors.Passed chosen) {
        double further = controller.drawnOtherwise();
        if (further != 0) {
            doors.drawnFurther(further);
            tools.owesRather(chosen.door().state().drawnFurther(further, false));
        }
    }

    /** The layer that begins with a line that climbs, as a scarf joint does (common practice), is as high as that leads. */
    private boolean climbsTo(int z) {
        if (climbing && z > layer.micrometres()) {
            layer.rise(z);
            return true;
        }
        return false;
    }

    /** Ends the line that is being drawn. */
    private void lift() {
        if (trace.isDrawing()) {
            layer.add(trace.lift());
        }
    }

    private void begin(int z) {
        if (layers.size() == MOST_LAYERS) {
            throw Refusal.of(
                    "The G-code has over %d layers by line %d; it is no layered print.", MOST_LAYERS, line.line());
        }
        lift();
        int beneath = layer == null || layer.micrometres() >= z ? -1 : layer.micrometres();
        layer = new LayerDraft(beneath, z, doors.ofLayer(), layers.size(), tool >= 0);
        layers.add(layer);
        beginStint();
    }

    /** A first line of plastic higher than the first layer is a priming line, not an object. */
    private Order order() {
        if (rising > MANY && climb > HIGHEST_JOINT) {
            return Order.SPIRAL;
        }
        for (int i = 2; i < layers.size(); i++) {
            if (layers.get(i).micrometres() < layers.get(i - 1).micrometres()) {
                return Order.SEVERAL_TIMES;
            }
        }
        return Order.LAYER_BY_LAYER;
    }
}
