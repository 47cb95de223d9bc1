package dev.tranche.core.layer;

import dev.tranche.core.geometry.Areas;
import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.WeakHashMap;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * A place that is seen, followed away from the eye: where the model's outline steps in or out it comes apart into what goes on
 * as it was, and what is solid no more, or again. All of that is the model's alone, whatever its colours; it is worked out when it
 * is first asked for, and kept.
 */
public final class Shaft {
    private final Outlook outlook;
    private final MultiPolygon area;
    private final boolean solid;
    /** The depth down to which it is known to stay whole. */
    private int whole;
    /** What it comes apart into at the next depth, if it is known that it does. */
    private List<Shaft> parts = List.of();
    /** In whose share it lies, if it was divided on its way. */
    private final Optional<Origin> origin;
    /** How whoever is still there has divided it. */
    private Map<Divider, List<Share>> shares = Map.of();

    /** Who divided what it comes from, as long as he is still there, and who took it then. */
    private record Origin(WeakReference<Divider> by, int taker) {
        List<Divider.Taken> divided(MultiPolygon area, Divider by) {
            Divider before = by().get();
            return before == null ? by.divide(area) : by.divide(area, before, taker);
        }
    }

    /** What of a shaft somebody takes, by a number that is the divider's. */
    public record Share(int taker, Shaft shaft) {}

    /** @param depth at which it begins */
    Shaft(Outlook outlook, MultiPolygon area, boolean solid, int depth) {
        this(outlook, area, solid, depth, Optional.empty());
    }

    private Shaft(Outlook outlook, MultiPolygon area, boolean solid, int depth, Optional<Origin> origin) {
        this.origin = origin;
        this.outlook = outlook;
        this.area = area;
        this.solid = solid;
        this.whole = depth;
    }

    /** Seen from above, mm. */
    public MultiPolygon area() {
        return area;
    }

    /** Whether there is plastic in it. */
    public boolean isSolid() {
        return solid;
    }

    /** What becomes of it at {@code depth}: itself where it is whole. */
    public synchronized List<Shaft> at(int depth) {
        while (whole < depth && parts.isEmpty()) {
            parts = stepped(whole + 1);
            whole += parts.isEmpty() ? 1 : 0;
        }
        if (depth <= whole) {
            return List.of(this);
        }
        return depth == whole + 1
                ? parts
                : parts.stream().flatMap(p -> p.at(depth).stream()).toList();
    }

    /** The parts into which it steps; none where it is whole. */
    private List<Shaft> stepped(int depth) {
        MultiPolygon other = solid ? outlook.ends(depth) : outlook.opens(depth);
        MultiPolygon there = Areas.clean(Areas.intersection(area, other));
        if (there.isEmpty()) {
            return List.of();
        }
        List<Shaft> made = new ArrayList<>(2);
        made.add(new Shaft(outlook, there, !solid, depth, origin));
        MultiPolygon rest = area.getArea() - there.getArea() > Areas.SPECK
                ? Areas.clean(Areas.difference(area, other))
                : Areas.NOTHING;
        if (!rest.isEmpty()) {
            made.add(new Shaft(outlook, rest, solid, depth, origin));
        }
        return List.copyOf(made);
    }

    /** What each takes of it, where it is whole; as it was when the very same divided it before. */
    public synchronized List<Share> divided(Divider by) {
        if (shares.isEmpty()) {
            shares = new WeakHashMap<>(2);
        }
        return shares.computeIfAbsent(
                by, d -> origin.map(o -> o.divided(area, d)).orElseGet(() -> d.divide(area)).stream()
                        .map(t -> new Share(t.taker(), share(t, d)))
                        .toList());
    }

    /** Whoever takes all of it takes it as it is. */
    private Shaft share(Divider.Taken taken, Divider by) {
        return taken.area() == area
                ? this
                : new Shaft(
                        outlook,
                        taken.area(),
                        solid,
                        whole,
                        Optional.of(new Origin(new WeakReference<>(by), taken.taker())));
    }
}
