package dev.tranche.core.geometry;

import java.util.ArrayList;
import java.util.List;

/** Meshes with known measures, for tests. Sizes in mm. */
public final class Shapes {
    private final List<double[]> corners = new ArrayList<>();

    /** An upright box with its lowest corner at a place. */
    public Shapes box(double x, double y, double z, double width, double depth, double height) {
        double[][] p = new double[8][];
        for (int i = 0; i < 8; i++) {
            p[i] = new double[] {x + (i & 1) * width, y + (i >> 1 & 1) * depth, z + (i >> 2 & 1) * height};
        }
        quad(p[0], p[2], p[3], p[1]);
        quad(p[4], p[5], p[7], p[6]);
        quad(p[0], p[1], p[5], p[4]);
        quad(p[2], p[6], p[7], p[3]);
        quad(p[0], p[4], p[6], p[2]);
        quad(p[1], p[3], p[7], p[5]);
        return this;
    }

    /** A box turned inside out: a cavity. */
    public Shapes cavity(double x, double y, double z, double width, double depth, double height) {
        int before = corners.size();
        box(x, y, z, width, depth, height);
        for (int i = before; i < corners.size(); i += 3) {
            double[] keep = corners.get(i);
            corners.set(i, corners.get(i + 1));
            corners.set(i + 1, keep);
        }
        return this;
    }

    /** A sphere standing on the bed, of {@code rings} bands of {@code around} quads. */
    public Shapes sphere(double radius, int rings, int around) {
        for (int i = 0; i < rings; i++) {
            for (int j = 0; j < around; j++) {
                double[] a = onSphere(radius, i, rings, j, around);
                double[] b = onSphere(radius, i, rings, j + 1, around);
                double[] c = onSphere(radius, i + 1, rings, j + 1, around);
                double[] d = onSphere(radius, i + 1, rings, j, around);
                if (i > 0) {
                    triangle(a, b, c);
                }
                if (i < rings - 1) {
                    triangle(a, c, d);
                }
            }
        }
        return this;
    }

    private static double[] onSphere(double r, int ring, int rings, int j, int around) {
        double polar = Math.PI * ring / rings;
        double turn = 2 * Math.PI * (j % around) / around;
        double flat = ring == 0 || ring == rings ? 0 : r * Math.sin(polar);
        return new double[] {flat * Math.cos(turn), flat * Math.sin(turn), r - r * Math.cos(polar)};
    }

    /** A cone with its base on the bed. */
    public Shapes cone(double radius, double height, int around) {
        return cone(0, 0, radius, height, around);
    }

    /** A cone with the middle of its base there on the bed. */
    public Shapes cone(double x, double y, double radius, double height, int around) {
        double[] tip = {x, y, height};
        double[] middle = {x, y, 0};
        for (int j = 0; j < around; j++) {
            double[] a = onCircle(x, y, radius, j, around);
            double[] b = onCircle(x, y, radius, j + 1, around);
            triangle(a, b, tip);
            triangle(b, a, middle);
        }
        return this;
    }

    /** A torus standing on the bed: {@code radius} to the middle of its tube. */
    public Shapes torus(double radius, double tube, int around, int section) {
        for (int i = 0; i < around; i++) {
            for (int j = 0; j < section; j++) {
                double[] a = onTorus(radius, tube, i, around, j, section);
                double[] b = onTorus(radius, tube, i + 1, around, j, section);
                double[] c = onTorus(radius, tube, i + 1, around, j + 1, section);
                double[] d = onTorus(radius, tube, i, around, j + 1, section);
                triangle(a, b, c);
                triangle(a, c, d);
            }
        }
        return this;
    }

    private static double[] onTorus(double radius, double tube, int i, int around, int j, int section) {
        double a = 2 * Math.PI * (i % around) / around;
        double b = 2 * Math.PI * (j % section) / section;
        double d = radius + tube * Math.cos(b);
        return new double[] {d * Math.cos(a), d * Math.sin(a), tube + tube * Math.sin(b)};
    }

    private static double[] onCircle(double x, double y, double r, int j, int around) {
        double turn = 2 * Math.PI * (j % around) / around;
        return new double[] {x + r * Math.cos(turn), y + r * Math.sin(turn), 0};
    }

    private void quad(double[] a, double[] b, double[] c, double[] d) {
        triangle(a, b, c);
        triangle(a, c, d);
    }

    public Shapes triangle(double[] a, double[] b, double[] c) {
        corners.add(a);
        corners.add(b);
        corners.add(c);
        return this;
    }

    public Shapes dropLastTriangle() {
        corners.subList(corners.size() - 3, corners.size()).clear();
        return this;
    }

    public Mesh mesh() {
        int n = corners.size();
        float[] x = new float[n];
        float[] y = new float[n];
        int[] z = new int[n];
        for (int i = 0; i < n; i++) {
            x[i] = (float) corners.get(i)[0];
            y[i] = (float) corners.get(i)[1];
            z[i] = (int) Math.rint(corners.get(i)[2] * 1000);
        }
        return Mesh.of(x, y, z);
    }

    public Body body() {
        return Body.of(mesh());
    }

    /** The same as an ASCII STL file. */
    public String ascii() {
        StringBuilder text = new StringBuilder("solid shapes\n");
        for (int i = 0; i < corners.size(); i += 3) {
            text.append(" facet normal 0 0 0\n  outer loop\n");
            for (int c = i; c < i + 3; c++) {
                double[] p = corners.get(c);
                text.append("   vertex ")
                        .append(p[0])
                        .append(' ')
                        .append(p[1])
                        .append(' ')
                        .append(p[2])
                        .append('\n');
            }
            text.append("  endloop\n endfacet\n");
        }
        return text.append("endsolid shapes\n").toString();
    }
}
