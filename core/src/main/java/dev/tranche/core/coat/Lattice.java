package dev.tranche.core.coat;

import java.util.Arrays;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Envelope;

/**
 * Squares in rows from below, in each from the left; or a stretch of them. The outermost ring of a stretch is nobody's, so that
 * each square within has four beside it: one less, one more, and {@code columns} less and more.
 *
 * @param side of a square, mm
 * @param west where column 0 begins, mm
 * @param south where row 0 begins, mm
 * @param column the first of the stretch
 * @param row the first of the stretch
 * @param columns of the stretch
 * @param rows of the stretch
 */
record Lattice(double side, double west, double south, int column, int row, int columns, int rows) {
    /** Side of a square, mm; larger only where there would be too many. */
    private static final double SIDE = 0.15;

    private static final int MOST = 1_500_000;
    /** Squares round the model, the ring for one. */
    private static final int MARGIN = 6;
    /** Squares round a section, the ring for one; what is hardly beyond it is two wide. */
    private static final int NEAR = 4;

    /** All that is needed for a model, in whose axes lines are laid, mm. */
    static Lattice over(Envelope reach) {
        double side = Math.max(SIDE, Math.sqrt(reach.getArea() / MOST));
        return new Lattice(
                side,
                reach.getMinX(),
                reach.getMinY(),
                -MARGIN,
                -MARGIN,
                2 * MARGIN + (int) Math.ceil(reach.getWidth() / side),
                2 * MARGIN + (int) Math.ceil(reach.getHeight() / side));
    }

    /** The stretch with a part of it and what lies round that. */
    Lattice round(Envelope part) {
        if (part.isNull()) {
            return new Lattice(side, west, south, column, row, 1, 1);
        }
        int left = Math.max(0, columnOf(part.getMinX()) - NEAR);
        int right = Math.min(columns - 1, columnOf(part.getMaxX()) + NEAR);
        int below = Math.max(0, rowOf(part.getMinY()) - NEAR);
        int above = Math.min(rows - 1, rowOf(part.getMaxY()) + NEAR);
        return new Lattice(
                side,
                west,
                south,
                column + left,
                row + below,
                Math.max(1, right - left + 1),
                Math.max(1, above - below + 1));
    }

    int squares() {
        return columns * rows;
    }

    /** No labels, and the ring. */
    byte[] blank() {
        byte[] blank = new byte[squares()];
        Arrays.fill(blank, Canvas.RING);
        for (int r = 1; r < rows - 1; r++) {
            Arrays.fill(blank, r * columns + 1, (r + 1) * columns - 1, Canvas.NOTHING);
        }
        return blank;
    }

    /** From a square's number to those of the four beside it. */
    int[] steps() {
        return new int[] {-1, 1, -columns, columns};
    }

    /** The column of the stretch in which a place lies, or would. */
    int columnOf(double x) {
        return (int) Math.floor((x - west) / side) - column;
    }

    /** As {@link #columnOf}. */
    int rowOf(double y) {
        return (int) Math.floor((y - south) / side) - row;
    }

    /** The first row of the stretch whose middle is not below a place. */
    int firstRow(double y) {
        return (int) Math.ceil((y - south) / side - 0.5) - row;
    }

    /** The middle of a column of the stretch, mm. */
    double middleX(int ofColumn) {
        return west + (column + ofColumn + 0.5) * side;
    }

    /** As {@link #middleX}. */
    double middleY(int ofRow) {
        return south + (row + ofRow + 0.5) * side;
    }

    /** Where a column of the stretch begins, mm. */
    double x(int ofColumn) {
        return west + (column + ofColumn) * side;
    }

    /** As {@link #x}. */
    double y(int ofRow) {
        return south + (row + ofRow) * side;
    }

    /**
     * Adds what lies beside an area, and beside that, and so on.
     *
     * @param rounds how often, each by a square
     * @param allowed no others are added
     * @return whether there was any to add
     */
    boolean widen(boolean[] area, int rounds, IntPredicate allowed) {
        int[] steps = steps();
        int[] rim = rim(area);
        int[] queue = rim;
        int to = rim.length;
        int from = 0;
        for (int round = 0; round < rounds; round++) {
            int end = to;
            while (from < end) {
                int i = queue[from++];
                for (int step : steps) {
                    int at = i + step;
                    if (!area[at] && allowed.test(at)) {
                        area[at] = true;
                        queue = to == queue.length ? Arrays.copyOf(queue, 2 * to) : queue;
                        queue[to++] = at;
                    }
                }
            }
        }
        return to > rim.length;
    }

    /** The squares of an area that have one beside them that is none of it; some more than once. */
    private int[] rim(boolean[] area) {
        IntStream.Builder rim = IntStream.builder();
        for (int step : new int[] {1, columns}) {
            int end = area.length - step;
            for (int at = change(area, 0, end, step); at < end; at = change(area, at + 1, end, step)) {
                rim.add(area[at] ? at : at + step);
            }
        }
        return rim.build().toArray();
    }

    /** The first square from there on that differs from the one a step further, or {@code end}. */
    static int change(boolean[] squares, int from, int end, int step) {
        int same = Arrays.mismatch(squares, from, end, squares, from + step, end + step);
        return same < 0 ? end : from + same;
    }

    /** The number here of a square of a stretch of this one. */
    int numberOf(int square, Lattice stretch) {
        return (square / stretch.columns + stretch.row - row) * columns
                + square % stretch.columns
                + stretch.column
                - column;
    }
}
