package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Chords;
import dev.tranche.core.plan.Tint;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** The chords of colours of layers that were looked at lately; what was asked for longest ago is forgotten first. */
final class RecentChords {
    /** Numbers, of eight bytes each. */
    static final long MOST = 2_000_000;

    private final Ground ground;
    private final Map<Integer, Optional<Chords>> kept = new LinkedHashMap<>(16, 0.75f, true);
    private long size;

    RecentChords(Ground ground) {
        this.ground = ground;
    }

    /** Of one colour of a layer, for a disc as wide as a line; nothing where there are too many. */
    Optional<Chords> of(int layer, Tint tint) {
        int key = layer * ground.palette().size() + ground.palette().indexOf(tint.spool());
        Optional<Chords> known;
        synchronized (this) {
            known = kept.get(key);
        }
        if (known == null) {
            known = Chords.of(tint.cells(), ground.lineWidth() / 2);
            keep(key, known);
        }
        return known;
    }

    private synchronized void keep(int key, Optional<Chords> chords) {
        size += size(chords);
        Optional<Chords> before = kept.put(key, chords);
        size -= before == null ? 0 : size(before);
        Iterator<Optional<Chords>> longest = kept.values().iterator();
        while (size > MOST) {
            size -= size(longest.next());
            longest.remove();
        }
    }

    private static int size(Optional<Chords> chords) {
        return chords.map(Chords::size).orElse(0);
    }

    synchronized long size() {
        return size;
    }
}
