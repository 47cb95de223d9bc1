package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineSegment;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * The model cut level at one height.
 *
 * @param outline valid polygons with holes, mm; empty where the plane misses the model
 * @param closings straight lines by which the outline was closed where the mesh was open; none if watertight
 * @param area solid area, mm²
 * @param perimeter length of all outlines, holes included, mm
 */
public record Section(MultiPolygon outline, List<LineSegment> closings, double area, double perimeter) {
    static final GeometryFactory PLANE = new GeometryFactory();

    /** A section in which nothing is solid. */
    public static final Section EMPTY = new Section(PLANE.createMultiPolygon(), List.of(), 0, 0);

    /** A section of a given outline, measured once and for all; {@link #EMPTY} where there is nothing. */
    public static Section of(MultiPolygon outline, List<LineSegment> closings) {
        return outline.isEmpty() && closings.isEmpty()
                ? EMPTY
                : new Section(outline, List.copyOf(closings), Areas.size(outline), Areas.perimeter(outline));
    }

    /** In how many places the mesh was open here. */
    public int openEnds() {
        return closings.size();
    }

    /**
     * Sections of several solids taken together, layer by layer; those of layers that are the very same are too.
     *
     * @param solids for each the same number of sections
     * @param progress learns that the work goes on, and may stop it
     */
    public static List<Section> unions(List<List<Section>> solids, int count, Progress progress) {
        Section[] unions = new Section[count];
        IntStream.range(0, count)
                .parallel()
                .filter(layer -> !isAsBeneath(solids, layer))
                .forEach(layer -> {
                    progress.beat();
                    unions[layer] = union(solids.stream().map(s -> s.get(layer)).toList());
                });
        for (int layer = 0; layer < count; layer++) {
            if (unions[layer] == null) {
                unions[layer] = unions[layer - 1];
            }
        }
        return List.of(unions);
    }

    private static boolean isAsBeneath(List<List<Section>> solids, int layer) {
        return layer > 0 && solids.stream().allMatch(s -> s.get(layer) == s.get(layer - 1));
    }

    private static Section union(List<Section> sections) {
        List<Section> some = sections.stream().filter(s -> !s.outline.isEmpty()).toList();
        if (some.size() < 2) {
            return some.isEmpty() ? EMPTY : some.get(0);
        }
        List<LineSegment> closings =
                some.stream().flatMap(s -> s.closings.stream()).toList();
        return of(Areas.union(some.stream().map(Section::outline).toList()), closings);
    }

    /**
     * Where a line parallel to the X axis runs through plastic.
     *
     * @param y mm; a line through a corner is taken as just above it
     * @return ascending, disjoint stretches of X, mm
     */
    public List<Span> spansAt(double y) {
        return spans(outline, y);
    }

    /**
     * As {@link #spansAt(double)}, for many lines at once: each edge is only laid beside the lines that it may cross.
     *
     * @param levels ascending Y, mm
     */
    public List<List<Span>> spansAt(double[] levels) {
        List<List<Double>> crossings = Arrays.stream(levels)
                .<List<Double>>mapToObj(y -> new ArrayList<>())
                .toList();
        Areas.polygons(outline).flatMap(Areas::rings).forEach(ring -> cross(ring.getCoordinates(), levels, crossings));
        return crossings.stream().map(Section::spans).toList();
    }

    private static void cross(Coordinate[] ring, double[] levels, List<List<Double>> crossings) {
        for (int i = 1; i < ring.length; i++) {
            Coordinate a = ring[i - 1];
            Coordinate b = ring[i];
            int found = Arrays.binarySearch(levels, Math.min(a.y, b.y));
            double end = Math.max(a.y, b.y);
            for (int k = found < 0 ? -found - 1 : found; k < levels.length && levels[k] <= end; k++) {
                double here = a.y - levels[k];
                double there = b.y - levels[k];
                if (here > 0 != there > 0) {
                    crossings.get(k).add(a.x + (b.x - a.x) * (here / (here - there)));
                }
            }
        }
    }

    private static List<Span> spans(List<Double> crossings) {
        Collections.sort(crossings);
        return IntStream.range(0, crossings.size() / 2)
                .mapToObj(i -> new Span(crossings.get(2 * i), crossings.get(2 * i + 1)))
                .toList();
    }

    /** As {@link #spansAt(double)}, of any area. */
    public static List<Span> spans(MultiPolygon outline, double y) {
        return spans(outline, Course.level(y));
    }

    /**
     * Where a line runs through an area.
     *
     * @return ascending, disjoint stretches of it, in its steps; a line through a corner is taken as just to the left of it
     */
    public static List<Span> spans(MultiPolygon outline, Course course) {
        double[] crossings = new double[16];
        int n = 0;
        for (int p = 0; p < outline.getNumGeometries(); p++) {
            Polygon polygon = (Polygon) outline.getGeometryN(p);
            if (course.misses(polygon.getEnvelopeInternal())) {
                continue;
            }
            for (int r = -1; r < polygon.getNumInteriorRing(); r++) {
                LineString ring = r < 0 ? polygon.getExteriorRing() : polygon.getInteriorRingN(r);
                Coordinate[] points = ring.getCoordinates();
                for (int i = 1; i < points.length; i++) {
                    Coordinate a = points[i - 1];
                    Coordinate b = points[i];
                    double here = course.side(a);
                    double there = course.side(b);
                    if (here > 0 != there > 0) {
                        if (n == crossings.length) {
                            crossings = Arrays.copyOf(crossings, 2 * n);
                        }
                        double from = course.steps(a);
                        crossings[n++] = from + (course.steps(b) - from) * (here / (here - there));
                    }
                }
            }
        }
        Arrays.sort(crossings, 0, n);
        List<Span> spans = new ArrayList<>(n / 2);
        for (int i = 0; i + 1 < n; i += 2) {
            spans.add(new Span(crossings[i], crossings[i + 1]));
        }
        return spans;
    }

    /** {@code geometry}'s polygons, whatever it is made of. */
    static MultiPolygon polygonsOf(Geometry geometry) {
        List<Polygon> polygons = new ArrayList<>();
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            if (geometry.getGeometryN(i) instanceof Polygon polygon && !polygon.isEmpty()) {
                polygons.add(polygon);
            }
        }
        return PLANE.createMultiPolygon(polygons.toArray(Polygon[]::new));
    }
}
