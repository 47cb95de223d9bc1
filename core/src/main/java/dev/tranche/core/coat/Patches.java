package dev.tranche.core.coat;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Thin;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Range;
import dev.tranche.core.plan.Region;
import dev.tranche.core.plan.Shape;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.construct.MaximumInscribedCircle;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/** Places of colours on one layer after the other, from below; what does not change is one patch. Each label is for one thread. */
public final class Patches {
    /** So many of one colour are zones, to be looked through and moved one by one. */
    private static final int MOST_ZONES = 3;
    /** What is smaller is left by rounding to squares, mm². */
    private static final double SPECK = 0.05;
    /** To this, discs are told, mm. */
    private static final double ROUND = 0.01;

    private final double lineWidth;
    private final int base;
    private final AtomicInteger count = new AtomicInteger();
    /** Of each colour, from below. */
    private final Map<Integer, List<Run>> runs = new ConcurrentHashMap<>();

    /**
     * One colour on layers one above the other.
     *
     * @param label of the colour
     * @param area in the model's axes, mm
     * @param first layer, from 1, and {@code last}
     */
    public record Patch(int label, MultiPolygon area, int first, int last) {
        /** The same of another. */
        public Patch of(int other) {
            return new Patch(other, area, first, last);
        }
    }

    /**
     * @param lineWidth mm
     * @param base the label of what lies beneath all others; of those the higher ones are laid over the lower
     */
    public Patches(double lineWidth, int base) {
        this.lineWidth = lineWidth;
        this.base = base;
    }

    /**
     * The next layer of a label that it shows.
     *
     * @param canvas of it, grown
     * @param section of it, in which no place is smaller than a line
     * @throws Refusal if the colours have changed too often, or change in too many places
     */
    public void add(int label, int layer, Canvas canvas, MultiPolygon section) {
        List<Run> its = runs.computeIfAbsent(label, l -> new ArrayList<>());
        Run run = its.isEmpty() ? null : its.get(its.size() - 1);
        if (run != null && run.last == layer - 1 && run.expanse.foretells(canvas, label)) {
            run.last = layer;
        } else {
            begin(label, layer, canvas, section).ifPresent(begun -> {
                if (run != null) {
                    run.expanse = null;
                }
                its.add(begun);
            });
        }
    }

    private Optional<Run> begin(int label, int layer, Canvas canvas, MultiPolygon section) {
        if (count.get() >= Shape.Trace.MOST) {
            throw Refusal.of(
                    "By layer %d the colours have changed their outlines %d times, and a plan holds no more; give each colour a part of its own in the model.",
                    layer, Shape.Trace.MOST);
        }
        Expanse.Place place = canvas.everywhere()
                .of(label, other -> other > label && other != base)
                .filter(p -> p.laid().getNumPoints() <= Silhouette.MOST_POINTS)
                .orElseThrow(() -> Refusal.of(
                        "On layer %d the colours change in too many places to be drawn; paint the model in larger areas, or scale it up.",
                        layer));
        if (place.seen().getArea() <= SPECK) {
            return Optional.empty();
        }
        MultiPolygon area = wide(place, section);
        count.incrementAndGet();
        return Optional.of(new Run(label, canvas.everywhere(), area, layer));
    }

    /** An area with room for a line where what is seen of it is narrower. */
    private MultiPolygon wide(Expanse.Place place, MultiPolygon section) {
        List<MultiPolygon> dabs = Areas.polygons(Areas.intersection(place.seen(), section))
                .filter(p -> p.getArea() > SPECK && !Thin.holdsLine(p, lineWidth))
                .map(p -> Areas.of(p.buffer(lineWidth - 2 * radius(p) + ROUND)))
                .toList();
        return dabs.isEmpty()
                ? place.laid()
                : Areas.union(
                        Stream.concat(Stream.of(place.laid()), dabs.stream()).toList());
    }

    /** Of the largest disc that fits into {@code piece}, mm. */
    private static double radius(Polygon piece) {
        return MaximumInscribedCircle.getRadiusLine(piece, ROUND).getLength();
    }

    /** From below. */
    public List<Patch> all() {
        return runs.values().stream()
                .flatMap(List::stream)
                .map(Run::patch)
                .sorted(Comparator.comparingInt(Patch::first).thenComparingInt(Patch::label))
                .toList();
    }

    /**
     * All of one colour: zones that can be moved, or, where there are over {@value #MOST_ZONES}, one trace.
     *
     * @param patches from below, no two on one layer
     * @param origin what the outlines are called
     */
    public static List<Region> regions(List<Patch> patches, String name, String origin, SpoolId spool, LayerGrid grid) {
        if (patches.size() > MOST_ZONES) {
            return List.of(traced(patches, name, origin, spool, grid));
        }
        return patches.stream()
                .map(p -> new Region(
                        name(name, p),
                        Shape.Zone.over(p.area(), origin),
                        spool,
                        Range.ofLayers(grid, p.first(), p.last())))
                .toList();
    }

    private static Region traced(List<Patch> patches, String name, String origin, SpoolId spool, LayerGrid grid) {
        List<Shape.Trace.Course> courses = new ArrayList<>();
        int first = patches.get(0).first();
        int last = first - 1;
        for (Patch patch : patches) {
            if (patch.first() > last + 1) {
                courses.add(new Shape.Trace.Course(grid.top(last), Optional.empty()));
            }
            courses.add(new Shape.Trace.Course(
                    grid.bottom(patch.first()), Optional.of(Shape.Zone.over(patch.area(), origin))));
            last = patch.last();
        }
        return new Region(name, new Shape.Trace(courses), spool, Range.ofLayers(grid, first, last));
    }

    private static String name(String name, Patch patch) {
        String where = ", " + Words.layers(patch.first(), patch.last());
        return name.substring(0, Math.min(name.length(), Region.LONGEST_NAME - where.length())) + where;
    }

    /** Layers on which a colour is the same; what the first of them looks like is asked of each next one. */
    private static final class Run {
        private final int label;
        /** Only while it may go on. */
        private Expanse expanse;

        private final MultiPolygon area;
        private final int first;
        private int last;

        Run(int label, Expanse expanse, MultiPolygon area, int first) {
            this.label = label;
            this.expanse = expanse;
            this.area = area;
            this.first = first;
            this.last = first;
        }

        Patch patch() {
            return new Patch(label, area, first, last);
        }
    }
}
