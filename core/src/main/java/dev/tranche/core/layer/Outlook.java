package dev.tranche.core.layer;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Progress;
import java.lang.ref.SoftReference;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * What of a model's layers is seen from above, or from beneath, whatever their colours. Layers are counted by their depth: 0 is
 * the one nearest to the eye.
 */
public final class Outlook {
    /** So many depths are asked together where plastic ends behind them. */
    private static final int BLOCK = 32;

    private final Steps steps;
    private final boolean fromAbove;
    /** For each depth what of it nothing nearer covers. */
    private final List<MultiPolygon> seen = new ArrayList<>();
    /** For each depth what it and all that is nearer cover together; the very same where a layer adds nothing. */
    private final List<MultiPolygon> shadows = new ArrayList<>();

    /** Where plastic ends, by depths and by layers. */
    private final Map<List<Integer>, MultiPolygon> thin = new ConcurrentHashMap<>();

    private final Map<Start, SoftReference<Begun>> begun = new ConcurrentHashMap<>();

    /** Where something is followed from. */
    private record Start(int depth, boolean alone, Behind behind, int layers) {}

    /** How much plastic there has to be behind a surface. */
    private enum Behind {
        ANY,
        LITTLE,
        ENOUGH
    }

    /** What is followed, from as far as a depth; the last that was asked for. */
    private record Begun(int to, Shaft shaft) {}

    Outlook(Steps steps, boolean fromAbove, Progress progress) {
        this.steps = steps;
        this.fromAbove = fromAbove;
        MultiPolygon shadow = Areas.NOTHING;
        MultiPolygon before = Areas.NOTHING;
        for (int depth = 0; depth < steps.layers(); depth++) {
            progress.at(depth, steps.layers());
            MultiPolygon outline = steps.outline(layer(depth));
            MultiPolygon fresh = Steps.isSame(outline, before) ? Areas.NOTHING : Areas.difference(outline, shadow);
            if (Areas.size(fresh) > Areas.SPECK) {
                seen.add(fresh);
                shadow = Areas.union(List.of(shadow, outline));
            } else {
                seen.add(Areas.NOTHING);
            }
            shadows.add(shadow);
            before = outline;
        }
    }

    public int layers() {
        return steps.layers();
    }

    /** The number of the layer at {@code depth}, from 1. */
    public int layer(int depth) {
        return fromAbove ? steps.layers() - depth : depth + 1;
    }

    /** What of the layer at {@code depth} has no plastic of the one before it over it, as far as that is notable. */
    MultiPolygon opens(int depth) {
        return fromAbove ? steps.ledge(layer(depth)) : steps.overhang(layer(depth) - 1);
    }

    /** What of the layer before the one at {@code depth} has no plastic of this one behind it, as far as that is notable. */
    MultiPolygon ends(int depth) {
        return fromAbove ? steps.overhang(layer(depth)) : steps.ledge(layer(depth) - 1);
    }

    /** What of the layer at {@code depth} is seen. */
    MultiPolygon seen(int depth) {
        return seen.get(depth);
    }

    private MultiPolygon seen(int from, int to) {
        return from == to ? seen(from) : Areas.difference(shadow(to), shadow(from - 1));
    }

    /** What the layer at {@code depth} and all that are nearer to the eye cover together. */
    public MultiPolygon shadow(int depth) {
        return depth < 0 ? Areas.NOTHING : shadows.get(depth);
    }

    /** What of the layer at {@code depth} is seen. */
    public Shaft shaft(int depth) {
        return begun(depth, depth, Behind.ANY, 0, () -> seen(depth));
    }

    /** What is seen of the layer at {@code depth} where plastic notably ends in air after so many layers, that one among them, or fewer. */
    public Shaft thin(int depth, int layers) {
        return begun(
                depth,
                depth,
                Behind.LITTLE,
                layers,
                () -> Areas.clean(Areas.intersection(seen(depth), ending(depth / BLOCK, layers))));
    }

    /** What is seen of the layers at depths {@code from} to {@code to} where plastic goes on for more than so many layers, or all but does. */
    public Shaft thick(int from, int to, int layers) {
        return begun(
                from,
                to,
                Behind.ENOUGH,
                layers,
                () -> Areas.clean(Areas.difference(
                        seen(from, to),
                        Areas.union(IntStream.rangeClosed(from / BLOCK, to / BLOCK)
                                .mapToObj(block -> ending(block, layers))
                                .toList()))));
    }

    private Shaft begun(int from, int to, Behind behind, int layers, Supplier<MultiPolygon> area) {
        Start start = new Start(from, from == to, behind, layers);
        Begun last = Optional.ofNullable(begun.get(start))
                .map(SoftReference::get)
                .filter(b -> b.to() == to)
                .orElse(null);
        if (last == null) {
            last = new Begun(to, new Shaft(this, area.get(), true, from));
            begun.put(start, new SoftReference<>(last));
        }
        return last.shaft();
    }

    /**
     * Where what is seen of a block of depths notably ends in air after so many layers or fewer. What is seen at
     * one depth cannot end so soon where that of another does, so that it holds for each of them alone.
     */
    private MultiPolygon ending(int block, int layers) {
        int first = block * BLOCK;
        int last = Math.min(layers(), first + BLOCK) - 1;
        return known(
                List.of(first, last, layers),
                () -> Areas.union(IntStream.rangeClosed(first + 1, Math.min(layers() - 1, last + layers))
                        .parallel()
                        .mapToObj(depth -> endingAt(depth, layers))
                        .filter(a -> !a.isEmpty())
                        .toList()));
    }

    private MultiPolygon endingAt(int depth, int layers) {
        MultiPolygon beyond = shadow(depth - 1 - layers);
        // Where no layer between is seen none can end.
        return shadow(depth - 1) == beyond || ends(depth).isEmpty()
                ? Areas.NOTHING
                : known(List.of(depth, layers), () -> Steps.notable(Areas.difference(ends(depth), beyond)));
    }

    private MultiPolygon known(List<Integer> of, Supplier<MultiPolygon> made) {
        MultiPolygon known = thin.get(of);
        if (known == null) {
            known = made.get();
            thin.put(of, known);
        }
        return known;
    }
}
