package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Chords;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * Which colours of each layer stand over which others, by more than half a line all round: what stands over less holds on
 * to its own, and leaves the nozzle room.
 *
 * @param below for each layer, and each colour of it, those of the very layer beneath as bits; colours are places in the
 *     palette; null where it was not looked at
 * @param chords by which most colours are told
 */
record Rests(Ground ground, int[][] below, RecentChords chords) {
    /** Areas of fewer are laid over one another as quickly. */
    private static final int MANY_CORNERS = 200;

    /**
     * @param sought layers, from 1, that are looked at
     * @param progress hears layers done of all layers
     */
    static Rests of(Ground ground, IntPredicate sought, Progress progress) {
        AtomicInteger done = new AtomicInteger();
        Rests rests = new Rests(ground, new int[ground.layers().size()][], new RecentChords(ground));
        rests.below[0] = new int[ground.palette().size()];
        IntStream.rangeClosed(2, rests.below.length).parallel().filter(sought).forEach(layer -> {
            progress.at(done.incrementAndGet(), rests.below.length);
            rests.below[layer - 1] = rests.onNext(layer);
        });
        return rests;
    }

    private int[] onNext(int layer) {
        int[] under = new int[ground.palette().size()];
        // Colours of one layer do not overlap, so in equal layers none rests on another.
        if (ground.layer(layer) != ground.layer(layer - 1)) {
            add(layer, layer - 1, under, under);
        }
        return under;
    }

    private boolean meet(int upper, Tint over, int lower, Tint under) {
        Chords.Fit fit = over.corners() + under.corners() < MANY_CORNERS
                ? Chords.Fit.UNKNOWN
                : byChords(upper, over, lower, under);
        return fit == Chords.Fit.UNKNOWN ? byOverlay(over, under) : fit == Chords.Fit.SOMEWHERE;
    }

    private Chords.Fit byChords(int upper, Tint over, int lower, Tint under) {
        Optional<Chords> above = chords.of(upper, over);
        Optional<Chords> beneath = chords.of(lower, under);
        if (above.isEmpty() || beneath.isEmpty()) {
            return Chords.Fit.UNKNOWN;
        }
        return above.get().shared(beneath.get(), middle -> holdsDisc(over, middle) && holdsDisc(under, middle));
    }

    private boolean byOverlay(Tint over, Tint under) {
        List<MultiPolygon> shared = new ArrayList<>();
        for (MultiPolygon a : over.cells()) {
            for (MultiPolygon b : under.cells()) {
                if (a.getEnvelopeInternal().intersects(b.getEnvelopeInternal())) {
                    MultiPolygon both = Areas.intersection(a, b);
                    if (holdsLine(both)) {
                        return true;
                    }
                    shared.add(both);
                }
            }
        }
        // A sliver in one cell may be the rim of the next.
        return shared.size() > 1 && holdsLine(Areas.union(shared));
    }

    private boolean holdsDisc(Tint tint, Coordinate middle) {
        return tint.cells().stream().anyMatch(c -> Chords.holdsDisc(c, middle, ground.lineWidth() / 2));
    }

    private boolean holdsLine(MultiPolygon area) {
        for (int i = 0; i < area.getNumGeometries(); i++) {
            if (Thin.holdsLine((Polygon) area.getGeometryN(i), ground.lineWidth())) {
                return true;
            }
        }
        return false;
    }

    /**
     * For each colour of {@code layer} those that lie under it on any layer from {@code first} up, however far beneath: a
     * roof that was printed before keeps the nozzle out, whether there is a void under it or not.
     *
     * @param known what is known of the layers between already, which need not be looked at again
     */
    int[] under(int layer, int first, int[] known) {
        if (below[layer - 1] == null) {
            below[layer - 1] = onNext(layer);
        }
        int[] under = below[layer - 1].clone();
        for (int lower = layer - 2; lower >= first; lower--) {
            LayerColours colours = ground.layer(lower);
            if (colours != ground.layer(lower + 1) && colours != ground.layer(layer)) {
                add(layer, lower, known, under);
            }
        }
        return under;
    }

    private void add(int upper, int lower, int[] known, int[] under) {
        List<SpoolId> palette = ground.palette();
        for (Tint over : ground.layer(upper).tints()) {
            int a = palette.indexOf(over.spool());
            for (Tint beneath : ground.layer(lower).tints()) {
                int b = palette.indexOf(beneath.spool());
                boolean open = a != b && ((under[a] | known[a]) >> b & 1) == 0;
                if (open && over.prints() && beneath.prints() && meet(upper, over, lower, beneath)) {
                    under[a] |= 1 << b;
                }
            }
        }
    }
}
