package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedFile.Stop;
import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;

/** The stops of a file as it is being read. */
final class StopLog {
    private static final int MOST = 1_000;

    private final List<Stop> stops = new ArrayList<>();
    /** How many of them know what comes after them. */
    private int settled;

    /** What stops a machine is common practice in open firmware. */
    static boolean isStop(GcodeScanner line) {
        return line.pauses()
                || line.letter() == 'M'
                        && switch (line.number()) {
                            case 0, 1, 25, 600 -> true;
                            default -> false;
                        };
    }

    /**
     * @param plasticTo offset after the last plastic
     * @param layers begun so far
     */
    void found(GcodeScanner line, ControllerState state, long plasticTo, int layers) {
        if (stops.size() == MOST) {
            throw Refusal.of(
                    "The G-code stops the machine over %d times by line %d, and nobody would stand by that; slice it without stops.",
                    MOST, line.line());
        }
        stops.add(new Stop(
                Letters.of(line.text()).strip(),
                Doors.door(line, state),
                line.end(),
                new Span(plasticTo, Long.MAX_VALUE),
                layers - 1,
                layers,
                line.hasEnding(),
                line.taken()));
    }

    /** The next plastic comes at {@code offset}, in the layer with index {@code layer}. */
    void settle(long offset, int layer) {
        for (; settled < stops.size(); settled++) {
            stops.set(settled, stops.get(settled).until(offset, layer));
        }
    }

    /** None comes any more after {@code layers}. */
    List<Stop> ended(int layers) {
        settle(Long.MAX_VALUE, layers);
        return stops;
    }
}
