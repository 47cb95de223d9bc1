package dev.tranche.core.coat;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.overlayng.CoverageUnion;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * What of a section has which colour, in squares: lines are laid on it, or places claimed from walls and faces, and what lies
 * between belongs to the nearest. Not for two threads.
 */
public final class Canvas {
    /** So many squares an outline goes on beneath another: both are rounded by one, and stay so for layers that differ by one. */
    private static final int OVERLAP = 3;
    /** Of rows of squares of a label on a layer; and how many looks rounding what they make may take. */
    private static final int MOST_ENDS = 400_000;

    private static final long MOST_LOOKS = 100_000_000;

    /** Side of a square, mm; larger only where there would be too many. */
    private static final double SIDE = 0.15;

    private static final int MOST = 1_500_000;
    /** Squares round the model. */
    private static final int MARGIN = 5;

    /** Of what a tool prints, so much may lie elsewhere on the next layer for it to be the same. */
    private static final double ROUNDING = 0.02;

    private static final byte NOTHING = -1;
    private static final int WAYS = 4;
    private static final float SKIN = 0.001f;
    /** Of the outermost line of a wall, or no more than a layer from a face. */
    private static final float SEEN = 2 * SKIN;

    private static final float[] NO_CLAIMS = {};
    private static final int[] NONE = {};

    private final double side;
    private final double west;
    private final double south;
    private final int columns;
    private final int rows;
    private final boolean[] inside;
    /** The section and what is hardly beyond it, once it has grown. */
    private boolean[] near;
    /** Where claims count. */
    private boolean[] mask;
    /** How near what claimed a square is: within the outermost line of a wall up to {@link #SKIN}, else by that more than it is away, mm. */
    private float[] nearness = NO_CLAIMS;

    /** Of the walls that were claimed within a square, a bit for each label. */
    private int[] walls = NONE;

    private final byte[] labels;

    /**
     * @param reach of the model, in whose axes lines are laid, mm
     * @param section of the layer
     */
    public Canvas(Envelope reach, MultiPolygon section) {
        side = Math.max(SIDE, Math.sqrt(reach.getArea() / MOST));
        west = reach.getMinX() - MARGIN * side;
        south = reach.getMinY() - MARGIN * side;
        columns = 2 * MARGIN + (int) Math.ceil(reach.getWidth() / side);
        rows = 2 * MARGIN + (int) Math.ceil(reach.getHeight() / side);
        labels = new byte[columns * rows];
        Arrays.fill(labels, NOTHING);
        inside = filled(section);
        mask = inside;
        near = inside;
    }

    /** Between each two crossings of a row's middle line. */
    private boolean[] filled(MultiPolygon section) {
        boolean[] filled = new boolean[columns * rows];
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
                    filled[row * columns + c] = true;
                }
            }
        });
        return filled;
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
    public void lay(int tool, double x0, double y0, double x1, double y1, double width) {
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

    /** From here on claims count within a part of the section. */
    void within(MultiPolygon part) {
        mask = filled(part);
        walls = NONE;
    }

    /**
     * Claims what lies beside a wall, where nothing nearer does: its outermost line before all but other walls. Of walls that lie
     * within a square one of each label is enough.
     */
    void claim(int label, double x0, double y0, double x1, double y1, double line, double deep) {
        if (isPassed(label, x0, y0, x1, y1)) {
            return;
        }
        double dx = x1 - x0;
        double dy = y1 - y0;
        double square = dx * dx + dy * dy;
        int top = Math.min(rows - 1, row(Math.max(y0, y1) + deep));
        int right = Math.min(columns - 1, column(Math.max(x0, x1) + deep));
        int left = Math.max(0, column(Math.min(x0, x1) - deep));
        for (int r = Math.max(0, row(Math.min(y0, y1) - deep)); r <= top; r++) {
            double y = middle(r) - y0;
            for (int c = left; c <= right; c++) {
                if (!mask[r * columns + c]) {
                    continue;
                }
                double x = west + (c + 0.5) * side - x0;
                double along = square == 0 ? 0 : within((x * dx + y * dy) / square);
                double offX = x - along * dx;
                double offY = y - along * dy;
                double off = offX * offX + offY * offY;
                if (off < deep * deep) {
                    claim(r * columns + c, label, near(Math.sqrt(off), line));
                }
            }
        }
    }

    /** Whether a wall so short was claimed for that label here before. */
    private boolean isPassed(int label, double x0, double y0, double x1, double y1) {
        int column = column(x0);
        int row = row(y0);
        if (column != column(x1) || row != row(y1) || column < 0 || row < 0 || column >= columns || row >= rows) {
            return false;
        }
        walls = walls.length == 0 ? new int[labels.length] : walls;
        int at = row * columns + column;
        boolean passed = (walls[at] >> label & 1) == 1;
        walls[at] |= 1 << label;
        return passed;
    }

    /** All within {@code own} is nearer than the least that is beyond it. */
    private static double near(double away, double own) {
        return away <= own ? SKIN * away / own : SKIN + away - own;
    }

    /**
     * Claims what lies so deep behind a face, where nothing nearer does.
     *
     * @param x of its corners, mm, as {@code y}
     * @param away how far each corner lies beyond the layer's middle, upwards or downwards as the face does, mm
     * @param layer how thick one is, mm: a place so near is seen
     */
    void claim(int label, double[] x, double[] y, double[] away, double layer, double deep) {
        int top = Math.min(rows - 1, row(Math.max(y[0], Math.max(y[1], y[2]))));
        for (int r = Math.max(0, row(Math.min(y[0], Math.min(y[1], y[2])))); r <= top; r++) {
            double at = middle(r);
            double from = Double.NaN;
            double fromAway = 0;
            double to = 0;
            double toAway = 0;
            for (int i = 0; i < 3; i++) {
                int j = (i + 1) % 3;
                if (y[i] <= at != y[j] <= at) {
                    double share = (at - y[i]) / (y[j] - y[i]);
                    boolean first = Double.isNaN(from);
                    from = first ? x[i] + share * (x[j] - x[i]) : from;
                    fromAway = first ? away[i] + share * (away[j] - away[i]) : fromAway;
                    to = x[i] + share * (x[j] - x[i]);
                    toAway = away[i] + share * (away[j] - away[i]);
                }
            }
            if (!Double.isNaN(from)) {
                span(label, r, from, fromAway, to, toAway, layer, deep);
            }
        }
    }

    /** Of a row, where a face lies from 0 to {@code deep} away. */
    private void span(int label, int row, double x0, double away0, double x1, double away1, double layer, double deep) {
        double west = Math.min(x0, x1);
        double slope = x0 == x1 ? 0 : (away1 - away0) / (x1 - x0);
        double none = x0 - away0 / slope;
        double all = x0 + (deep - away0) / slope;
        double low = slope == 0 ? west : Math.max(west, Math.min(none, all));
        double high = slope == 0 ? Math.max(x0, x1) : Math.min(Math.max(x0, x1), Math.max(none, all));
        int to = Math.min(columns - 1, column(high - side / 2));
        for (int c = Math.max(0, column(low + side / 2)); c <= to; c++) {
            double away = away0 + slope * (this.west + (c + 0.5) * side - x0);
            if (away >= 0 && away < deep) {
                claim(row * columns + c, label, SKIN + near(away, layer));
            }
        }
    }

    private void claim(int at, int label, double near) {
        nearness = nearness.length == 0 ? new float[labels.length] : nearness;
        if (inside[at] && mask[at] && (labels[at] == NOTHING || near < nearness[at])) {
            labels[at] = (byte) label;
            nearness[at] = (float) near;
        }
    }

    /** What of a part of the section nothing claimed is {@code label}'s. */
    void rest(int label) {
        nearness = nearness.length == 0 ? new float[labels.length] : nearness;
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] == NOTHING && mask[i]) {
                labels[i] = (byte) label;
                nearness[i] = Float.MAX_VALUE;
            }
        }
    }

    /**
     * Takes from all labels what is not seen and narrower than a line, mm, and from {@code bare} all islands into which no line fits;
     * {@link #grow} gives it to what lies beside it.
     */
    void narrow(double line, int bare) {
        boolean[] wide = blocks((int) Math.ceil(line / side - 1e-9));
        for (int i = 0; i < labels.length; i++) {
            if (!wide[i] && inside[i] && nearness[i] > SEEN) {
                labels[i] = NOTHING;
            }
        }
        drown(bare, wide);
    }

    /** Squares of the section in a block of {@code least} by {@code least} of one label. */
    private boolean[] blocks(int least) {
        boolean[] blocks = new boolean[labels.length];
        int[] rowsAlike = new int[columns];
        for (int r = 0; r < rows; r++) {
            int alike = 0;
            for (int c = columns - 1; c >= 0; c--) {
                int at = r * columns + c;
                boolean some = inside[at] && labels[at] != NOTHING;
                alike = !some ? 0 : c < columns - 1 && labels[at] == labels[at + 1] ? alike + 1 : 1;
                boolean goesOn = r > 0 && labels[at] == labels[at - columns];
                rowsAlike[c] = alike < least ? 0 : goesOn ? rowsAlike[c] + 1 : 1;
                blocks[at] = rowsAlike[c] >= least;
            }
        }
        return stretched(stretched(blocks, 1, least), -columns, least);
    }

    /** Each square and as many as make {@code least} with it, a step apart. */
    private static boolean[] stretched(boolean[] squares, int step, int least) {
        boolean[] stretched = new boolean[squares.length];
        for (int i = 0; i < squares.length; i++) {
            if (squares[i]) {
                for (int n = 0, at = i; n < least; n++, at += step) {
                    stretched[at] = true;
                }
            }
        }
        return stretched;
    }

    /** What hangs together of a label, and nowhere with what is wide, is nobody's. */
    private void drown(int label, boolean[] wide) {
        boolean[] passed = new boolean[labels.length];
        int[] island = new int[labels.length];
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] != label || wide[i] || passed[i]) {
                continue;
            }
            int size = 1;
            island[0] = i;
            passed[i] = true;
            boolean held = false;
            for (int n = 0; n < size; n++) {
                for (int way = 0; way < WAYS; way++) {
                    int beside = beside(island[n], way);
                    if (labels[beside] == label && !passed[beside]) {
                        held |= wide[beside];
                        passed[beside] = !wide[beside];
                        island[size] = beside;
                        size += wide[beside] ? 0 : 1;
                    }
                }
            }
            for (int n = 0; n < size && !held; n++) {
                labels[island[n]] = NOTHING;
            }
        }
    }

    /** The square beside one, or itself where there is none. */
    private int beside(int at, int way) {
        int column = at % columns;
        return switch (way) {
            case 0 -> column > 0 ? at - 1 : at;
            case 1 -> column < columns - 1 ? at + 1 : at;
            case 2 -> at >= columns ? at - columns : at;
            default -> at + columns < labels.length ? at + columns : at;
        };
    }

    /** A part of the section is {@code label}'s, whatever claimed it. */
    void cover(int label) {
        for (int i = 0; i < labels.length; i++) {
            if (mask[i]) {
                labels[i] = (byte) label;
            }
        }
    }

    /** All of it is one tool's. */
    public void flood(int tool) {
        Arrays.fill(labels, (byte) tool);
    }

    /** What no line covers belongs to the nearest, first in the section and then beyond it. */
    public void grow() {
        int[] queue = new int[labels.length];
        int to = 0;
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] != NOTHING && isBesideNothing(i)) {
                queue[to++] = i;
            }
        }
        to = spread(queue, to, true);
        spread(queue, to, false);
        near = wider(wider(inside));
        nearness = NO_CLAIMS;
        walls = NONE;
        mask = inside;
    }

    /** Whether it has anything to give away. */
    private boolean isBesideNothing(int at) {
        return at > 0 && labels[at - 1] == NOTHING
                || at + 1 < labels.length && labels[at + 1] == NOTHING
                || at >= columns && labels[at - columns] == NOTHING
                || at + columns < labels.length && labels[at + columns] == NOTHING;
    }

    /** By a square. */
    private boolean[] wider(boolean[] area) {
        boolean[] wider = area.clone();
        for (int r = 0; r < rows; r++) {
            for (int at = r * columns, end = at + columns; at < end; at++) {
                if (area[at]) {
                    wider[at > r * columns ? at - 1 : at] = true;
                    wider[at + 1 < end ? at + 1 : at] = true;
                    wider[r > 0 ? at - columns : at] = true;
                    wider[r < rows - 1 ? at + columns : at] = true;
                }
            }
        }
        return wider;
    }

    /** @return how many squares are in the queue then */
    private int spread(int[] queue, int labelled, boolean within) {
        int to = labelled;
        for (int from = 0; from < to; from++) {
            int i = queue[from];
            int column = i % columns;
            byte label = labels[i];
            if (column > 0 && takes(i - 1, label, within)) {
                queue[to++] = i - 1;
            }
            if (column < columns - 1 && takes(i + 1, label, within)) {
                queue[to++] = i + 1;
            }
            if (i >= columns && takes(i - columns, label, within)) {
                queue[to++] = i - columns;
            }
            if (i + columns < labels.length && takes(i + columns, label, within)) {
                queue[to++] = i + columns;
            }
        }
        return to;
    }

    /** Gives a square a label if it has none, and within the section if that is asked. */
    private boolean takes(int at, byte label, boolean within) {
        if (labels[at] != NOTHING || within && !inside[at]) {
            return false;
        }
        labels[at] = label;
        return true;
    }

    public boolean shows(int tool) {
        for (int i = 0; i < labels.length; i++) {
            if (inside[i] && labels[i] == tool) {
                return true;
            }
        }
        return false;
    }

    /** Whether what a tool prints on another is foretold by this, but for what rounding does to its rim: no line is missed. */
    public boolean foretells(Canvas other, int tool) {
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
        return other.near[at] && (other.labels[at] == tool) != (labels[at] == tool);
    }

    /**
     * What is a label's, to the side of a square, and that with a little more where it meets labels that are laid over it: each
     * outline is rounded by itself, and nothing of what lies beneath both may come between.
     */
    record Place(MultiPolygon seen, MultiPolygon laid) {}

    /**
     * @param over the labels that are laid over this one
     * @return empty where colours change in more places than can be drawn
     */
    Optional<Place> of(int label, IntPredicate over) {
        boolean[] its = new boolean[labels.length];
        for (int i = 0; i < its.length; i++) {
            its[i] = labels[i] == label;
        }
        return outline(its).flatMap(seen -> (reach(its, over) ? outline(its) : Optional.of(seen))
                .map(laid -> new Place(seen, laid)));
    }

    /** @return whether there is anything to reach beneath */
    private boolean reach(boolean[] its, IntPredicate over) {
        int[] queue = new int[rows + columns];
        int to = 0;
        for (int i = 0; i < its.length; i++) {
            if (its[i] && isRim(i, its)) {
                queue = to == queue.length ? Arrays.copyOf(queue, 2 * to) : queue;
                queue[to++] = i;
            }
        }
        int rim = to;
        int from = 0;
        for (int round = 0; round < OVERLAP; round++) {
            int end = to;
            while (from < end) {
                int i = queue[from++];
                for (int way = 0; way < WAYS; way++) {
                    int at = beside(i, way);
                    if (!its[at] && over.test(labels[at])) {
                        its[at] = true;
                        queue = to == queue.length ? Arrays.copyOf(queue, 2 * to) : queue;
                        queue[to++] = at;
                    }
                }
            }
        }
        return to > rim;
    }

    private boolean isRim(int square, boolean[] of) {
        for (int way = 0; way < WAYS; way++) {
            if (!of[beside(square, way)]) {
                return true;
            }
        }
        return false;
    }

    /** Empty where it has more corners than can be rounded in a moment. */
    private Optional<MultiPolygon> outline(boolean[] squares) {
        GeometryFactory plane = new GeometryFactory();
        int[][] runs = new int[rows + 2][];
        runs[0] = NONE;
        runs[rows + 1] = NONE;
        for (int r = 0; r < rows; r++) {
            runs[r + 1] = runs(r, squares);
        }
        if (Arrays.stream(runs).mapToInt(r -> r.length).sum() > MOST_ENDS) {
            return Optional.empty();
        }
        List<Polygon> strips = new ArrayList<>();
        for (int r = 0; r < rows; r++) {
            int[] own = runs[r + 1];
            for (int i = 0; i < own.length; i += 2) {
                List<Coordinate> ring = new ArrayList<>();
                edge(own[i], own[i + 1], runs[r], r, ring);
                Collections.reverse(ring);
                edge(own[i], own[i + 1], runs[r + 2], r + 1, ring);
                ring.add(ring.get(0));
                strips.add(plane.createPolygon(ring.toArray(Coordinate[]::new)));
            }
        }
        Geometry whole = CoverageUnion.union(plane.buildGeometry(strips));
        // Each corner is looked at against each ring.
        long rings = Areas.polygons(Areas.of(whole))
                .mapToLong(p -> 1 + p.getNumInteriorRing())
                .sum();
        return whole.getNumPoints() * rings > MOST_LOOKS
                ? Optional.empty()
                : Optional.of(Areas.of(TopologyPreservingSimplifier.simplify(whole, side)));
    }

    /** Where runs of squares begin and end in a row. */
    private int[] runs(int row, boolean[] squares) {
        IntStream.Builder ends = IntStream.builder();
        boolean before = false;
        for (int c = 0; c <= columns; c++) {
            boolean now = c < columns && squares[row * columns + c];
            if (now != before) {
                ends.add(c);
            }
            before = now;
        }
        return ends.build().toArray();
    }

    /** From one column to another along a row's lower edge, by way of where runs beyond it begin and end. */
    private void edge(int from, int to, int[] beyond, int row, List<Coordinate> ring) {
        double y = south + row * side;
        ring.add(new Coordinate(west + from * side, y));
        for (int c : beyond) {
            if (c > from && c < to) {
                ring.add(new Coordinate(west + c * side, y));
            }
        }
        ring.add(new Coordinate(west + to * side, y));
    }
}
