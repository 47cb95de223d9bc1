package dev.tranche.core.coat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;

/**
 * What of a section has which colour, in squares: lines are laid on it, or places claimed from walls and faces, and what lies
 * between belongs to the nearest. Not for two threads.
 */
public final class Canvas {
    /** Of a square that has no label yet. */
    static final byte NOTHING = -1;
    /** Of a square of the ring, which never has one. */
    static final byte RING = -2;

    /** So many squares beyond the section are hardly beyond it. */
    private static final int NEAR = 2;

    /** Faces that are no more than a layer away are nearer than what is so much, mm, beyond the outermost line of a wall. */
    private static final float SKIN = 0.001f;

    private static final float[] NO_CLAIMS = {};
    private static final int[] NONE = {};

    private final Lattice whole;
    /** With the section and what is hardly beyond it. */
    private final Lattice lattice;

    private final double side;
    private final int columns;
    private final int rows;
    private final boolean[] inside;
    /** Where claims count. */
    private boolean[] mask;
    /** How near what claimed a square is, mm: of walls beyond their outermost line, and less than 0 within it. */
    private float[] nearness = NO_CLAIMS;

    /** Of the walls that were claimed within a square, a bit for each label. */
    private int[] walls = NONE;

    private byte[] labels;
    /** The section and what is hardly beyond it, once it has grown. */
    private boolean[] near;

    private Expanse expanse;

    /**
     * @param reach of the model, in whose axes lines are laid, mm
     * @param section of the layer
     */
    public Canvas(Envelope reach, MultiPolygon section) {
        whole = Lattice.over(reach);
        lattice = whole.round(section.getEnvelopeInternal());
        side = lattice.side();
        columns = lattice.columns();
        rows = lattice.rows();
        labels = lattice.blank();
        inside = filled(section);
        mask = inside;
    }

    /** Between each two crossings of a row's middle line. */
    private boolean[] filled(MultiPolygon section) {
        boolean[] filled = new boolean[lattice.squares()];
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
                int to = Math.min(columns - 2, lattice.columnOf(all.get(i + 1) - side / 2));
                for (int c = Math.max(1, lattice.columnOf(all.get(i) + side / 2)); c <= to; c++) {
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
            int row = Math.max(1, lattice.firstRow(low.y));
            for (; row < rows - 1 && lattice.middleY(row) < high.y; row++) {
                double share = (lattice.middleY(row) - low.y) / (high.y - low.y);
                crossings.computeIfAbsent(row, r -> new ArrayList<>()).add(low.x + share * (high.x - low.x));
            }
        }
    }

    /**
     * Lays a line of plastic, mm wide. It ends where it does, so that colours meet at the same place whichever is laid first.
     */
    public void lay(int tool, double x0, double y0, double x1, double y1, double width) {
        double reach = width / 2;
        double dx = x1 - x0;
        double dy = y1 - y0;
        int top = Math.min(rows - 1, lattice.rowOf(Math.max(y0, y1) + reach));
        for (int r = Math.max(0, lattice.rowOf(Math.min(y0, y1) - reach)); r <= top; r++) {
            double y = lattice.middleY(r) - y0;
            // Where the line is so near to the middle of the row that it may reach it.
            double one = dy == 0 ? 0 : within((y - reach) / dy);
            double other = dy == 0 ? 1 : within((y + reach) / dy);
            double west = x0 + Math.min(one * dx, other * dx) - reach;
            double east = x0 + Math.max(one * dx, other * dx) + reach;
            int right = Math.min(columns - 1, lattice.columnOf(east));
            for (int c = Math.max(0, lattice.columnOf(west)); c <= right; c++) {
                if (inside[r * columns + c] && isNear(lattice.middleX(c) - x0, y, dx, dy, reach)) {
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
        for (int i = 0; i < mask.length; i++) {
            mask[i] &= inside[i];
        }
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
        double perSquare = square == 0 ? 0 : 1 / square;
        double low = Math.min(y0, y1);
        double high = Math.max(y0, y1);
        prepare();
        int top = Math.min(rows - 1, lattice.rowOf(high + deep));
        for (int r = Math.max(0, lattice.rowOf(low - deep)); r <= top; r++) {
            double middle = lattice.middleY(r);
            double y = middle - y0;
            double beyond = Math.max(0, Math.max(low - middle, middle - high));
            double reach = Math.sqrt(Math.max(0, deep * deep - beyond * beyond));
            int right = Math.min(columns - 1, lattice.columnOf(Math.max(x0, x1) + reach));
            for (int c = Math.max(0, lattice.columnOf(Math.min(x0, x1) - reach)); c <= right; c++) {
                int at = r * columns + c;
                double nearer = nearness[at] + line;
                if (!mask[at] || nearer <= 0) {
                    continue;
                }
                double x = lattice.middleX(c) - x0;
                double share = (x * dx + y * dy) * perSquare;
                double along = share < 0 ? 0 : share > 1 ? 1 : share;
                double offX = x - along * dx;
                double offY = y - along * dy;
                double off = offX * offX + offY * offY;
                if (off < nearer * nearer && off < deep * deep) {
                    labels[at] = (byte) label;
                    nearness[at] = (float) (Math.sqrt(off) - line);
                }
            }
        }
    }

    /** What no claim was for may be claimed by whatever does, but for what is covered. */
    private void prepare() {
        if (nearness.length == 0) {
            nearness = new float[labels.length];
            for (int i = 0; i < labels.length; i++) {
                nearness[i] = labels[i] == NOTHING ? Float.POSITIVE_INFINITY : Float.NEGATIVE_INFINITY;
            }
        }
    }

    /** Whether a wall so short was claimed for that label here before. */
    private boolean isPassed(int label, double x0, double y0, double x1, double y1) {
        int column = lattice.columnOf(x0);
        int row = lattice.rowOf(y0);
        if (column != lattice.columnOf(x1)
                || row != lattice.rowOf(y1)
                || column < 0
                || row < 0
                || column >= columns
                || row >= rows) {
            return false;
        }
        walls = walls.length == 0 ? new int[labels.length] : walls;
        int at = row * columns + column;
        boolean passed = (walls[at] >> label & 1) == 1;
        walls[at] |= 1 << label;
        return passed;
    }

    /**
     * Claims what lies so deep behind a face, where nothing nearer does.
     *
     * @param x of its corners, mm, as {@code y}
     * @param away how far each corner lies beyond the layer's middle, upwards or downwards as the face does, mm
     * @param layer how thick one is, mm: a place so near is seen
     */
    void claim(int label, double[] x, double[] y, double[] away, double layer, double deep) {
        prepare();
        int top = Math.min(rows - 1, lattice.rowOf(Math.max(y[0], Math.max(y[1], y[2]))));
        for (int r = Math.max(0, lattice.rowOf(Math.min(y[0], Math.min(y[1], y[2])))); r <= top; r++) {
            double at = lattice.middleY(r);
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
        int to = Math.min(columns - 1, lattice.columnOf(high - side / 2));
        for (int c = Math.max(0, lattice.columnOf(low + side / 2)); c <= to; c++) {
            int at = row * columns + c;
            double away = away0 + slope * (lattice.middleX(c) - x0);
            if (mask[at] && away >= 0 && away < deep) {
                float near = (float) (away <= layer ? SKIN * away / layer : SKIN + away - layer);
                if (near < nearness[at]) {
                    labels[at] = (byte) label;
                    nearness[at] = near;
                }
            }
        }
    }

    /** What of a part of the section nothing claimed is {@code label}'s. */
    void rest(int label) {
        prepare();
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] == NOTHING && mask[i]) {
                labels[i] = (byte) label;
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
            if (!wide[i] && inside[i] && nearness[i] > SKIN) {
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
        stretch(blocks, least);
        return blocks;
    }

    /** Adds to each square those that make a block with it, of {@code least} to the right and downwards. */
    private void stretch(boolean[] squares, int least) {
        int[] toGo = new int[columns];
        for (int at = squares.length - 1, c = columns - 1; at >= 0; at--, c = c == 0 ? columns - 1 : c - 1) {
            toGo[c] = squares[at] ? least : toGo[c] - 1;
            squares[at] = toGo[c] > 0;
        }
        for (int at = 0, go = 0; at < squares.length; at++) {
            go = squares[at] ? least : go - 1;
            squares[at] = go > 0;
        }
    }

    /** What hangs together of a label, and nowhere with what is wide, is nobody's. */
    private void drown(int label, boolean[] wide) {
        boolean[] passed = new boolean[labels.length];
        int[] island = new int[labels.length];
        int[] steps = lattice.steps();
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] != label || wide[i] || passed[i]) {
                continue;
            }
            int size = 1;
            island[0] = i;
            passed[i] = true;
            boolean held = false;
            for (int n = 0; n < size; n++) {
                for (int step : steps) {
                    int beside = island[n] + step;
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

    /** The section, or the part of it that counts, is {@code label}'s, whatever claimed it. */
    public void cover(int label) {
        for (int i = 0; i < labels.length; i++) {
            if (mask[i]) {
                labels[i] = (byte) label;
                if (nearness.length > 0) {
                    nearness[i] = Float.NEGATIVE_INFINITY;
                }
            }
        }
    }

    /** What no line covers belongs to the nearest, first in the section and then beyond it. */
    public void grow() {
        Growth growth = Growth.of(lattice, labels);
        growth.over(inside);
        near = inside.clone();
        lattice.widen(near, NEAR, square -> true);
        if (isLeft()) {
            Growth.everywhere(lattice, labels);
        } else {
            growth.over(near);
        }
        nearness = NO_CLAIMS;
        walls = NONE;
        mask = inside;
    }

    /** Whether any of the section has no label: it lies where none is near. */
    private boolean isLeft() {
        for (int i = 0; i < labels.length; i++) {
            if (inside[i] && labels[i] == NOTHING) {
                return true;
            }
        }
        return false;
    }

    /** Its labels, and what lies all round it, once it has grown. */
    synchronized Expanse everywhere() {
        if (expanse == null) {
            byte[] all = whole.blank();
            for (int r = 0; r < rows; r++) {
                int first = r * columns;
                int there = whole.numberOf(first, lattice) - first;
                for (int i = first; i < first + columns; i++) {
                    if (inside[i]) {
                        all[i + there] = labels[i];
                    }
                }
            }
            Growth.everywhere(whole, all);
            expanse = new Expanse(whole, all);
        }
        return expanse;
    }

    public boolean shows(int tool) {
        for (int i = 0; i < labels.length; i++) {
            if (inside[i] && labels[i] == tool) {
                return true;
            }
        }
        return false;
    }

    Lattice lattice() {
        return lattice;
    }

    byte label(int square) {
        return labels[square];
    }

    boolean isNear(int square) {
        return near[square];
    }

    boolean prints(int square, int tool) {
        return inside[square] && labels[square] == tool;
    }
}
