package dev.tranche.core.look;

import dev.tranche.core.colour.Film;
import dev.tranche.core.colour.LinearRgb;
import dev.tranche.core.colour.Slab;
import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.Outlooks;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.IntStream;

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

    /** Corners that are overlaid while anybody still waits. */
    private static final long MOST = 20_000_000;

    private static final LinearRgb PAPER = new LinearRgb(1, 1, 1);

    private final Colouring colouring;
    private final Map<SpoolId, Spool> shelf;
    private final Paints paints;
    private final Map<Paints.Shaded, Film> films = new ConcurrentHashMap<>();
    private final Map<View, List<Patch>> seen = new EnumMap<>(View.class);

    /** @param shelf holds every spool of the plan */
    public Looks(Colouring colouring, Map<SpoolId, Spool> shelf) {
        this.colouring = colouring;
        this.shelf = shelf;
        this.paints =
                new Paints(shelf, colouring.plan().mixtures(), colouring.model().grid());
    }

    /**
     * What is seen, the largest patch first; together they are all that can be seen, and none overlaps another.
     *
     * @param progress learns that the work goes on, and may stop it
     * @throws Refusal if the model is too intricate for it
     */
    public synchronized List<Patch> from(View view, Progress progress) {
        List<Patch> known = seen.get(view);
        if (known == null) {
            if (effort() > MOST) {
                throw Refusal.of(
                        "The model is too intricate to be looked through: its layers have %,d corners%s. Turn it instead, or simplify it in the program that made it.",
                        colouring.outlooks().corners(),
                        isDividedAnew() ? ", and curved parts divide each of them anew" : "");
            }
            known = look(view, progress);
            seen.put(view, known);
        }
        return known;
    }

    /** Whether these are the looks of that, printed with spools of that shelf. */
    public boolean isOf(Colouring other, Map<SpoolId, Spool> spools) {
        return colouring == other && shelf.equals(spools);
    }

    /** Whether looking takes no longer than an edit may. */
    public boolean isQuick() {
        return effort() <= Outlooks.QUICK
                || effort() <= MOST && colouring.outlooks().known() && !isDividedAnew();
    }

    /** Corners that have to be overlaid, about. */
    private long effort() {
        long corners = colouring.outlooks().corners();
        return isDividedAnew() ? corners * (1 + 4L * colouring.plan().regions().size()) : corners;
    }

    /** Whether parts divide layers otherwise again and again, since they are curved. */
    private boolean isDividedAnew() {
        int count = colouring.model().grid().count();
        long changes = IntStream.range(1, count)
                .filter(i -> colouring.division(i) != colouring.division(i + 1))
                .count();
        return changes > 2L * colouring.plan().regions().size() + 2;
    }

    /** What would be seen of a patch without its nearest plastic. */
    public LinearRgb behind(Patch patch) {
        LinearRgb seen = PAPER;
        for (int i = patch.plies().size() - 1; i > 0; i--) {
            Ply ply = patch.plies().get(i);
            Film film = film(ply.paint());
            seen = ply.isThick() ? film.thick() : film.over(seen, ply.millimetres());
        }
        return seen;
    }

    /** A paint in layers so thin that what lies beneath shows. */
    private Film film(Paints.Shaded paint) {
        return films.computeIfAbsent(paint, p -> paints.of(p).film());
    }

    /** What its plan is printed with. */
    public Paints paints() {
        return paints;
    }

    public Colouring colouring() {
        return colouring;
    }

    private List<Patch> look(View view, Progress progress) {
        Predicate<Slab> complete = view == View.LIGHT ? Looks::isDark : s -> s.hides(STEPS);
        Map<Stack, Gathered> patches = new LinkedHashMap<>();
        for (Sounding.Found found : new Sounding(
                        colouring,
                        paints,
                        colouring.outlooks().from(view != View.BELOW, progress),
                        Stack.empty(this::film, complete),
                        progress)
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
        return new Patch(plies, colour, film(plies.get(0).paint()).thick(), List.copyOf(spots.list), spots.area);
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
            area += Areas.size(spot.area());
        }
    }
}
