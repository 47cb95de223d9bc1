package dev.tranche.core.look;

import dev.tranche.core.colour.Film;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Slab;
import dev.tranche.core.plan.Paints;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * A stack of plastic as it grows away from the eye. Each there is exists once: what lies beneath two spots that look alike is
 * one stack, and its optics are computed once.
 */
final class Stack {
    private final Optics optics;
    /** What lies nearer to the eye; none of nothing. */
    private final Stack nearer;

    private final Ply last;
    private final Slab slab;
    private final boolean complete;
    private final Map<Ply, Stack> further = new ConcurrentHashMap<>();

    /**
     * @param films of the paints
     * @param complete whether anything more would make no difference
     */
    private record Optics(Function<Paints.Shaded, Film> films, Predicate<Slab> complete) {}

    private Stack(Optics optics, Stack nearer, Ply last, Slab slab) {
        this.optics = optics;
        this.nearer = nearer;
        this.last = last;
        this.slab = slab;
        this.complete = optics.complete.test(slab);
    }

    /** Nothing yet. */
    static Stack empty(Function<Paints.Shaded, Film> films, Predicate<Slab> complete) {
        return new Stack(new Optics(films, complete), null, null, Slab.NOTHING);
    }

    /** With more plastic behind it, µm. */
    Stack with(Paints.Shaded paint, int micrometres) {
        return last != null && last.paint().equals(paint)
                ? nearer.child(new Ply(paint, last.micrometres() + micrometres))
                : child(new Ply(paint, micrometres));
    }

    private Stack child(Ply ply) {
        return further.computeIfAbsent(
                ply,
                p -> new Stack(
                        optics, this, p, slab.on(optics.films.apply(p.paint()).slab(p.millimetres()))));
    }

    boolean isComplete() {
        return complete;
    }

    /** The stack that looks the same: of a complete one the last ply counts as thick, however thick it is. */
    Stack seen() {
        return complete
                ? nearer.further.computeIfAbsent(
                        new Ply(last.paint(), Ply.THICK), p -> new Stack(optics, nearer, p, thick(p.paint())))
                : this;
    }

    private Slab thick(Paints.Shaded paint) {
        LinearRgb own = optics.films.apply(paint).thick();
        LinearRgb none = new LinearRgb(0, 0, 0);
        return nearer.slab.on(new Slab(own, own, none));
    }

    Slab slab() {
        return slab;
    }

    /** The nearest to the eye first. */
    List<Ply> plies() {
        List<Ply> plies = new ArrayList<>();
        for (Stack s = this; s.last != null; s = s.nearer) {
            plies.add(s.last);
        }
        Collections.reverse(plies);
        return List.copyOf(plies);
    }
}
