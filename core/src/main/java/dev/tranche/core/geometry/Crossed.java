package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiPolygon;

/**
 * Areas that many lines are drawn through. A line crosses few edges of an outline, so these are kept in boxes of consecutive ones,
 * and only those of the boxes that it meets are looked at.
 */
public final class Crossed {
    private static final int EDGES_IN_A_BOX = 16;

    private static final double[] NONE = {};

    /** The rings of an area, and what they lie in. */
    private record Area(MultiPolygon of, Envelope box, Ring[] rings) {}

    /** A ring, its corners in their order, the first again at the end. */
    private record Ring(Envelope box, double[] x, double[] y, Envelope[] boxes) {}

    private final Envelope box = new Envelope();
    private final Area[] areas;

    /** @param areas that do not overlap one another */
    public Crossed(List<MultiPolygon> areas) {
        this.areas = areas.stream().map(Crossed::prepared).toArray(Area[]::new);
        for (Area area : this.areas) {
            box.expandToInclude(area.box());
        }
    }

    /**
     * Kept with the area: most outlive many edits of a plan, each of which draws new lines through them. A copy, which JTS gives
     * what the original has before it moves it, has none of its own yet.
     */
    private static Area prepared(MultiPolygon area) {
        if (area.getUserData() instanceof Area known && known.of == area) {
            return known;
        }
        Area made = of(area);
        area.setUserData(made);
        return made;
    }

    private static Area of(MultiPolygon area) {
        return new Area(
                area,
                area.getEnvelopeInternal(),
                Areas.polygons(area)
                        .flatMap(Areas::rings)
                        .map(Crossed::prepared)
                        .toArray(Ring[]::new));
    }

    private static Ring prepared(LineString ring) {
        Coordinate[] corners = ring.getCoordinates();
        double[] x = new double[corners.length];
        double[] y = new double[corners.length];
        Envelope[] boxes = new Envelope[(corners.length + EDGES_IN_A_BOX - 2) / EDGES_IN_A_BOX];
        for (int i = 0; i < corners.length; i++) {
            x[i] = corners[i].x;
            y[i] = corners[i].y;
        }
        for (int b = 0; b < boxes.length; b++) {
            boxes[b] = new Envelope();
            for (int i = b * EDGES_IN_A_BOX; i <= Math.min((b + 1) * EDGES_IN_A_BOX, corners.length - 1); i++) {
                boxes[b].expandToInclude(corners[i]);
            }
        }
        return new Ring(ring.getEnvelopeInternal(), x, y, boxes);
    }

    /** Where the line of stretches runs through any of them, as far as that matters to these: ascending, and none touches another. */
    List<Span> along(Stretches stretches) {
        if (!stretches.meet(box)) {
            return List.of();
        }
        List<Span> spans = new ArrayList<>(2);
        for (Area area : areas) {
            if (stretches.meet(area.box())) {
                through(area, stretches, spans);
            }
        }
        return Span.joined(spans);
    }

    /** The place in any of them that is nearest to {@code to}: that itself where it lies within one; nowhere if all are empty. */
    public Optional<Coordinate> nearest(Coordinate to) {
        Nearest nearest = new Nearest(to);
        for (Area area : areas) {
            nearest.look(area);
        }
        return Optional.ofNullable(nearest.place);
    }

    /** The nearest place of those that were looked at. */
    private static final class Nearest {
        private final Coordinate to;
        private final Envelope point;
        private double squared = Double.POSITIVE_INFINITY;
        private Coordinate place;

        Nearest(Coordinate to) {
            this.to = to;
            this.point = new Envelope(to);
        }

        void look(Area area) {
            boolean inside = false;
            for (Ring ring : area.rings()) {
                for (int b = 0; b < ring.boxes().length; b++) {
                    Envelope box = ring.boxes()[b];
                    boolean beside = box.getMinY() <= to.y && to.y <= box.getMaxY() && box.getMaxX() >= to.x;
                    double apart = point.distance(box);
                    if (beside || apart * apart < squared) {
                        int last = Math.min((b + 1) * EDGES_IN_A_BOX, ring.x().length - 1);
                        for (int i = b * EDGES_IN_A_BOX + 1; i <= last; i++) {
                            inside ^= look(ring.x()[i - 1], ring.y()[i - 1], ring.x()[i], ring.y()[i]);
                        }
                    }
                }
            }
            if (inside) {
                squared = 0;
                place = to;
            }
        }

        /** Whether a ray from the place to the right crosses this edge. */
        private boolean look(double x0, double y0, double x1, double y1) {
            double dx = x1 - x0;
            double dy = y1 - y0;
            double whole = dx * dx + dy * dy;
            double steps = whole == 0 ? 0 : ((to.x - x0) * dx + (to.y - y0) * dy) / whole;
            double within = Math.max(0, Math.min(1, steps));
            double x = x0 + within * dx;
            double y = y0 + within * dy;
            double apart = (x - to.x) * (x - to.x) + (y - to.y) * (y - to.y);
            if (apart < squared) {
                squared = apart;
                place = new Coordinate(x, y);
            }
            return y0 > to.y != y1 > to.y && to.x < x0 + dx * ((to.y - y0) / dy);
        }
    }

    /** A stretch is outside a ring whose box its own box misses; what that ring does to the line elsewhere is of no account. */
    private static void through(Area area, Stretches stretches, List<Span> spans) {
        Course course = stretches.course();
        double[] crossings = NONE;
        int n = 0;
        for (Ring ring : area.rings()) {
            if (course.misses(ring.box()) || !stretches.meet(ring.box())) {
                continue;
            }
            for (int b = 0; b < ring.boxes().length; b++) {
                if (course.misses(ring.boxes()[b])) {
                    continue;
                }
                int last = Math.min((b + 1) * EDGES_IN_A_BOX, ring.x().length - 1);
                double here = course.side(ring.x()[b * EDGES_IN_A_BOX], ring.y()[b * EDGES_IN_A_BOX]);
                for (int i = b * EDGES_IN_A_BOX + 1; i <= last; i++) {
                    double there = course.side(ring.x()[i], ring.y()[i]);
                    if (here > 0 != there > 0) {
                        if (n == crossings.length) {
                            crossings = Arrays.copyOf(crossings, 2 * n + 4);
                        }
                        double start = course.steps(ring.x()[i - 1], ring.y()[i - 1]);
                        double end = course.steps(ring.x()[i], ring.y()[i]);
                        crossings[n++] = start + (end - start) * (here / (here - there));
                    }
                    here = there;
                }
            }
        }
        Arrays.sort(crossings, 0, n);
        for (int i = 0; i + 1 < n; i += 2) {
            spans.add(new Span(crossings[i], crossings[i + 1]));
        }
    }
}
