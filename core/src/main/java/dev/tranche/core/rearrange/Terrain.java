package dev.tranche.core.rearrange;

import org.locationtech.jts.geom.Envelope;

/**
 * How high plastic stands on the bed, on a raster: heights only ever grow. Lines are kept by their middles, so that lines that
 * lie side by side do not stand in one another's way.
 */
final class Terrain {
    /** Half a narrow line, mm. */
    private static final double CELL = 0.2;

    private static final int MOST_CELLS = 1 << 23;
    /** Cells along the side of a tile, as a power of two. */
    private static final int TILE = 5;

    private final double cell;
    private final double left;
    private final double front;
    private final int columns;
    private final int rows;
    /** µm; 0 where nothing stands. */
    private final int[] heights;
    /** The highest of each square of cells. */
    private final int[] tiles;

    private final int tileColumns;
    private final int tileRows;

    /** @param extent of all plastic, mm */
    Terrain(Envelope extent) {
        double side = Math.sqrt(Math.max(1, extent.getArea()) / MOST_CELLS);
        cell = Math.max(CELL, side);
        left = extent.getMinX() - cell;
        front = extent.getMinY() - cell;
        columns = (int) Math.ceil(extent.getWidth() / cell) + 3;
        rows = (int) Math.ceil(extent.getHeight() / cell) + 3;
        heights = new int[columns * rows];
        tileColumns = (columns >> TILE) + 1;
        tileRows = (rows >> TILE) + 1;
        tiles = new int[tileColumns * tileRows];
    }

    /** Plastic is laid from one place to another, mm, with the nozzle at {@code z}, µm. */
    void lay(double x0, double y0, double x1, double y1, int z) {
        int steps = steps(x0, y0, x1, y1);
        double x = (x0 - left) / cell;
        double y = (y0 - front) / cell;
        double dx = (x1 - x0) / cell / steps;
        double dy = (y1 - y0) / cell / steps;
        for (int i = 0; i <= steps; i++) {
            int column = (int) x;
            int row = (int) y;
            if (column >= 0 && row >= 0 && column < columns && row < rows) {
                int at = row * columns + column;
                if (heights[at] < z) {
                    heights[at] = z;
                    raise(column >> TILE, row >> TILE, z);
                }
            }
            x += dx;
            y += dy;
        }
    }

    private void raise(int column, int row, int z) {
        int at = row * tileColumns + column;
        if (tiles[at] < z) {
            tiles[at] = z;
        }
    }

    /** Whether nothing stands higher than {@code z}, µm, anywhere near a line; false where that is not known at once. */
    boolean isFlat(double x0, double y0, double x1, double y1, int z) {
        int left0 = tile(Math.min(x0, x1) - left, tileColumns);
        int left1 = tile(Math.max(x0, x1) - left, tileColumns);
        int front0 = tile(Math.min(y0, y1) - front, tileRows);
        int front1 = tile(Math.max(y0, y1) - front, tileRows);
        for (int row = front0; row <= front1; row++) {
            for (int column = left0; column <= left1; column++) {
                if (tiles[row * tileColumns + column] > z) {
                    return false;
                }
            }
        }
        return true;
    }

    private int tile(double along, int most) {
        return Math.max(0, Math.min(most - 1, (int) (along / cell) >> TILE));
    }

    /** The highest that stands under a line. */
    int under(double x0, double y0, double x1, double y1) {
        int steps = steps(x0, y0, x1, y1);
        int highest = 0;
        for (int i = 0; i <= steps; i++) {
            int at = index(x0 + (x1 - x0) * i / steps, y0 + (y1 - y0) * i / steps);
            highest = at < 0 ? highest : Math.max(highest, heights[at]);
        }
        return highest;
    }

    /** The highest that stands within {@code beside}, mm, of a line. */
    int near(double x0, double y0, double x1, double y1, double beside) {
        int steps = steps(x0, y0, x1, y1);
        int wide = (int) Math.ceil(beside / cell);
        int highest = 0;
        for (int i = 0; i <= steps; i++) {
            int column = column(x0 + (x1 - x0) * i / steps);
            int row = row(y0 + (y1 - y0) * i / steps);
            for (int r = Math.max(0, row - wide); r <= Math.min(rows - 1, row + wide); r++) {
                for (int c = Math.max(0, column - wide); c <= Math.min(columns - 1, column + wide); c++) {
                    highest = Math.max(highest, heights[r * columns + c]);
                }
            }
        }
        return highest;
    }

    private int steps(double x0, double y0, double x1, double y1) {
        return 1 + (int) Math.min(100_000, 2 * Math.hypot(x1 - x0, y1 - y0) / cell);
    }

    private int column(double x) {
        return (int) Math.floor((x - left) / cell);
    }

    private int row(double y) {
        return (int) Math.floor((y - front) / cell);
    }

    private int index(double x, double y) {
        int column = column(x);
        int row = row(y);
        return column < 0 || row < 0 || column >= columns || row >= rows ? -1 : row * columns + column;
    }
}
