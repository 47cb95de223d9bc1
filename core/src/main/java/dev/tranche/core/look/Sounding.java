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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;

/**
 * Tells what is stacked behind each spot that is seen.
 *
 * <p>Where the same regions and the same colour by height go on behind a layer for so long that nothing beyond matters, all such layers
 * are one: each region has its own colour there, or, where it is a fade, the colours of the layers behind. What is left (near
 * borders, and where plastic ends in air) is followed layer by layer, and comes apart only where the model's outline steps in or
 * out; by regions, where others begin to divide it, and at the end.
 */
final class Sounding {
    /** Layers that matter are counted in so many. */
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
     * A place on its way down. As long as the same regions divide it, it is followed as one, with what is stacked there for each
     * colour that it may turn out to have.
     *
     * @param division in force since it was last divided, nothing before the first
     */
    private record Piece(Shaft shaft, Division division, List<Strand> strands) {
        /** What becomes of it at {@code depth}. */
        List<Piece> at(int depth) {
            List<Shaft> parts = shaft.at(depth);
            return parts.size() == 1 && parts.get(0) == shaft
                    ? List.of(this)
                    : parts.stream().map(p -> new Piece(p, division, strands)).toList();
        }

        boolean isComplete() {
            return strands.stream().allMatch(s -> s.stack.isComplete());
        }
    }

    /**
     * What is stacked where one colour goes on.
     *
     * @param top region that colours it under the eye; {@link #HERE} while that is the one that colours it here
     * @param region one of those with that colour, or {@link Field#BASE}
     */
    private record Strand(int top, int region, Stack stack) {
        static final int HERE = -2;
    }

    /** Where one region takes what has been followed. */
    private record Taken(Shaft shaft, int top, Stack stack) {}

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
        for (Shaft.Share share : shares(outlook.thick(run.from(), run.to(), run.layers()), division(run.from()))) {
            if (isFade(share.taker(), run.from())) {
                fades.add(share.taker());
            } else {
                found.add(found(run.from(), share, nothing.with(paint(share.taker(), run.from()), thickness)));
            }
        }
        return fades;
    }

    /** Where fades are seen, another stack on each layer. */
    private List<Found> turning(int depth, int layers, Set<Integer> fades) {
        return fades.isEmpty()
                ? List.of()
                : shares(outlook.thick(depth, depth, layers), division(depth).only(fades)).stream()
                        .map(share -> found(depth, share, behind(share.taker(), depth)))
                        .toList();
    }

    private static List<Shaft.Share> shares(Shaft shaft, Divider division) {
        return shaft.area().isEmpty() ? List.of() : shaft.divided(division);
    }

    private Found found(int depth, Shaft.Share share, Stack stack) {
        return found(depth, new Taken(share.shaft(), share.taker(), stack));
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
        List<Piece> pieces = shaft.area().isEmpty()
                ? List.of()
                : List.of(new Piece(shaft, null, List.of(new Strand(Strand.HERE, Field.BASE, nothing))));
        for (int depth = from; depth < count && !pieces.isEmpty(); depth++) {
            List<Piece> next = new ArrayList<>(pieces.size());
            for (Piece whole : pieces) {
                for (Piece here : whole.at(depth)) {
                    for (Piece deeper : here.shaft.isSolid() ? through(here, depth) : List.of(here)) {
                        if (deeper.isComplete()) {
                            taken(deeper).forEach(t -> found.add(found(from, t)));
                        } else {
                            next.add(deeper);
                        }
                    }
                }
            }
            pieces = next;
        }
        pieces.forEach(p -> taken(p).forEach(t -> found.add(found(from, t))));
        return found;
    }

    /** A piece with the plastic of one more layer behind it, come apart where other regions divide it from there on. */
    private List<Piece> through(Piece piece, int depth) {
        Division there = division(depth);
        List<Piece> pieces = piece.division == there
                ? List.of(piece)
                : taken(piece).stream()
                        .map(t -> new Piece(t.shaft, there, strands(t, there, depth)))
                        .toList();
        int thickness = grid.thickness(outlook.layer(depth)).micrometres();
        return pieces.stream()
                .map(p -> new Piece(
                        p.shaft,
                        there,
                        p.strands.stream()
                                .map(s -> s.stack.isComplete()
                                        ? s
                                        : new Strand(s.top, s.region, s.stack.with(paint(s.region, depth), thickness)))
                                .toList()))
                .toList();
    }

    /** One for each colour that regions which come near may give it from there on. */
    private List<Strand> strands(Taken taken, Division there, int depth) {
        Envelope box = taken.shaft.area().getEnvelopeInternal();
        Map<SpoolId, Strand> strands = new LinkedHashMap<>();
        there.shares().stream()
                .filter(share -> share.comesNear(box))
                .map(Division.Share::region)
                .forEach(r -> strands.putIfAbsent(spool(r, depth), new Strand(taken.top, r, taken.stack)));
        List<Strand> all = new ArrayList<>(strands.values());
        all.add(new Strand(taken.top, Field.BASE, taken.stack));
        return List.copyOf(all);
    }

    /** What each region takes of a piece, with what is stacked there. */
    private List<Taken> taken(Piece piece) {
        if (piece.division == null || piece.strands.size() == 1) {
            Strand only = piece.strands.get(0);
            int top = piece.division == null || only.top != Strand.HERE ? only.top : Field.BASE;
            return List.of(new Taken(piece.shaft, top, only.stack));
        }
        return piece.shaft.divided(piece.division).stream()
                .map(share -> {
                    Strand strand = strand(piece, share.taker());
                    return new Taken(
                            share.shaft(), strand.top == Strand.HERE ? share.taker() : strand.top, strand.stack);
                })
                .toList();
    }

    private Strand strand(Piece piece, int region) {
        return piece.strands.stream()
                .filter(s -> region == Field.BASE || s.region == Field.BASE
                        ? region == s.region
                        : colour(region).equals(colour(s.region)))
                .findFirst()
                .orElseThrow();
    }

    private SpoolId colour(int region) {
        return colouring.plan().regions().get(region).spool();
    }

    private Found found(int from, Taken taken) {
        return new Found(new Patch.Spot(outlook.layer(from), taken.top, taken.shaft.area()), taken.stack);
    }

    private Paints.Shaded paint(int region, int depth) {
        SpoolId spool = spool(region, depth);
        return spool.isMixture()
                ? paints.shaded(spool, outlook.layer(depth))
                : plain.computeIfAbsent(spool, s -> new Paints.Shaded(s, 0));
    }

    private SpoolId spool(int region, int depth) {
        return region == Field.BASE ? base(depth) : colour(region);
    }
}
