package dev.tranche.core.look;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Sheet;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Outlook;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Division;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Tells what is stacked behind each spot that is seen.
 *
 * <p>Where the same regions and the same colour by height go on behind a layer for so long that nothing beyond matters, all such layers
 * are one: each region has its own colour there, or, where it is a fade, the colours of the layers behind. What is left (near borders, and where plastic ends in air) is followed
 * layer by layer, and comes apart only where the model's outline steps in or out, or where other regions meet.
 */
final class Sounding {
    /** Smaller is how overlays round, mm². */
    private static final double SPECK = 1e-7;

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
     * @param solid whether there is plastic where it is now
     * @param division that was in force where it was last laid over one, and {@code region} that colours it there
     */
    private record Piece(MultiPolygon area, int top, boolean solid, Division division, int region, Stack stack) {
        static final int UNKNOWN = -2;

        static Piece of(MultiPolygon area, Stack nothing) {
            return new Piece(area, UNKNOWN, true, null, Field.BASE, nothing);
        }

        Piece at(MultiPolygon part, boolean plastic) {
            return new Piece(part, top, plastic, plastic == solid ? division : null, region, stack);
        }

        Piece in(MultiPolygon part, Division there, int taker) {
            return new Piece(part, top == UNKNOWN ? taker : top, solid, there, taker, stack);
        }

        Piece on(Stack more) {
            return new Piece(area, top, solid, division, region, more);
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
        List<Run> runs = runs();
        List<Integer> alone = new ArrayList<>();
        int next = 0;
        for (Run run : runs) {
            IntStream.range(next, run.from()).forEach(alone::add);
            next = run.to() + 1;
        }
        IntStream.range(next, count).forEach(alone::add);
        Stream<Found> there = runs.stream().flatMap(r -> in(r).stream());
        Stream<Found> followed = alone.parallelStream()
                .map(depth -> down(depth, outlook.seen(depth)))
                .flatMap(List::stream);
        return Stream.concat(there, followed).toList();
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

    /** How many layers of any plastic that there is from one depth to another it takes until nothing beyond matters. */
    private int layersThatMatter(int from, int to) {
        int thickness =
                Math.min(grid.layerHeight().micrometres(), grid.firstLayer().micrometres());
        return IntStream.rangeClosed(from, isTurning(from) ? to : from)
                .boxed()
                .flatMap(depth -> there(depth).stream())
                .distinct()
                .mapToInt(s -> layers(s, thickness))
                .max()
                .orElseThrow();
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

    private List<Found> in(Run run) {
        List<MultiPolygon> thin = IntStream.rangeClosed(run.from() + 1, Math.min(count - 1, run.to() + run.layers()))
                .parallel()
                .mapToObj(depth -> outlook.thin(depth, run.layers()))
                .filter(a -> !a.isEmpty())
                .toList();
        MultiPolygon apart = Areas.union(thin);
        int thickness = run.layers() * grid.layerHeight().micrometres();
        List<Found> found = new ArrayList<>();
        MultiPolygon area = clean(Areas.difference(outlook.seen(run.from(), run.to()), apart));
        List<Piece> pieces = area.isEmpty() ? List.of() : divided(Piece.of(area, nothing), division(run.from()));
        for (Piece piece : pieces) {
            if (isFade(piece.region, run.from())) {
                found.addAll(turning(run, piece));
            } else {
                found.add(found(run.from(), piece.on(nothing.with(paint(piece.region, run.from()), thickness))));
            }
        }
        if (!apart.isEmpty()) {
            IntStream.rangeClosed(run.from(), run.to())
                    .parallel()
                    .mapToObj(depth -> down(depth, clean(Areas.intersection(outlook.seen(depth), apart))))
                    .toList()
                    .forEach(found::addAll);
        }
        return found;
    }

    /** Where a fade is seen, another stack on each layer. */
    private List<Found> turning(Run run, Piece piece) {
        return IntStream.rangeClosed(run.from(), run.to())
                .parallel()
                .mapToObj(depth -> {
                    MultiPolygon there = clean(Areas.intersection(outlook.seen(depth), piece.area));
                    return there.isEmpty()
                            ? Optional.<Found>empty()
                            : Optional.of(found(depth, piece.at(there, true).on(behind(piece.region, depth))));
                })
                .flatMap(Optional::stream)
                .toList();
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

    private List<Found> down(int from, MultiPolygon area) {
        progress.beat();
        List<Found> found = new ArrayList<>();
        List<Piece> pieces = area.isEmpty() ? List.of() : List.of(Piece.of(area, nothing));
        for (int depth = from; depth < count && !pieces.isEmpty(); depth++) {
            int thickness = grid.thickness(outlook.layer(depth)).micrometres();
            List<Piece> next = new ArrayList<>(pieces.size());
            for (Piece whole : pieces) {
                for (Piece here : depth == from ? List.of(whole) : stepped(whole, depth)) {
                    if (!here.solid) {
                        next.add(here);
                        continue;
                    }
                    for (Piece piece : divided(here, division(depth))) {
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
        return new Found(new Patch.Spot(outlook.layer(from), piece.top, piece.area), piece.stack);
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

    /** A piece where the outline steps: plastic ends under some of it, or begins again. */
    private List<Piece> stepped(Piece piece, int depth) {
        MultiPolygon other = piece.solid ? outlook.ends(depth) : outlook.opens(depth);
        if (!meet(piece.area, other)) {
            return List.of(piece);
        }
        MultiPolygon there = clean(Areas.intersection(piece.area, other));
        if (there.isEmpty()) {
            return List.of(piece);
        }
        List<Piece> parts = new ArrayList<>(2);
        parts.add(piece.at(there, !piece.solid));
        add(parts, piece.at(clean(Areas.difference(piece.area, other)), piece.solid));
        return parts;
    }

    private static List<Piece> divided(Piece piece, Division division) {
        if (piece.division == division) {
            return List.of(piece);
        }
        List<Piece> parts = new ArrayList<>();
        Sheet sheet = new Sheet(piece.area);
        for (Division.Share share : division.shares()) {
            for (MultiPolygon cell : share.cells()) {
                add(parts, piece.in(clean(sheet.within(cell)), division, share.region()));
            }
        }
        MultiPolygon rest = parts.isEmpty() ? piece.area : clean(rest(sheet, division));
        add(parts, piece.in(rest, division, Field.BASE));
        return parts;
    }

    private static MultiPolygon rest(Sheet sheet, Division division) {
        return division.zones()
                .map(sheet::without)
                .orElseGet(() -> Areas.difference(
                        sheet.outline(),
                        Areas.union(division.shares().stream()
                                .flatMap(s -> s.cells().stream())
                                .toList())));
    }

    private static void add(List<Piece> pieces, Piece piece) {
        if (!piece.area.isEmpty()) {
            pieces.add(piece);
        }
    }

    private static boolean meet(MultiPolygon a, MultiPolygon b) {
        return a.getEnvelopeInternal().intersects(b.getEnvelopeInternal());
    }

    /** Without what rounding left. */
    private static MultiPolygon clean(MultiPolygon area) {
        List<Polygon> kept = new ArrayList<>();
        for (int i = 0; i < area.getNumGeometries(); i++) {
            if (area.getGeometryN(i).getArea() > SPECK) {
                kept.add((Polygon) area.getGeometryN(i));
            }
        }
        return kept.size() == area.getNumGeometries()
                ? area
                : area.getFactory().createMultiPolygon(kept.toArray(Polygon[]::new));
    }
}
