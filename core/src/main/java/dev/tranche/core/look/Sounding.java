package dev.tranche.core.look;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.Steps;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.Division;
import dev.tranche.core.plan.Field;
import dev.tranche.core.plan.SpoolId;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Goes down from what is under the eye, layer by layer, and tells what is stacked there.
 *
 * <p>What of a layer nothing nearer covers is followed as one piece for as long as all of it is printed with one spool. It
 * comes apart only where the model's outline steps in or out, or where other regions meet.
 */
final class Sounding {
    /** Smaller is how overlays round, mm². */
    private static final double SPECK = 1e-7;

    private final Colouring colouring;
    private final boolean fromAbove;
    private final Stack nothing;
    private final Steps steps;
    private final int count;

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

    Sounding(Colouring colouring, View view, Stack nothing) {
        this.colouring = colouring;
        this.fromAbove = view != View.BELOW;
        this.nothing = nothing;
        this.steps = colouring.steps();
        this.count = colouring.model().grid().count();
    }

    List<Found> all() {
        List<MultiPolygon> open = open();
        return IntStream.range(0, count)
                .parallel()
                .mapToObj(i -> open.get(i).isEmpty() ? List.<Found>of() : down(i, open.get(i)))
                .flatMap(List::stream)
                .toList();
    }

    /** The layer that is {@code depth} layers away from the one nearest to the eye. */
    private int layer(int depth) {
        return fromAbove ? count - depth : depth + 1;
    }

    /** What at {@code depth} is not under the layer before. */
    private MultiPolygon opens(int depth) {
        return fromAbove ? steps.ledges().get(layer(depth)) : steps.overhangs().get(layer(depth) - 1);
    }

    /** What of the layer before is not over the one at {@code depth}. */
    private MultiPolygon ends(int depth) {
        return fromAbove ? steps.overhangs().get(layer(depth)) : steps.ledges().get(layer(depth) - 1);
    }

    /** For each depth what of it nothing nearer covers. */
    private List<MultiPolygon> open() {
        List<MultiPolygon> open = new ArrayList<>(count);
        // What lies nearer to the eye than the layer before and is not over it.
        MultiPolygon aloft = Areas.NOTHING;
        for (int depth = 0; depth < count; depth++) {
            MultiPolygon fresh = opens(depth);
            open.add(aloft.isEmpty() || fresh.isEmpty() ? fresh : Areas.difference(fresh, aloft));
            MultiPolygon left = aloft.isEmpty() || fresh.isEmpty()
                    ? aloft
                    : Areas.difference(
                            aloft, colouring.model().section(layer(depth)).outline());
            MultiPolygon ended = ends(depth);
            aloft = ended.isEmpty() ? left : left.isEmpty() ? ended : Areas.union(List.of(left, ended));
        }
        return open;
    }

    private List<Found> down(int from, MultiPolygon area) {
        List<Found> found = new ArrayList<>();
        List<Piece> pieces = List.of(new Piece(area, Piece.UNKNOWN, true, null, Field.BASE, nothing));
        LayerGrid grid = colouring.model().grid();
        for (int depth = from; depth < count && !pieces.isEmpty(); depth++) {
            int layer = layer(depth);
            Division division = colouring.division(layer);
            int thickness = grid.thickness(layer).micrometres();
            List<Piece> next = new ArrayList<>(pieces.size());
            for (Piece whole : pieces) {
                for (Piece here : depth == from ? List.of(whole) : stepped(whole, depth)) {
                    if (!here.solid) {
                        next.add(here);
                        continue;
                    }
                    for (Piece piece : divided(here, division)) {
                        Piece deeper = piece.on(piece.stack.with(spool(piece.region, layer), thickness));
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
        return new Found(new Patch.Spot(layer(from), piece.top, piece.area), piece.stack);
    }

    private SpoolId spool(int region, int layer) {
        return region == Field.BASE
                ? colouring.base(layer)
                : colouring.plan().regions().get(region).spool();
    }

    /** A piece where the outline steps: plastic ends under some of it, or begins again. */
    private List<Piece> stepped(Piece piece, int depth) {
        MultiPolygon other = piece.solid ? ends(depth) : opens(depth);
        if (!meet(piece.area, other)) {
            return List.of(piece);
        }
        List<Piece> parts = new ArrayList<>(2);
        add(parts, piece.at(clean(Areas.intersection(piece.area, other)), !piece.solid));
        add(parts, piece.at(clean(Areas.difference(piece.area, other)), piece.solid));
        return parts;
    }

    private static List<Piece> divided(Piece piece, Division division) {
        if (piece.division == division) {
            return List.of(piece);
        }
        List<Piece> parts = new ArrayList<>();
        MultiPolygon rest = piece.area;
        for (Division.Share share : division.shares()) {
            for (MultiPolygon cell : share.cells()) {
                if (meet(rest, cell)) {
                    add(parts, piece.in(clean(Areas.intersection(rest, cell)), division, share.region()));
                    rest = clean(Areas.difference(rest, cell));
                }
            }
        }
        add(parts, piece.in(rest, division, Field.BASE));
        return parts;
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
