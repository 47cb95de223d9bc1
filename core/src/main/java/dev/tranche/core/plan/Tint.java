package dev.tranche.core.plan;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Slivers;
import dev.tranche.core.geometry.Span;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * One colour of a layer.
 *
 * @param cells areas that do not overlap, mm; together they are where it is
 * @param squareMillimetres its size
 * @param lost pieces of over 0.05 mm² into which no line of plastic fits
 * @param prints whether a line of plastic fits into it anywhere, and it is over 0.05 mm²
 */
public record Tint(SpoolId spool, List<MultiPolygon> cells, double squareMillimetres, int lost, boolean prints) {
    /** A smaller area does not print, mm². */
    private static final double SPECK = 0.05;

    static Tint of(List<MultiPolygon> given, double lineWidth) {
        List<MultiPolygon> cells = given.stream().filter(c -> !c.isEmpty()).toList();
        double size = cells.stream().mapToDouble(Areas::size).sum();
        Slivers slivers = Slivers.of(cells, lineWidth, SPECK);
        return new Tint(null, cells, size, slivers.count(), size > SPECK && !slivers.areAll());
    }

    /** Of all its outlines. */
    public int corners() {
        return cells.stream().mapToInt(MultiPolygon::getNumPoints).sum();
    }

    Tint in(SpoolId other) {
        return new Tint(other, cells, squareMillimetres, lost, prints);
    }

    public boolean isEmpty() {
        return cells.isEmpty();
    }

    /** Its cells taken together: its pieces are polygons that do not touch. Worked out at every call. */
    public MultiPolygon area() {
        return Areas.union(cells);
    }

    /** Whether the box round any of its cells reaches {@code y}. */
    boolean reaches(double y) {
        return cells.stream().anyMatch(c -> reaches(c, y));
    }

    private static boolean reaches(MultiPolygon cell, double y) {
        Envelope box = cell.getEnvelopeInternal();
        return y >= box.getMinY() && y <= box.getMaxY();
    }

    /** Where a line parallel to the X axis runs through it: ascending stretches of X that do not touch, mm. */
    public List<Span> spansAt(double y) {
        List<Span> spans = new ArrayList<>();
        for (MultiPolygon cell : cells) {
            if (reaches(cell, y)) {
                spans.addAll(Section.spans(cell, y));
            }
        }
        return Span.joined(spans);
    }
}
