package dev.tranche.core.format;

/** Where an object is put: turned, stretched and moved. Corners are rows that multiply from the left. */
final class Affine {
    static final Affine UNMOVED = new Affine(1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0);

    private final double[] rows;

    /** @param rows four of three numbers each, of which the last is where the origin goes */
    Affine(double... rows) {
        if (rows.length != 12) {
            throw new IllegalArgumentException("four rows of three numbers");
        }
        this.rows = rows.clone();
    }

    double x(double x, double y, double z) {
        return x * rows[0] + y * rows[3] + z * rows[6] + rows[9];
    }

    double y(double x, double y, double z) {
        return x * rows[1] + y * rows[4] + z * rows[7] + rows[10];
    }

    double z(double x, double y, double z) {
        return x * rows[2] + y * rows[5] + z * rows[8] + rows[11];
    }

    /** First this, then {@code next}. */
    Affine then(Affine next) {
        double[] both = new double[12];
        for (int row = 0; row < 12; row += 3) {
            for (int column = 0; column < 3; column++) {
                both[row + column] = rows[row] * next.rows[column]
                        + rows[row + 1] * next.rows[3 + column]
                        + rows[row + 2] * next.rows[6 + column]
                        + (row == 9 ? next.rows[9 + column] : 0);
            }
        }
        return new Affine(both);
    }

    /** Whether left becomes right. */
    boolean mirrors() {
        return rows[0] * (rows[4] * rows[8] - rows[5] * rows[7])
                        - rows[3] * (rows[1] * rows[8] - rows[2] * rows[7])
                        + rows[6] * (rows[1] * rows[5] - rows[2] * rows[4])
                < 0;
    }
}
