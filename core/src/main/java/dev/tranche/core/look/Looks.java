package dev.tranche.core.look;

import dev.tranche.core.colour.Film;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Slab;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/**
 * A plan's piece as it will look when it is finished, looked at when that is first asked.
 *
 * <p>Each spot under the eye has the colour of its stack: plastic by plastic down to where nothing beyond makes a difference of
 * half a step of 255, over white paper (§9 of the domain, by Kubelka and Munk 1931 and Kubelka 1954). Air between two
 * plastics is passed over.
 */
public final class Looks {
    /** The finest difference a screen shows is one step. */
    private static final double STEPS = 0.5;
    /** Less light than this is none, even before the brightest lamp. */
    private static final double DARK = 3e-5;

    private static final LinearRgb PAPER = new LinearRgb(1, 1, 1);

    private final Colouring colouring;
    private final Map<SpoolId, Film> films = new HashMap<>();
    private final Map<View, List<Patch>> seen = new EnumMap<>(View.class);

    /** @param shelf holds every spool of the plan */
    public Looks(Colouring colouring, Map<SpoolId, Spool> shelf) {
        this.colouring = colouring;
        colouring.plan().palette().forEach(s -> films.put(s, shelf.get(s).film()));
    }

    /** What is seen, the largest patch first; together they are all that can be seen, and none overlaps another. */
    public synchronized List<Patch> from(View view) {
        return seen.computeIfAbsent(view, this::look);
    }

    /** A spool in layers so thin that what lies beneath shows. */
    public Film film(SpoolId spool) {
        return films.get(spool);
    }

    public Colouring colouring() {
        return colouring;
    }

    private List<Patch> look(View view) {
        Predicate<Slab> complete = view == View.LIGHT ? Looks::isDark : s -> s.hides(STEPS);
        Map<Stack, Gathered> patches = new LinkedHashMap<>();
        for (Sounding.Found found : new Sounding(
                        colouring, colouring.outlook(view != View.BELOW), Stack.empty(films::get, complete))
                .all()) {
            patches.computeIfAbsent(found.stack().seen(), s -> new Gathered()).add(found.spot());
        }
        return patches.entrySet().stream()
                .map(e -> patch(view, e.getKey(), e.getValue()))
                .sorted((a, b) -> Double.compare(b.squareMillimetres(), a.squareMillimetres()))
                .toList();
    }

    private Patch patch(View view, Stack stack, Gathered spots) {
        List<Ply> plies = stack.plies();
        LinearRgb colour =
                view == View.LIGHT ? stack.slab().through() : stack.slab().over(PAPER);
        return new Patch(plies, colour, film(plies.get(0).spool()).thick(), List.copyOf(spots.list), spots.area);
    }

    private static boolean isDark(Slab slab) {
        LinearRgb t = slab.through();
        return Math.max(t.red(), Math.max(t.green(), t.blue())) < DARK;
    }

    private static final class Gathered {
        private final List<Patch.Spot> list = new ArrayList<>();
        private double area;

        void add(Patch.Spot spot) {
            list.add(spot);
            area += spot.area().getArea();
        }
    }
}
