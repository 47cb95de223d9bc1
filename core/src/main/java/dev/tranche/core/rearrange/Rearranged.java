package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * A sliced file that changes tools, with its pieces in another order: the same lines of plastic, none of them under plastic
 * that was laid before, and no way through it.
 */
public final class Rearranged {
    /** How often layers are kept apart that stood in one another's way. */
    private static final int MOST_TRIES = 12;

    private final SlicedFile original;
    private final Envelope extent;
    private final List<Piece> order;
    private final Printer printer;
    private final SlicedFile file;
    private final Set<Integer> apart;

    private Rearranged(
            SlicedFile original,
            Envelope extent,
            List<Piece> order,
            Printer printer,
            SlicedFile file,
            Set<Integer> apart) {
        this.original = original;
        this.extent = extent;
        this.order = order;
        this.printer = printer;
        this.file = file;
        this.apart = Set.copyOf(apart);
    }

    /** The file as it will be printed, before swaps are written into it. */
    public SlicedFile file() {
        return file;
    }

    /** Layers, from 1, that cannot be printed before those beneath them are done: its plastic lies over theirs. */
    public Set<Integer> apart() {
        return apart;
    }

    /** Whether any piece has changed its place. */
    public boolean isChanged() {
        return file != original;
    }

    /** How many runs of pieces have changed their places. */
    public int moved() {
        int moved = 0;
        for (int i = 0; i < order.size(); i++) {
            moved += order.get(i).number() == (i == 0 ? 1 : order.get(i - 1).number() + 1) ? 0 : 1;
        }
        return moved;
    }

    /** The bytes of it, made from those of the {@code original} while they are read. */
    public InputStream open(Source from) {
        return new Composed(from, original, extent, order, printer);
    }

    /**
     * Puts the pieces of a file into another order.
     *
     * @param bytes of the file, in which Tranche has put nothing
     * @param match of the file with the plan's layers
     * @param tools in which each that prints stands for a spool
     * @param wanted the order, in which given layers are not begun before all beneath them is printed
     * @throws Refusal if the file cannot be taken apart, or put together again
     */
    public static Rearranged of(
            Source bytes,
            GridMatch match,
            ToolTable tools,
            Function<Set<Integer>, PrintOrder> wanted,
            Printer printer,
            Progress progress)
            throws IOException {
        SlicedFile original = match.file();
        List<Piece> pieces = Piece.of(match, printer);
        Envelope extent = new Envelope();
        original.layers().forEach(l -> extent.expandToInclude(l.extent()));
        Set<Integer> apart = new TreeSet<>();
        for (int tried = 0; tried < MOST_TRIES; tried++) {
            List<Piece> order = ordered(pieces, tools, wanted.apply(Set.copyOf(apart)));
            if (order.equals(pieces) && apart.isEmpty()) {
                return new Rearranged(original, extent, pieces, printer, original, apart);
            }
            if (order.equals(pieces)) {
                // Wanted was another.
                break;
            }
            Composed composed = new Composed(bytes, original, extent, order, printer);
            SlicedFile file = Survey.read(
                    composed,
                    original.size(),
                    printer.motion(),
                    printer.abilities().dialect(),
                    printer.abilities().understands(Command.T),
                    progress);
            Set<Integer> struck = new TreeSet<>();
            composed.struck().forEach(z -> struck.add(layerAt(match, z)));
            struck.removeAll(apart);
            if (composed.struck().isEmpty()) {
                return new Rearranged(original, extent, order, printer, named(file, original, order), apart);
            }
            if (struck.isEmpty()) {
                break;
            }
            apart.addAll(struck);
        }
        throw new Refusal(
                "The G-code lays plastic of one colour over another on layer after layer, as a tower does, so it cannot be printed in this order; slice it without a tower.");
    }

    /** What its owner said of a stop is kept by its place in the file that came in. */
    private static SlicedFile named(SlicedFile file, SlicedFile original, List<Piece> order) {
        long begin = order.stream().mapToLong(p -> p.bytes().from()).min().orElseThrow();
        List<Integer> places = new ArrayList<>(stopsIn(original, new Span(0, begin)));
        order.forEach(p -> places.addAll(stopsIn(original, p.bytes())));
        places.addAll(stopsIn(original, new Span(original.printedTo(), original.size())));
        SlicedFile.Stop[] stops = new SlicedFile.Stop[places.size()];
        for (int i = 0; i < stops.length; i++) {
            stops[places.get(i)] = file.stops().get(i);
        }
        return file.namedAs(original, List.of(stops));
    }

    private static List<Integer> stopsIn(SlicedFile file, Span bytes) {
        return IntStream.range(0, file.stops().size())
                .filter(i -> {
                    long at = file.stops().get(i).place().offset();
                    return at >= bytes.from() && at < bytes.to();
                })
                .boxed()
                .toList();
    }

    private static int layerAt(GridMatch match, int micrometres) {
        for (int layer = 1; layer <= match.grid().count(); layer++) {
            if (match.layer(layer).z().micrometres() >= micrometres - Composed.NEAR) {
                return layer;
            }
        }
        return match.grid().count();
    }

    /** Pieces of colours that the plan does not have on a layer stay behind those they came after. */
    private static List<Piece> ordered(List<Piece> pieces, ToolTable tools, PrintOrder wanted) {
        record Place(int layer, SpoolId spool) {}
        Map<Place, List<Piece>> places = new HashMap<>();
        for (Piece piece : pieces) {
            SpoolId spool = tools.spool(piece.tool(), piece.layer()).orElseThrow();
            places.computeIfAbsent(new Place(piece.layer(), spool), p -> new ArrayList<>())
                    .add(piece);
        }
        Set<Piece> order = new LinkedHashSet<>();
        for (Pass pass : wanted.passes()) {
            order.addAll(places.getOrDefault(new Place(pass.layer(), pass.spool()), List.of()));
        }
        List<Piece> list = new ArrayList<>(order);
        for (Piece piece : pieces) {
            if (!order.contains(piece)) {
                int before = piece.number() == 1 ? -1 : list.indexOf(pieces.get(piece.number() - 2));
                list.add(before + 1, piece);
            }
        }
        return list;
    }
}
