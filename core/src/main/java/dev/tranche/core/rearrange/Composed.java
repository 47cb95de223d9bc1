package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.Draw;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.Joint;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/**
 * The bytes of a file whose pieces have changed places, made while they are read. Nothing of the file is held but the lines
 * between two lines of plastic, and how high plastic stands. Not for two threads.
 */
final class Composed extends InputStream {
    /** Bytes made at a time. */
    private static final int AT_LEAST = 1 << 16;
    /** Nearer than this two heights are one, µm. */
    static final int NEAR = 20;

    private final Source file;
    private final SlicedFile original;
    private final List<Piece> order;
    private final Dialect dialect;
    private final Joint joint;
    private final Terrain terrain;
    private final double beside;
    private final String ending;
    private final Made out = new Made();
    private final TreeSet<Integer> struck = new TreeSet<>();
    private final Run run = new Run();
    private final Map<Integer, Draw> draws = new HashMap<>();
    /** The lowest layer that is printed after each of {@link #order}. */
    private final int[] lowestAfter;

    /** Place in {@link #order} of the piece that comes next; −1 for what stands before all, and as many as there are for what comes after. */
    private int next = -1;
    /** What is being read, and {@code lines} of it where it is a piece. */
    private InputStream plain = InputStream.nullInputStream();

    private GcodeScanner lines;
    /** Whether something lower is printed after it. */
    private boolean dippedBeside;
    /** Lines that move filament where a swap does, by their offsets. */
    private final Map<Long, SlicedFile.Fed> feeds = new HashMap<>();

    private Controller controller;
    private int tool;
    /** How the file has it after its last plastic. */
    private ControllerState last;

    /** Whether the nozzle is not where the file has it, but at {@code at}. */
    private boolean away;

    private ControllerState at;
    /** Filament drawn back further than the file has it, mm. */
    private double owed;
    /** Of all plastic, µm. */
    private int highest;

    /** Bytes made and not yet read. */
    private static final class Made extends OutputStream {
        private byte[] bytes = new byte[2 * AT_LEAST];
        private int from;
        private int to;

        @Override
        public void write(int b) {
            write(new byte[] {(byte) b}, 0, 1);
        }

        @Override
        public void write(byte[] more, int offset, int length) {
            if (to + length > bytes.length) {
                byte[] room = to - from + length > bytes.length ? new byte[2 * (to - from + length)] : bytes;
                System.arraycopy(bytes, from, room, 0, to - from);
                to -= from;
                from = 0;
                bytes = room;
            }
            System.arraycopy(more, offset, bytes, to, length);
            to += length;
        }

        void writeBytes(byte[] more) {
            write(more, 0, more.length);
        }

        int size() {
            return to - from;
        }

        int take(byte[] into, int offset, int length) {
            int n = Math.min(length, size());
            System.arraycopy(bytes, from, into, offset, n);
            from += n;
            return n;
        }
    }

    /** @param order of all pieces of {@code original}, whose bytes are {@code file}'s */
    Composed(Source file, SlicedFile original, Envelope extent, List<Piece> order, Printer printer) {
        this.file = file;
        this.original = original;
        this.order = order;
        this.dialect = printer.abilities().dialect();
        this.joint = new Joint(printer);
        this.terrain = new Terrain(extent);
        this.beside = printer.nozzle() / 2;
        this.ending = original.crlf() ? "\r\n" : "\n";
        this.lowestAfter = new int[order.size()];
        int lowest = Integer.MAX_VALUE;
        for (int i = order.size() - 1; i >= 0; i--) {
            lowestAfter[i] = lowest;
            lowest = Math.min(lowest, order.get(i).layer());
        }
        this.tool = toolBefore(pieceAt(1).bytes().from());
        original.leftToSwaps(printer)
                .forEach(u -> u.lines().forEach(f -> feeds.put(f.span().from(), f)));
    }

    /** Heights of plastic, µm, under which more plastic was laid afterwards; complete when all has been read. */
    TreeSet<Integer> struck() {
        return struck;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
        if (length == 0) {
            return 0;
        }
        while (out.size() < Math.min(length, AT_LEAST) && more()) {
            // More is made.
        }
        return out.size() == 0 ? -1 : out.take(into, offset, length);
    }

    private boolean more() throws IOException {
        if (lines != null) {
            if (lines.next()) {
                line();
            } else {
                end();
            }
            return true;
        }
        byte[] bytes = plain.readNBytes(AT_LEAST);
        if (bytes.length > 0) {
            out.write(bytes, 0, bytes.length);
            return true;
        }
        return begin();
    }

    /** The next part of the file; false if there is none. */
    private boolean begin() throws IOException {
        if (next < 0) {
            plain = file.open(0, pieceAt(1).bytes().from());
        } else if (next < order.size()) {
            begin(order.get(next));
        } else if (next == order.size()) {
            finish();
        } else {
            return false;
        }
        next++;
        return true;
    }

    /** The tool that is chosen before a place; the first where none has been. */
    private int toolBefore(long offset) {
        return choicesBefore(offset)
                .reduce((before, after) -> after)
                .map(SlicedFile.ToolLine::tool)
                .orElse(0);
    }

    private Stream<SlicedFile.ToolLine> choicesBefore(long offset) {
        return original.toolLines().stream().filter(l -> !l.heats() && l.from() < offset);
    }

    /** Whether the file has named that tool before it prints, so that its filament may have been moved by then. */
    private boolean isNamedBefore(int of) {
        return choicesBefore(pieceAt(1).bytes().from()).anyMatch(l -> l.tool() == of);
    }

    /** Whether the file has named no tool before it prints, so that what is in the nozzle is whatever prints first. */
    private boolean hasOneStrandYet() {
        return !joint.choosesTools()
                && choicesBefore(pieceAt(1).bytes().from()).findAny().isEmpty();
    }

    private Piece pieceAt(int number) {
        return order.stream().filter(p -> p.number() == number).findFirst().orElseThrow();
    }

    private int numberBefore() {
        return next == 0 ? 0 : order.get(next - 1).number();
    }

    private void begin(Piece piece) {
        if (numberBefore() + 1 != piece.number() || away || isDrawnOtherwise(piece)) {
            ControllerState now = next == 0 ? pieceAt(1).left() : whereItIs();
            join(now, piece);
        }
        controller = new Controller(piece.begins(), dialect);
        tool = piece.tool();
        dippedBeside = piece.layer() > lowestAfter[next];
        lines = file.lines(piece.bytes());
    }

    /** How far a tool's filament is drawn back: as it was left last, or as the file has it when it comes to that tool first. */
    private Draw drawn(int of) {
        return Optional.ofNullable(draws.get(of))
                .or(() -> order.stream()
                        .filter(p -> p.tool() == of)
                        .min(Comparator.comparingInt(Piece::number))
                        .map(p -> p.begins().draw()))
                .orElse(Draw.NONE);
    }

    /**
     * The same where another tool was drawn back as {@code up}: if the file has not named this one before, it takes it for drawn back
     * only since the one before it is.
     */
    private Draw drawn(int of, Draw up) {
        Draw drawn = drawn(of);
        return draws.containsKey(of) || isNamedBefore(of)
                ? drawn
                : new Draw(Math.min(drawn.length(), up.length()), drawn.byFirmware());
    }

    /** Whether the filament of its tool was moved where the file did not, while another printed. */
    private boolean isDrawnOtherwise(Piece piece) {
        return tool != piece.tool() && !drawn(piece.tool()).isAs(piece.begins().draw());
    }

    /** The nozzle with its filament, as they are. */
    private ControllerState whereItIs() {
        ControllerState now = controller.state();
        Draw drawn =
                new Draw(Math.max(0, now.draw().length() + owed), now.draw().byFirmware());
        ControllerState there = away ? now.standing(at.x(), at.y(), at.z()) : now;
        return there.drawn(drawn, drawn);
    }

    private void join(ControllerState now, Piece piece) {
        OptionalInt other = tool == piece.tool() ? OptionalInt.empty() : OptionalInt.of(piece.tool());
        double over = over(Math.max(now.z(), piece.begins().z()));
        Draw up = joint.drawnUp(now.draw());
        boolean keepsStrand = next == 0 && hasOneStrandYet();
        Draw drawn = keepsStrand ? up : drawn(piece.tool(), up);
        markPiece(piece.number(), piece.bytes().from());
        joint.up(now, piece.begins(), other, drawn, over).forEach(this::add);
        if (!keepsStrand) {
            draws.put(tool, up);
        }
        Draw is = other.isPresent() ? drawn : up;
        owed = Math.max(0, is.length() - piece.begins().draw().length());
        at = now.standing(now.x(), now.y(), over);
        away = true;
    }

    /** What comes after all pieces finds the nozzle where it would have been. */
    private void finish() {
        boolean follows = numberBefore() == order.size() && !away;
        if (!follows) {
            ControllerState now = whereItIs();
            double over = over(Math.max(now.z(), last.z()));
            markPiece(order.size() + 1, original.printedTo());
            joint.up(now, last, OptionalInt.empty(), Draw.NONE, over).forEach(this::add);
            joint.across(
                            now.standing(now.x(), now.y(), over).drawn(joint.drawnUp(now.draw()), last.draw()),
                            last,
                            over,
                            0)
                    .forEach(this::add);
        }
        plain = file.open(original.printedTo(), original.size());
    }

    private double over(double z) {
        return Math.max(highest / 1000.0, z) + Joint.OVER;
    }

    private void end() {
        if (away || run.hits()) {
            if (!away) {
                at = run.entries().get(0).before();
                away = true;
            }
            owed += run.fed();
            run.entries().forEach(this::passOver);
        } else {
            run.entries().forEach(e -> out.writeBytes(e.raw()));
        }
        run.clear();
        lines = null;
        Piece piece = order.get(next - 1);
        if (piece.number() == order.size()) {
            last = controller.state();
        }
        ControllerState now = whereItIs();
        draws.put(piece.tool(), now.draw());
    }

    private void line() throws IOException {
        boolean held = away || !run.isEmpty();
        boolean mayLay = lines.has('E') && (lines.has('X') || lines.has('Y'));
        boolean mayMove = lines.letter() == 'G' || lines.goesOn();
        SlicedFile.Fed fed =
                feeds.isEmpty() ? null : feeds.get(order.get(next - 1).bytes().from() + lines.offset());
        ControllerState before = held || fed != null || mayMove && !mayLay ? controller.state() : null;
        if (fed != null) {
            without(fed, before);
            return;
        }
        if (!isSaidToAnother() && controller.execute(lines) == Controller.Effect.MOVE) {
            move(before, held);
            return;
        }
        requireInPlace();
        if (held) {
            run.add(new Run.Entry(raw(), Optional.empty(), false, lines.is('G', 11), 0, before), lineInFile());
        } else {
            lines.writeTo(out);
        }
    }

    /** Whether it heats a tool that rests. */
    private boolean isSaidToAnother() {
        return (lines.is('M', 104) || lines.is('M', 109)) && lines.has('T') && lines.get('T') != tool;
    }

    /** What calls a place another cannot be followed, nor can numbers that have to rise. */
    private void requireInPlace() {
        if (lines.isNumbered()) {
            throw new Refusal(
                    "The G-code numbers its lines, so it cannot be printed in another order; slice it without line numbers.");
        }
        boolean homes = lines.is('G', 28) || lines.is('G', 29);
        boolean renames = lines.is('G', 92) && (lines.has('X') || lines.has('Y') || lines.has('Z'));
        if (homes || renames) {
            throw Refusal.of(
                    "Line %d of the G-code is “%s”, in the middle of the print, so it cannot be printed in another order; slice it without that.",
                    lineInFile(), Words.quoted(lines.text().strip()));
        }
    }

    private long lineInFile() {
        return order.get(next - 1).line() + lines.line() - 1;
    }

    private byte[] raw() throws IOException {
        ByteArrayOutputStream raw = new ByteArrayOutputStream(64);
        lines.writeTo(raw);
        return raw.toByteArray();
    }

    private void move(ControllerState before, boolean held) throws IOException {
        Controller c = controller;
        boolean goes = c.dx() != 0 || c.dy() != 0;
        if (c.de() > 0 && goes) {
            if (held) {
                arrive(before);
            }
            plastic();
            lines.writeTo(out);
            return;
        }
        boolean travels = isPlace(lines);
        if (travels && isInTheWay()) {
            run.hit();
        }
        ControllerState was = before != null ? before : beforeMove();
        run.add(new Run.Entry(raw(), Optional.empty(), travels, !travels && c.de() > 0, c.de(), was), lineInFile());
    }

    /** A line that moves filament where a swap does; what else it does stays, and where it is passed over, what leads nowhere. */
    private void without(SlicedFile.Fed fed, ControllerState before) throws IOException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.writeBytes(BlockStamp.TOOK.getBytes(StandardCharsets.US_ASCII));
        all.writeBytes(raw());
        ByteArrayOutputStream standing = new ByteArrayOutputStream();
        standing.writeBytes(all.toByteArray());
        boolean travels = false;
        for (String text : fed.without()) {
            GcodeScanner one = new GcodeScanner(
                    new ByteArrayInputStream((text + "\n").getBytes(StandardCharsets.US_ASCII)), text.length() + 1);
            one.next();
            boolean leads = controller.execute(one) == Controller.Effect.MOVE && isPlace(one);
            if (leads && isInTheWay()) {
                run.hit();
            }
            travels |= leads;
            byte[] added = added(text).getBytes(StandardCharsets.US_ASCII);
            all.writeBytes(added);
            if (!leads) {
                standing.writeBytes(added);
            }
        }
        run.add(
                new Run.Entry(all.toByteArray(), Optional.of(standing.toByteArray()), travels, false, 0, before),
                lineInFile());
    }

    /** How the file had it before the last move, where it was the first of a run. */
    private ControllerState beforeMove() {
        ControllerState now = controller.state();
        return now.standing(now.x() - controller.dx(), now.y() - controller.dy(), now.z() - controller.dz());
    }

    /** Whether a line says a place, be it the one where the nozzle is in the file: elsewhere it leads there. */
    private static boolean isPlace(GcodeScanner line) {
        return line.has('X') || line.has('Y') || line.has('Z');
    }

    private boolean isInTheWay() {
        Controller c = controller;
        int lowest = micrometres(Math.min(c.z(), c.z() - c.dz()));
        // Where an arc leads is not looked at; over what stands it is free.
        return highest > lowest + NEAR
                && (c.sweep() != 0
                        || terrain.near(c.x() - c.dx(), c.y() - c.dy(), c.x(), c.y(), beside) > lowest + NEAR);
    }

    private void plastic() {
        int z = micrometres(controller.z());
        controller.along((x0, y0, x1, y1) -> plastic(x0, y0, x1, y1, z));
        highest = Math.max(highest, z);
    }

    private void plastic(double x0, double y0, double x1, double y1, int z) {
        if (highest > z + NEAR && !terrain.isFlat(x0, y0, x1, y1, z + NEAR)) {
            int over = terrain.under(x0, y0, x1, y1);
            if (over > z + NEAR) {
                struck.add(over);
            }
        }
        if (dippedBeside) {
            terrain.lay(x0, y0, x1, y1, z);
        }
    }

    /** The lines held back, and the nozzle where they lead. */
    private void arrive(ControllerState there) {
        if (!away && !run.hits()) {
            run.entries().forEach(e -> out.writeBytes(e.raw()));
            run.clear();
            return;
        }
        List<Run.Entry> entries = run.entries();
        ControllerState from = away ? at : entries.get(0).before();
        int arrival = run.arrival();
        entries.subList(0, arrival).forEach(this::passOver);
        ControllerState now = arrival < entries.size() ? entries.get(arrival).before() : there;
        joint.across(
                        now.standing(from.x(), from.y(), from.z()),
                        now.standing(there.x(), there.y(), there.z()),
                        Math.max(from.z(), over(there.z())),
                        owed + run.fed())
                .forEach(this::add);
        List<Run.Entry> after = entries.subList(arrival, entries.size());
        after.forEach(this::passOver);
        if (after.stream().anyMatch(Run.Entry::travels)) {
            add(Joint.feed(there));
        }
        run.clear();
        away = false;
        owed = 0;
    }

    /** A line that leads anywhere is taken out; all others stay. */
    private void passOver(Run.Entry entry) {
        if (entry.travels() && entry.passed().isEmpty()) {
            write(BlockStamp.TOOK);
        }
        out.writeBytes(entry.passed().orElse(entry.raw()));
    }

    /** Which piece follows, and where it was, so that a loss is noticed when it goes back. */
    private void markPiece(int number, long offset) {
        write(BlockStamp.PIECE + number + " at " + offset + " of " + original.size() + ending);
    }

    private void add(String line) {
        write(added(line));
    }

    private String added(String line) {
        return line + BlockStamp.ADDED + ending;
    }

    private void write(String text) {
        out.writeBytes(text.getBytes(StandardCharsets.US_ASCII));
    }

    private static int micrometres(double mm) {
        return (int) Math.rint(mm * 1000);
    }
}
