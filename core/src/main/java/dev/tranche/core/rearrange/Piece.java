package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.GridMatch.Visit;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A run of lines of a file that stays together: one tool on one layer, from its first way there to the next tool's or layer's.
 *
 * @param number in the file, from 1
 * @param bytes of it
 * @param line that begins it, from 1
 * @param layer of the plan, from 1
 * @param tool by the file's number
 * @param left how the printer stands where it begins, as what comes before it in the file leaves it, and the heat of its plastic
 */
record Piece(int number, Span bytes, long line, int layer, int tool, ControllerState left) {

    /** How the printer stands where it begins, as it takes for granted: its own tool's filament may be drawn back otherwise. */
    ControllerState begins() {
        return left.asAwaited();
    }

    /**
     * @throws Refusal if the file cannot be taken apart
     */
    static List<Piece> of(GridMatch match, Printer printer) {
        SlicedFile file = match.file();
        if (file.order() != SlicedFile.Order.LAYER_BY_LAYER) {
            throw new Refusal(
                    "The G-code comes down again by itself, so it is printed in its own order; slice it layer by layer to print it in another.");
        }
        List<Door> doors = new ArrayList<>();
        List<Piece> open = new ArrayList<>();
        for (Visit visit : match.visits()) {
            for (int i = 0; i < visit.run().stints().size(); i++) {
                Door door = (open.isEmpty() ? begins(visit) : visit.door(i))
                        .orElseThrow(() -> Refusal.of(
                                "Layer %d of the G-code begins without a travel, so it cannot be printed in another order; slice it again with travels between layers.",
                                visit.layer()));
                doors.add(door);
                open.add(new Piece(
                        doors.size(),
                        new Span(door.offset(), door.offset()),
                        door.line(),
                        visit.layer(),
                        visit.run().stints().get(i).tool(),
                        hot(file.withoutSwaps(door, printer), door)));
            }
        }
        List<Piece> pieces = new ArrayList<>();
        for (int i = 0; i < open.size(); i++) {
            long to = i + 1 < doors.size() ? doors.get(i + 1).offset() : file.printedTo();
            pieces.add(open.get(i).to(to));
        }
        return pieces;
    }

    /** What heats and homes before the first layer stays before it, though the tool may have been chosen earlier. */
    private static Optional<Door> begins(Visit first) {
        return Stream.of(first.door(0), first.run().door())
                .flatMap(Optional::stream)
                .max(Comparator.comparingLong(Door::offset));
    }

    /** As what comes before it leaves the printer, but as hot as the piece itself lays its first plastic. */
    private static ControllerState hot(ControllerState there, Door door) {
        double degrees = door.warming().to();
        return degrees > 0 ? there.heatedTo(degrees) : there;
    }

    private Piece to(long end) {
        return new Piece(number, new Span(bytes.from(), end), line, layer, tool, left);
    }
}
