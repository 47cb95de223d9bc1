package dev.tranche.core.geometry;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import org.locationtech.jts.algorithm.Angle;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;

/**
 * Triangles of one solid, or of a whole model that was not taken apart.
 *
 * <p>Corner {@code c} of triangle {@code t} is at index {@code 3 t + c} of each array; corners run
 * counter-clockwise seen from outside. X and Y are mm in the model's own axes; Z is whole micrometres above the
 * bed, so that comparing a corner with a layer is exact. Moving a corner to the nearest micrometre
 * shifts a wall by at most half of one, far below what a printer can place.
 */
public final class Mesh {
    private final float[] x;
    private final float[] y;
    private final int[] z;
    private final Envelope footprint;
    private final int bottom;
    private final int top;
    private final double lifted;
    /** Computed when first asked for; NaN until then. */
    private double volume = Double.NaN;

    private Mesh(float[] x, float[] y, int[] z, double lifted) {
        this.x = x;
        this.y = y;
        this.z = z;
        this.lifted = lifted;
        if (x.length == 0) {
            throw new Refusal("The model holds no triangles; export it again from the program that made it.");
        }
        float minX = x[0];
        float maxX = x[0];
        float minY = y[0];
        float maxY = y[0];
        int minZ = z[0];
        int maxZ = z[0];
        for (int i = 1; i < x.length; i++) {
            minX = Math.min(minX, x[i]);
            maxX = Math.max(maxX, x[i]);
            minY = Math.min(minY, y[i]);
            maxY = Math.max(maxY, y[i]);
            minZ = Math.min(minZ, z[i]);
            maxZ = Math.max(maxZ, z[i]);
        }
        this.footprint = new Envelope(minX, maxX, minY, maxY);
        this.bottom = minZ;
        this.top = maxZ;
    }

    /**
     * A mesh that takes over the three arrays and is set on the bed.
     *
     * @param z µm, from any origin; the lowest corner will be at 0
     */
    public static Mesh of(float[] x, float[] y, int[] z) {
        return of(x, y, z, 0);
    }

    /** As {@link #of(float[], float[], int[])}, of a mesh whose file's Z has been raised by so many mm before. */
    static Mesh of(float[] x, float[] y, int[] z, double raisedBefore) {
        if (x.length % 3 != 0 || y.length != x.length || z.length != x.length) {
            throw new IllegalArgumentException("three corners a triangle, and as many X as Y as Z");
        }
        Mesh mesh = new Mesh(x, y, z, raisedBefore);
        if (mesh.top == mesh.bottom) {
            throw new Refusal("The model is flat: all its corners lie at one height; it cannot be printed in layers.");
        }
        return mesh.bottom == 0 ? mesh : mesh.raised(-mesh.bottom);
    }

    /** The triangles chosen, where they are. */
    Mesh only(int[] chosen) {
        float[] px = new float[3 * chosen.length];
        float[] py = new float[3 * chosen.length];
        int[] pz = new int[3 * chosen.length];
        for (int i = 0; i < chosen.length; i++) {
            for (int c = 0; c < 3; c++) {
                px[3 * i + c] = x[3 * chosen[i] + c];
                py[3 * i + c] = y[3 * chosen[i] + c];
                pz[3 * i + c] = z[3 * chosen[i] + c];
            }
        }
        return new Mesh(px, py, pz, lifted);
    }

    /** A mesh whose corners are given where they are to stay. */
    public static Mesh standing(float[] x, float[] y, int[] z, double lifted) {
        return new Mesh(x, y, z, lifted);
    }

    /** This one, turned and moved; not set on the bed again. */
    Mesh moved(Shift by) {
        float[] px = new float[x.length];
        float[] py = new float[x.length];
        double[] middle = by.turn() == 0 ? new double[2] : middle();
        double cos = Angle.cosSnap(Math.toRadians(by.turn()));
        double sin = Angle.sinSnap(Math.toRadians(by.turn()));
        for (int i = 0; i < x.length; i++) {
            double dx = x[i] - middle[0];
            double dy = y[i] - middle[1];
            px[i] = (float) (middle[0] + cos * dx - sin * dy + by.x());
            py[i] = (float) (middle[1] + sin * dx + cos * dy + by.y());
        }
        return new Mesh(px, py, z, lifted).raised((int) Math.round(by.z() * 1000));
    }

    /** X and Y of the middle of its surface, mm: it turns along when the mesh is turned, as the middle of a rectangle would not. */
    private double[] middle() {
        double sum = 0;
        double mx = 0;
        double my = 0;
        for (int i = 0; i < x.length; i += 3) {
            double area = area(i);
            sum += area;
            mx += area * (x[i] + (double) x[i + 1] + x[i + 2]) / 3;
            my += area * (y[i] + (double) y[i + 1] + y[i + 2]) / 3;
        }
        Coordinate box = footprint.centre();
        return sum > 0 ? new double[] {mx / sum, my / sum} : new double[] {box.x, box.y};
    }

    /** This one, so many µm higher. */
    Mesh raised(int micrometres) {
        int[] pz = new int[z.length];
        for (int i = 0; i < z.length; i++) {
            pz[i] = z[i] + micrometres;
        }
        return new Mesh(x, y, pz, lifted + micrometres / 1000.0);
    }

    /**
     * Multiplied by a 3 × 3 matrix, row by row, and not set on the bed again.
     *
     * @throws Refusal if it gets higher than any printer
     */
    Mesh times(double[] m) {
        float[] px = new float[x.length];
        float[] py = new float[x.length];
        int[] pz = new int[x.length];
        for (int i = 0; i < x.length; i++) {
            double mz = z[i] / 1000.0;
            px[i] = (float) (m[0] * x[i] + m[1] * y[i] + m[2] * mz);
            py[i] = (float) (m[3] * x[i] + m[4] * y[i] + m[5] * mz);
            double up = (m[6] * x[i] + m[7] * y[i] + m[8] * mz) * 1000;
            if (!(Math.abs(up) < 1e9)) {
                throw Refusal.of("Placed like this the model is %.0f m high; scale it less.", Math.abs(up) / 1e6);
            }
            pz[i] = (int) Math.rint(up);
        }
        return new Mesh(px, py, pz, 0);
    }

    public int triangles() {
        return x.length / 3;
    }

    /** X of a corner, mm. */
    public double x(int corner) {
        return x[corner];
    }

    /** Y of a corner, mm. */
    public double y(int corner) {
        return y[corner];
    }

    /** Z of a corner above the bed, µm. */
    public int z(int corner) {
        return z[corner];
    }

    /** For each corner the first one at its place. */
    public int[] welded(Progress progress) {
        return Welding.of(this, progress);
    }

    /** What the model covers of the XY plane, mm. */
    public Envelope footprint() {
        return new Envelope(footprint);
    }

    /** How far it reaches above the bed. */
    public Height height() {
        return Height.ofMicrometres(top);
    }

    /** Its highest corner above the bed, µm. */
    int top() {
        return top;
    }

    /** Its lowest corner above the bed, µm; 0 if it stands on it. */
    public int bottom() {
        return bottom;
    }

    /** By how many mm the file's Z had to be raised (or, if negative, lowered) to set the model on the bed. */
    public double lifted() {
        return lifted;
    }

    /**
     * The area of a triangle as a vector, mm²: it points outwards, and its length is the area.
     *
     * @param corner the triangle's first
     */
    public double[] areaVector(int corner) {
        double ux = x[corner + 1] - (double) x[corner];
        double uy = y[corner + 1] - (double) y[corner];
        double uz = (z[corner + 1] - z[corner]) / 1000.0;
        double vx = x[corner + 2] - (double) x[corner];
        double vy = y[corner + 2] - (double) y[corner];
        double vz = (z[corner + 2] - z[corner]) / 1000.0;
        return new double[] {(uy * vz - uz * vy) / 2, (uz * vx - ux * vz) / 2, (ux * vy - uy * vx) / 2};
    }

    /** Area of the triangle whose first corner is given, mm². */
    public double area(int corner) {
        double[] n = areaVector(corner);
        return Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
    }

    /**
     * Enclosed volume by the divergence theorem, mm³: positive where facets face outwards. Meaningless for an
     * open mesh.
     */
    public double volume() {
        if (Double.isNaN(volume)) {
            volume = enclosed();
        }
        return volume;
    }

    private double enclosed() {
        double sum = 0;
        for (int i = 0; i < x.length; i += 3) {
            double cross = (double) x[i] * ((double) y[i + 1] * z[i + 2] - (double) z[i + 1] * y[i + 2])
                    + (double) y[i] * ((double) z[i + 1] * x[i + 2] - (double) x[i + 1] * z[i + 2])
                    + (double) z[i] * ((double) x[i + 1] * y[i + 2] - (double) y[i + 1] * x[i + 2]);
            sum += cross;
        }
        return sum / 6000;
    }

    /** Where a triangle meets a plane, mm. */
    @FunctionalInterface
    public interface Crossing {
        void segment(double fromX, double fromY, double toX, double toY);
    }

    /**
     * The segment in which a triangle meets a plane, with the solid on its left when facets face outwards; nothing where it does
     * not. Going round the corners, the boundary is left upwards on one edge and downwards on another.
     *
     * @param corner the triangle's first
     * @param plane in half µm above the bed
     */
    public void cross(int corner, int plane, Crossing to) {
        double upX = 0;
        double upY = 0;
        double downX = 0;
        double downY = 0;
        boolean crosses = false;
        for (int e = 0; e < 3; e++) {
            int p = corner + e;
            int q = corner + (e + 1) % 3;
            boolean pBelow = 2 * z[p] < plane;
            if (pBelow == 2 * z[q] < plane) {
                continue;
            }
            crosses = true;
            // Always from the lower corner to the upper, so that both triangles of an edge get the same bits.
            int low = pBelow ? p : q;
            int high = pBelow ? q : p;
            double t = (plane - 2.0 * z[low]) / (2.0 * z[high] - 2.0 * z[low]);
            boolean atCorner = t == 1;
            double cx = atCorner ? x[high] : x[low] + t * (x[high] - (double) x[low]);
            double cy = atCorner ? y[high] : y[low] + t * (y[high] - (double) y[low]);
            if (pBelow) {
                upX = cx;
                upY = cy;
            } else {
                downX = cx;
                downY = cy;
            }
        }
        if (crosses) {
            to.segment(downX, downY, upX, upY);
        }
    }
}
