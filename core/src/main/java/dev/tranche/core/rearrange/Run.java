package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Lines between two lines of plastic, held back until it is known where they lead. */
final class Run {
    private static final int LONGEST = 100_000;

    private final List<Entry> entries = new ArrayList<>();
    private boolean hits;

    /**
     * A line of the file.
     *
     * @param raw as it stands there, with its ending
     * @param passed what stands there where it is passed over, if that is more than the line
     * @param travels whether it leads anywhere
     * @param pushes whether filament comes out again where the nozzle stands
     * @param fed filament, mm
     * @param before how the file has it just before the line
     */
    record Entry(
            byte[] raw, Optional<byte[]> passed, boolean travels, boolean pushes, double fed, ControllerState before) {}

    boolean isEmpty() {
        return entries.isEmpty();
    }

    List<Entry> entries() {
        return entries;
    }

    void add(Entry entry, long line) {
        if (entries.size() == LONGEST) {
            throw Refusal.of(
                    "The G-code lays no plastic for %d lines up to line %d, so it cannot be printed in another order; slice it again, without what stands there.",
                    LONGEST, line);
        }
        entries.add(entry);
    }

    /** Whether one of the ways leads through plastic. */
    boolean hits() {
        return hits;
    }

    void hit() {
        hits = true;
    }

    void clear() {
        entries.clear();
        hits = false;
    }

    /** Filament that its ways feed, which goes where they do not lead, mm. */
    double fed() {
        return entries.stream().filter(Entry::travels).mapToDouble(Entry::fed).sum();
    }

    /** Before which of its lines the nozzle has to be where they lead: before filament comes out, or else last. */
    int arrival() {
        int pushes = entries.size();
        int last = 0;
        for (int i = entries.size() - 1; i >= 0; i--) {
            Entry e = entries.get(i);
            pushes = e.pushes() ? i : pushes;
            last = last == 0 && e.travels() && e.fed() != 0 ? i + 1 : last;
        }
        return Math.max(pushes, last);
    }
}
