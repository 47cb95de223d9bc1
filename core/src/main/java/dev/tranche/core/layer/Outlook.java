package dev.tranche.core.layer;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * What of a model's layers is seen from above, or from beneath, whatever their colours. Layers are counted by their depth: 0 is
 * the one nearest to the eye.
 */
public final class Outlook {
    /** Less is how overlays round, mm². */
    private static final double SPECK = 1e-7;

    private final Steps steps;
    private final boolean fromAbove;
    /** For each depth what of it nothing nearer covers. */
    private final List<MultiPolygon> seen = new ArrayList<>();
    /** For each depth what it and all that is nearer cover together; the very same where a layer adds nothing. */
    private final List<MultiPolygon> shadows = new ArrayList<>();

    /** What is seen of several, by the first of them; the last that was asked for. */
    private final Map<Integer, Together> together = new ConcurrentHashMap<>();

    private final Map<List<Integer>, MultiPolygon> thin = new ConcurrentHashMap<>();

    private record Together(int to, MultiPolygon seen) {}

    Outlook(Steps steps, boolean fromAbove, Progress progress) {
        this.steps = steps;
        this.fromAbove = fromAbove;
        MultiPolygon shadow = Areas.NOTHING;
        MultiPolygon before = Areas.NOTHING;
        for (int depth = 0; depth < steps.layers(); depth++) {
            progress.at(depth, steps.layers());
            MultiPolygon outline = steps.outline(layer(depth));
            MultiPolygon fresh = Steps.isSame(outline, before) ? Areas.NOTHING : Areas.difference(outline, shadow);
            if (fresh.getArea() > SPECK) {
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
    public MultiPolygon opens(int depth) {
        return fromAbove ? steps.ledge(layer(depth)) : steps.overhang(layer(depth) - 1);
    }

    /** What of the layer before the one at {@code depth} has no plastic of this one behind it, as far as that is notable. */
    public MultiPolygon ends(int depth) {
        return fromAbove ? steps.overhang(layer(depth)) : steps.ledge(layer(depth) - 1);
    }

    /** What of the layer at {@code depth} is seen. */
    public MultiPolygon seen(int depth) {
        return seen.get(depth);
    }

    /** What is seen of the layers at depths {@code from} to {@code to}. */
    public MultiPolygon seen(int from, int to) {
        return from == to
                ? seen(from)
                : together.compute(
                                from,
                                (f, last) -> last != null && last.to() == to
                                        ? last
                                        : new Together(to, Areas.difference(shadow(to), shadow(from - 1))))
                        .seen();
    }

    /** What the layer at {@code depth} and all that are nearer to the eye cover together. */
    public MultiPolygon shadow(int depth) {
        return depth < 0 ? Areas.NOTHING : shadows.get(depth);
    }

    /**
     * Where what is seen notably ends in air less than so many layers behind its surface, as far as it ends at {@code depth}.
     *
     * @param layers 1 or more
     */
    public MultiPolygon thin(int depth, int layers) {
        MultiPolygon beyond = shadow(depth - 1 - layers);
        // Where no layer between is seen none can end.
        return shadow(depth - 1) == beyond || ends(depth).isEmpty()
                ? Areas.NOTHING
                : thin.computeIfAbsent(
                        List.of(depth, layers), k -> Steps.notable(Areas.difference(ends(depth), beyond)));
    }
}
