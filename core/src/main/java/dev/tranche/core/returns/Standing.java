package dev.tranche.core.returns;

import dev.tranche.core.geometry.Course;
import dev.tranche.core.geometry.Crossed;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.geometry.Stretches;
import dev.tranche.core.layer.Outlook;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Pass;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * What of a model has been printed before any moment of a print, colour by colour of each layer, and what of it is seen from above.
 * Once all is told by {@link #print}, many may ask at a time.
 */
final class Standing {
    /** What is left uncovered of a line that is shorter is rounding, mm. */
    private static final double NOTHING = 0.02;
    /** Stretches as near as this are one, steps. */
    private static final double TOUCHING = 1e-9;

    private static final int NEVER = Integer.MAX_VALUE;

    /** One colour of a layer, and the moment at which it was printed. */
    private static final class Coat {
        final SpoolId spool;
        final Crossed area;
        int moment = NEVER;

        Coat(SpoolId spool, Crossed area) {
            this.spool = spool;
            this.area = area;
        }
    }

    /** So many layers down it is looked whether anything lies beneath at all. */
    private static final int EACH = 8;

    private final List<LayerColours> layers;
    private final Crossed footprint;
    private final Optional<Outlook> fromBeneath;
    /** Each made when it is first asked for; by two at a time, twice alike. */
    private final Crossed[] beneath;

    private final Coat[][] coats;
    /** The highest layer that was begun by a moment. */
    private final TreeMap<Integer, Integer> highest = new TreeMap<>();

    /**
     * @param layers of the whole model, or of what of it stands by itself
     * @param footprint of that, where the model is
     * @param fromBeneath the model, if that is known
     */
    Standing(List<LayerColours> layers, MultiPolygon footprint, Optional<Outlook> fromBeneath) {
        this.layers = layers;
        this.footprint = new Crossed(List.of(footprint));
        this.fromBeneath = fromBeneath;
        beneath = new Crossed[layers.size()];
        coats = new Coat[layers.size()][];
        for (int i = 0; i < coats.length; i++) {
            coats[i] = i > 0 && layers.get(i) == layers.get(i - 1) ? alike(coats[i - 1]) : coats(layers.get(i));
        }
    }

    private static Coat[] coats(LayerColours layer) {
        return layer.tints().stream()
                .map(t -> new Coat(t.spool(), new Crossed(t.cells())))
                .toArray(Coat[]::new);
    }

    private static Coat[] alike(Coat[] below) {
        return Arrays.stream(below).map(c -> new Coat(c.spool, c.area)).toArray(Coat[]::new);
    }

    /**
     * Where a colour of a layer is nearest to a place in the model; nowhere if it is not there.
     *
     * @param layer from 0
     */
    Optional<Coordinate> nearest(int layer, SpoolId spool, Coordinate to) {
        return Arrays.stream(coats[layer])
                .filter(c -> c.spool.equals(spool))
                .findFirst()
                .flatMap(c -> c.area.nearest(to));
    }

    /** Is told that a pass was printed here; moments ascend. */
    void print(Pass pass, int moment) {
        for (Coat coat : coats[pass.layer() - 1]) {
            if (coat.spool.equals(pass.spool())) {
                coat.moment = Math.min(coat.moment, moment);
            }
        }
        if (highest.isEmpty() || highest.lastEntry().getValue() < pass.layer()) {
            highest.put(moment, pass.layer());
        }
    }

    /** Plastic of one colour along a line. */
    record Seen(SpoolId spool, Span span) {}

    /**
     * The plastic of other colours that a line leads over from its beginning to its first step, as it is seen from above; what the
     * next pass will cover is none of it.
     *
     * @param moment of the next pass
     * @param course where the model is
     * @param covers whether the next pass is printed here
     */
    List<Seen> otherThan(Pass next, int moment, Course course, boolean covers) {
        Stretches open = Stretches.of(course, 0, 1).through(footprint);
        List<Seen> seen = new ArrayList<>();
        if (covers) {
            for (Coat coat : coats[next.layer() - 1]) {
                open = coat.spool.equals(next.spool()) ? open.less(open.through(coat.area)) : open;
            }
        }
        Map.Entry<Integer, Integer> top = highest.lowerEntry(moment);
        int above = -1;
        int highestNow = top == null ? -1 : top.getValue() - 1;
        for (int at = highestNow; at >= 0 && open.length() > NOTHING; at--) {
            if ((highestNow - at) % EACH == 0) {
                open = overPlastic(at, open);
            }
            if (above < 0 || !isSame(at, above, moment)) {
                for (Coat coat : coats[at]) {
                    if (coat.moment < moment) {
                        Stretches over = open.through(coat.area);
                        if (!coat.spool.equals(next.spool())) {
                            over.spans().forEach(s -> seen.add(new Seen(coat.spool, s)));
                        }
                        open = open.less(over);
                    }
                }
            }
            above = at;
        }
        return joined(seen).stream()
                .filter(s -> s.span().length() * course.length() > NOTHING)
                .toList();
    }

    /** What of it has a layer beneath, of the one at {@code at} and those below. */
    private Stretches overPlastic(int at, Stretches open) {
        if (fromBeneath.isEmpty()) {
            return open;
        }
        if (beneath[at] == null) {
            beneath[at] = new Crossed(List.of(fromBeneath.get().shadow(at)));
        }
        return open.through(beneath[at]);
    }

    /** Whether what is printed of two layers lies on one another and has the same colours. */
    private boolean isSame(int at, int above, int moment) {
        if (layers.get(at) != layers.get(above)) {
            return false;
        }
        for (int i = 0; i < coats[at].length; i++) {
            if (coats[at][i].moment < moment != coats[above][i].moment < moment) {
                return false;
            }
        }
        return true;
    }

    /** What is seen of a colour layer by layer, as of a wall that leans, is one stretch. */
    private static List<Seen> joined(List<Seen> seen) {
        seen.sort(Comparator.comparingDouble(s -> s.span().from()));
        List<Seen> joined = new ArrayList<>();
        for (Seen one : seen) {
            Seen last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            if (last != null
                    && last.spool().equals(one.spool())
                    && one.span().from() <= last.span().to() + TOUCHING) {
                double end = Math.max(last.span().to(), one.span().to());
                joined.set(
                        joined.size() - 1,
                        new Seen(one.spool(), new Span(last.span().from(), end)));
            } else {
                joined.add(one);
            }
        }
        return joined;
    }
}
