package dev.tranche.core.returns;

import dev.tranche.core.geometry.Course;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Span;
import dev.tranche.core.plan.LayerColours;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.plan.Tint;
import dev.tranche.core.sequence.Pass;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.MultiPolygon;

/** What of a model has been printed so far, colour by colour of each layer, and what of it is seen from above. */
final class Standing {
    /** What is left uncovered of a line that is shorter is rounding, mm. */
    private static final double NOTHING = 0.02;

    private final List<LayerColours> layers;
    private final MultiPolygon footprint;
    private final List<Set<SpoolId>> printed = new ArrayList<>();
    private int highest;

    /**
     * @param layers of the whole model, or of what of it stands by itself
     * @param footprint of that, where the model is
     */
    Standing(List<LayerColours> layers, MultiPolygon footprint) {
        this.layers = layers;
        this.footprint = footprint;
        layers.forEach(l -> printed.add(null));
    }

    void print(Pass pass) {
        int at = pass.layer() - 1;
        if (printed.get(at) == null) {
            printed.set(at, new HashSet<>(2));
        }
        printed.get(at).add(pass.spool());
        highest = Math.max(highest, pass.layer());
    }

    /** Plastic of one colour along a line. */
    record Seen(SpoolId spool, Span span) {}

    /**
     * The plastic of other colours that a line leads over from its beginning to its first step, as it is seen from above; what the
     * next pass will cover is none of it.
     *
     * @param course where the model is
     * @param covers whether the next pass is printed here
     */
    List<Seen> otherThan(Pass next, Course course, boolean covers) {
        double nothing = NOTHING / course.length();
        List<Span> open = within(Section.spans(footprint, course));
        List<Seen> seen = new ArrayList<>();
        if (covers) {
            open = less(open, area(next.layer(), next.spool(), course));
        }
        LayerColours above = null;
        Set<SpoolId> printedAbove = null;
        for (int layer = highest; layer >= 1 && length(open) > nothing; layer--) {
            LayerColours colours = layers.get(layer - 1);
            Set<SpoolId> here = printed.get(layer - 1);
            if (here != null && !(colours == above && here.equals(printedAbove))) {
                for (Tint tint : colours.tints()) {
                    if (here.contains(tint.spool())) {
                        List<Span> spans = within(tint.spans(course));
                        if (!tint.spool().equals(next.spool())) {
                            common(open, spans).stream()
                                    .filter(s -> s.length() > nothing)
                                    .forEach(s -> seen.add(new Seen(tint.spool(), s)));
                        }
                        open = less(open, spans);
                    }
                }
            }
            above = colours;
            printedAbove = here;
        }
        seen.sort(Comparator.comparingDouble(s -> s.span().from()));
        return seen;
    }

    private List<Span> area(int layer, SpoolId spool, Course course) {
        return layers.get(layer - 1)
                .tint(spool)
                .map(t -> within(t.spans(course)))
                .orElse(List.of());
    }

    /** Between the beginning and the first step. */
    private static List<Span> within(List<Span> spans) {
        return common(spans, List.of(new Span(0, 1)));
    }

    private static double length(List<Span> spans) {
        return spans.stream().mapToDouble(Span::length).sum();
    }

    private static List<Span> common(List<Span> some, List<Span> others) {
        List<Span> common = new ArrayList<>();
        for (Span a : some) {
            for (Span b : others) {
                double from = Math.max(a.from(), b.from());
                double to = Math.min(a.to(), b.to());
                if (from < to) {
                    common.add(new Span(from, to));
                }
            }
        }
        return common;
    }

    private static List<Span> less(List<Span> spans, List<Span> others) {
        List<Span> left = spans;
        for (Span other : others) {
            List<Span> next = new ArrayList<>();
            for (Span span : left) {
                if (other.to() <= span.from() || other.from() >= span.to()) {
                    next.add(span);
                    continue;
                }
                if (other.from() > span.from()) {
                    next.add(new Span(span.from(), other.from()));
                }
                if (other.to() < span.to()) {
                    next.add(new Span(other.to(), span.to()));
                }
            }
            left = next;
        }
        return left;
    }
}
