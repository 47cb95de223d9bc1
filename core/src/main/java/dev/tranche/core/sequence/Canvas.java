package dev.tranche.core.sequence;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * What of a section each tool prints, in squares: lines are laid on it, and what lies between them belongs to the nearest. Not for
 * two threads.
 */
final class Canvas {
    /** Side of a square, mm; larger only where there would be too many. */
    private static final double SIDE = 0.15;

    private static final int MOST = 1_500_000;
    /** Squares round the model. */
    private static final int MARGIN = 5;

    /** Of what a tool prints, so much may lie elsewhere on the next layer for it to be the same. */
    private static final double ROUNDING = 0.02;

    private static final byte NOTHING = -1;

    private final double side;
    private final double west;
    private final double south;
    private final int columns;
    private final int rows;
    private final boolean[] inside;
    private final byte[] labels;

    /**
     * @param reach of the model, in whose axes lines are laid, mm
     * @param section of the layer
     */
    Canvas(Envelope reach, MultiPolygon section) {
        side = Math.max(SIDE, Math.sqrt(reach.getArea() / MOST));
        west = reach.getMinX() - MARGIN * side;
        south = reach.getMinY() - MARGIN * side;
        columns = 2 * MARGIN + (int) Math.ceil(reach.getWidth() / side);
        rows = 2 * MARGIN + (int) Math.ceil(reach.getHeight() / side);
        inside = new boolean[columns * rows];
        labels = new byte[columns * rows];
        Arrays.fill(labels, NOTHING);
        fill(section);
    }

    /** Between each two crossings of a row's middle line. */
    private void fill(MultiPolygon section) {
        Map<Integer, List<Double>> crossings = new HashMap<>();
        for (int i = 0; i < section.getNumGeometries(); i++) {
            Polygon piece = (Polygon) section.getGeometryN(i);
            cross(piece.getExteriorRing().getCoordinates(), crossings);
            for (int h = 0; h < piece.getNumInteriorRing(); h++) {
                cross(piece.getInteriorRingN(h).getCoordinates(), crossings);
            }
        }
        crossings.forEach((row, all) -> {
            all.sort(null);
            for (int i = 0; i + 1 < all.size(); i += 2) {
                int to = column(all.get(i + 1) - side / 2);
                for (int c = column(all.get(i) + side / 2); c <= to; c++) {
                    inside[row * columns + c] = true;
                }
            }
        });
    }

    private void cross(Coordinate[] ring, Map<Integer, List<Double>> crossings) {
        for (int i = 1; i < ring.length; i++) {
            Coordinate low = ring[i - 1].y < ring[i].y ? ring[i - 1] : ring[i];
            Coordinate high = ring[i - 1].y < ring[i].y ? ring[i] : ring[i - 1];
            for (int row = (int) Math.ceil((low.y - south) / side - 0.5); middle(row) < high.y; row++) {
                double share = (middle(row) - low.y) / (high.y - low.y);
                crossings.computeIfAbsent(row, r -> new ArrayList<>()).add(low.x + share * (high.x - low.x));
            }
        }
    }

    private double middle(int row) {
        return south + (row + 0.5) * side;
    }

    private int column(double x) {
        return (int) Math.floor((x - west) / side);
    }

    private int row(double y) {
        return (int) Math.floor((y - south) / side);
    }

    /**
     * Lays a line of plastic, mm wide. It ends where it does, so that colours meet at the same place whichever is laid first.
     */
    void lay(int tool, double x0, double y0, double x1, double y1, double width) {
        double reach = width / 2;
        double dx = x1 - x0;
        double dy = y1 - y0;
        int top = Math.min(rows - 1, row(Math.max(y0, y1) + reach));
        for (int r = Math.max(0, row(Math.min(y0, y1) - reach)); r <= top; r++) {
            double y = middle(r) - y0;
            // Where the line is so near to the middle of the row that it may reach it.
            double one = dy == 0 ? 0 : within((y - reach) / dy);
            double other = dy == 0 ? 1 : within((y + reach) / dy);
            double west = x0 + Math.min(one * dx, other * dx) - reach;
            double east = x0 + Math.max(one * dx, other * dx) + reach;
            int right = Math.min(columns - 1, column(east));
            for (int c = Math.max(0, column(west)); c <= right; c++) {
                if (inside[r * columns + c] && isNear(this.west + (c + 0.5) * side - x0, y, dx, dy, reach)) {
                    labels[r * columns + c] = (byte) tool;
                }
            }
        }
    }

    private static double within(double share) {
        return Math.max(0, Math.min(1, share));
    }

    /** Whether a place is so near to a line from the origin, and beyond neither end by more than half a square. */
    private boolean isNear(double x, double y, double dx, double dy, double reach) {
        double length = Math.hypot(dx, dy);
        if (length == 0) {
            return Math.hypot(x, y) <= reach;
        }
        double along = (x * dx + y * dy) / length;
        double beside = (x * dy - y * dx) / length;
        return Math.abs(beside) <= reach && along >= -side / 2 && along <= length + side / 2;
    }

    /** All of it is one tool's. */
    void flood(int tool) {
        Arrays.fill(labels, (byte) tool);
    }

    /** What no line covers belongs to the nearest, first in the section and then beyond it. */
    void grow() {
        int[] queue = new int[labels.length];
        int to = 0;
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] != NOTHING) {
                queue[to++] = i;
            }
        }
        to = spread(queue, to, true);
        spread(queue, to, false);
    }

    /** @return how many squares are in the queue then */
    private int spread(int[] queue, int labelled, boolean within) {
        int to = labelled;
        for (int from = 0; from < to; from++) {
            int at = queue[from];
            int column = at % columns;
            to = reach(at, column > 0 ? at - 1 : at, within, queue, to);
            to = reach(at, column < columns - 1 ? at + 1 : at, within, queue, to);
            to = reach(at, at >= columns ? at - columns : at, within, queue, to);
            to = reach(at, at + columns < labels.length ? at + columns : at, within, queue, to);
        }
        return to;
    }

    private int reach(int from, int at, boolean within, int[] queue, int to) {
        if (labels[at] != NOTHING || within && !inside[at]) {
            return to;
        }
        labels[at] = labels[from];
        queue[to] = at;
        return to + 1;
    }

    boolean shows(int tool) {
        for (int i = 0; i < labels.length; i++) {
            if (inside[i] && labels[i] == tool) {
                return true;
            }
        }
        return false;
    }

    /** Whether what a tool prints on another is foretold by this, but for what rounding does to its rim: no line is missed. */
    boolean foretells(Canvas other, int tool) {
        int its = 0;
        int apart = 0;
        for (int i = 0; i < labels.length; i++) {
            if (other.inside[i] && other.labels[i] == tool) {
                its++;
            }
            if (isApart(other, tool, i)) {
                apart++;
                int column = i % columns;
                if (column > 0
                        && column < columns - 1
                        && isApart(other, tool, i - 1)
                        && isApart(other, tool, i + 1)
                        && i >= columns
                        && i + columns < labels.length
                        && isApart(other, tool, i - columns)
                        && isApart(other, tool, i + columns)) {
                    return false;
                }
            }
        }
        return apart <= its * ROUNDING;
    }

    private boolean isApart(Canvas other, int tool, int at) {
        return other.inside[at] && (other.labels[at] == tool) != (labels[at] == tool);
    }

    /** What a tool prints, as it was laid, to the side of a square. */
    MultiPolygon of(int tool) {
        GeometryFactory plane = new GeometryFactory();
        List<Geometry> strips = new ArrayList<>();
        for (int r = 0; r < rows; r++) {
            for (int c = 0; c < columns; c++) {
                int begin = c;
                while (c < columns && labels[r * columns + c] == tool) {
                    c++;
                }
                if (c > begin) {
                    strips.add(plane.toGeometry(new Envelope(
                            west + begin * side, west + c * side, south + r * side, south + (r + 1) * side)));
                }
            }
        }
        Geometry whole = UnaryUnionOp.union(strips, plane);
        return Areas.of(TopologyPreservingSimplifier.simplify(whole, side));
    }
}
