package dev.tranche.core.look;

import dev.tranche.core.layer.Divider;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Outlook;
import dev.tranche.core.layer.Shaft;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Division;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Tells what is stacked behind each spot that is seen.
 *
 * <p>Where the same regions and the same colour by height go on behind a layer for so long that nothing beyond matters, all such layers
 * are one: each region has its own colour there, or, where it is a fade, the colours of the layers behind. What is left (near borders, and where plastic ends in air) is followed
 * layer by layer, and comes apart only where the model's outline steps in or out, or where other regions meet.
 */
final class Sounding {
    private static final int STRIDE = 8;

    private final Colouring colouring;
    private final Paints paints;
    private final Outlook outlook;
    private final Stack nothing;
    private final LayerGrid grid;
    private final int count;
    private final Progress progress;
    private final Map<SpoolId, Paints.Shaded> plain = new ConcurrentHashMap<>();

    /** A place and what is stacked there. */
    record Found(Patch.Spot spot, Stack stack) {}

    /**
     * A place on its way down.
     *
     * @param top region that colours it under the eye
     * @param division that was in force where it was last laid over one, and {@code region} that colours it there
     */
    private record Piece(Shaft shaft, int top, Divider division, int region, Stack stack) {
        static final int UNKNOWN = -2;

        static Piece of(Shaft shaft, Stack nothing) {
            return new Piece(shaft, UNKNOWN, null, Field.BASE, nothing);
        }

        /** What becomes of it at {@code depth}. */
        List<Piece> at(int depth) {
            List<Shaft> parts = shaft.at(depth);
            return parts.size() == 1 && parts.get(0) == shaft
                    ? List.of(this)
                    : parts.stream()
                            .map(p ->
                                    new Piece(p, top, p.isSolid() == shaft.isSolid() ? division : null, region, stack))
                            .toList();
        }

        List<Piece> divided(Divider there) {
            return division == there
                    ? List.of(this)
                    : shaft.divided(there).stream()
                            .map(s -> new Piece(s.shaft(), top == UNKNOWN ? s.taker() : top, there, s.taker(), stack))
                            .toList();
        }

        Piece on(Stack more) {
            return new Piece(shaft, top, division, region, more);
        }
    }

    /** Depths {@code from} to {@code to} behind whose surfaces nothing changes for so many {@code layers}. */
    private record Run(int from, int to, int layers) {}

    Sounding(Colouring colouring, Paints paints, Outlook outlook, Stack nothing, Progress progress) {
        this.progress = progress;
        this.colouring = colouring;
        this.paints = paints;
        this.outlook = outlook;
        this.nothing = nothing;
        this.grid = colouring.model().grid();
        this.count = grid.count();
    }

    List<Found> all() {
        List<Found> found = new ArrayList<>();
        List<Supplier<List<Found>>> followed = new ArrayList<>();
        int next = 0;
        for (Run run : runs()) {
            follow(followed, next, run.from() - 1);
            Set<Integer> fades = level(run, found);
            IntStream.rangeClosed(run.from(), run.to()).forEach(depth -> {
                followed.add(() -> down(depth, outlook.thin(depth, run.layers())));
                followed.add(() -> turning(depth, run.layers(), fades));
            });
            next = run.to() + 1;
        }
        follow(followed, next, count - 1);
        // All in one, since threads take nothing over from one another where such work lies within other such work.
        followed.parallelStream().map(Supplier::get).toList().forEach(found::addAll);
        return found;
    }

    private void follow(List<Supplier<List<Found>>> followed, int from, int to) {
        IntStream.rangeClosed(from, to).forEach(depth -> followed.add(() -> down(depth, outlook.shaft(depth))));
    }

    /** Depths in a row that look the same behind for as long as it matters. */
    private List<Run> runs() {
        List<Run> runs = new ArrayList<>();
        int from = 0;
        while (from < count) {
            int to = from;
            while (to + 1 < count && alike(to + 1, from)) {
                to++;
            }
            int layers = layersThatMatter(from, to);
            int last = to + 1 - layers;
            if (last > from) {
                runs.add(new Run(from, last, layers));
            }
            from = to + 1;
        }
        return runs;
    }

    private boolean alike(int a, int b) {
        return division(a) == division(b) && base(a).equals(base(b));
    }

    /** What there is at {@code depth}, the colour by height first. */
    private List<Paints.Shaded> there(int depth) {
        return Stream.concat(
                        Stream.of(Field.BASE), division(depth).shares().stream().map(Division.Share::region))
                .map(region -> paint(region, depth))
                .toList();
    }

    private Division division(int depth) {
        return colouring.division(outlook.layer(depth));
    }

    private SpoolId base(int depth) {
        return colouring.base(outlook.layer(depth));
    }

    /**
     * How many layers of any plastic that there is from one depth to another it takes until nothing beyond matters, and as many more
     * as make it one of a few numbers: what has been worked out for one colour then often does for another.
     */
    private int layersThatMatter(int from, int to) {
        int thickness =
                Math.min(grid.layerHeight().micrometres(), grid.firstLayer().micrometres());
        int needed = IntStream.rangeClosed(from, isTurning(from) ? to : from)
                .boxed()
                .flatMap(depth -> there(depth).stream())
                .distinct()
                .mapToInt(s -> layers(s, thickness))
                .max()
                .orElseThrow();
        return (needed + STRIDE - 1) / STRIDE * STRIDE;
    }

    /** Whether any of what there is at {@code depth} is another colour on each layer. */
    private boolean isTurning(int depth) {
        return isFade(Field.BASE, depth) || division(depth).shares().stream().anyMatch(s -> isFade(s.region(), depth));
    }

    private boolean isFade(int region, int depth) {
        return paints.mixtures().find(spool(region, depth)).orElse(null) instanceof Mixture.Fade;
    }

    private int layers(Paints.Shaded paint, int thickness) {
        int layers = 1;
        while (layers < count && !nothing.with(paint, layers * thickness).isComplete()) {
            layers++;
        }
        return nothing.with(paint, layers * thickness).isComplete() ? layers : count + 1;
    }

    /**
     * What is seen of a run where enough plastic lies behind it.
     *
     * @return regions that are a fade there
     */
    private Set<Integer> level(Run run, List<Found> found) {
        int thickness = run.layers() * grid.layerHeight().micrometres();
        Set<Integer> fades = new HashSet<>();
        for (Piece piece : pieces(outlook.thick(run.from(), run.to(), run.layers()), division(run.from()))) {
            if (isFade(piece.region, run.from())) {
                fades.add(piece.region);
            } else {
                found.add(found(run.from(), piece.on(nothing.with(paint(piece.region, run.from()), thickness))));
            }
        }
        return fades;
    }

    /** Where fades are seen, another stack on each layer. */
    private List<Found> turning(int depth, int layers, Set<Integer> fades) {
        return fades.isEmpty()
                ? List.of()
                : pieces(outlook.thick(depth, depth, layers), division(depth).only(fades)).stream()
                        .map(piece -> found(depth, piece.on(behind(piece.region, depth))))
                        .toList();
    }

    private List<Piece> pieces(Shaft shaft, Divider division) {
        return shaft.area().isEmpty() ? List.of() : Piece.of(shaft, nothing).divided(division);
    }

    /** What is stacked in {@code region} from {@code from} on, as far as it matters. */
    private Stack behind(int region, int from) {
        Stack stack = nothing;
        for (int depth = from; depth < count && !stack.isComplete(); depth++) {
            stack = stack.with(
                    paint(region, depth), grid.thickness(outlook.layer(depth)).micrometres());
        }
        return stack;
    }

    private List<Found> down(int from, Shaft shaft) {
        progress.beat();
        List<Found> found = new ArrayList<>();
        List<Piece> pieces = shaft.area().isEmpty() ? List.of() : List.of(Piece.of(shaft, nothing));
        for (int depth = from; depth < count && !pieces.isEmpty(); depth++) {
            int thickness = grid.thickness(outlook.layer(depth)).micrometres();
            List<Piece> next = new ArrayList<>(pieces.size());
            for (Piece whole : pieces) {
                for (Piece here : whole.at(depth)) {
                    if (!here.shaft.isSolid()) {
                        next.add(here);
                        continue;
                    }
                    for (Piece piece : here.divided(division(depth))) {
                        Piece deeper = piece.on(piece.stack.with(paint(piece.region, depth), thickness));
                        if (deeper.stack.isComplete()) {
                            found.add(found(from, deeper));
                        } else {
                            next.add(deeper);
                        }
                    }
                }
            }
            pieces = next;
        }
        pieces.forEach(p -> found.add(found(from, p)));
        return found;
    }

    private Found found(int from, Piece piece) {
        return new Found(new Patch.Spot(outlook.layer(from), piece.top, piece.shaft.area()), piece.stack);
    }

    private Paints.Shaded paint(int region, int depth) {
        SpoolId spool = spool(region, depth);
        return spool.isMixture()
                ? paints.shaded(spool, outlook.layer(depth))
                : plain.computeIfAbsent(spool, s -> new Paints.Shaded(s, 0));
    }

    private SpoolId spool(int region, int depth) {
        return region == Field.BASE
                ? base(depth)
                : colouring.plan().regions().get(region).spool();
    }
}
