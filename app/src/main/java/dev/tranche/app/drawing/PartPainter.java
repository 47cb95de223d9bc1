package dev.tranche.app.drawing;

import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.Part;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.speech.Progress;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Paints a model as it stands and in the colours that its file gives it, from the front and above; enough to know it by. Each point
 * of the picture remembers how near it is, so that neither the order of triangles matters nor how large they are.
 */
public final class PartPainter {
    private static final double LEAN = Math.sin(Math.toRadians(42));
    private static final double UP = Math.cos(Math.toRadians(42));
    private static final double MICROMETRES = 1000;
    /** Painted so many times as large, and made smaller, so that edges are soft. */
    private static final int FINER = 2;

    private static final double MARGIN = 0.9;
    /** What has no colour. */
    private static final Srgb BARE = new Srgb(224, 224, 224);
    /** What lies level has its own colour. */
    private static final double LEVEL = 0.88;

    private static final double DIMMEST = 0.2;
    /** Shape is seen in the darkest colour, too. */
    private static final int DARKEST = 24;

    /** Points that are looked at, beyond which nothing more is painted: of triangles that lie upon one another there may be many. */
    private static final long MOST = 1_000_000_000;

    private static final int BEAT = 0xFFF;

    private final int width;
    private final int height;
    private final int[] colours;
    private final double[] near;
    private long looked;
    private double left = Double.MAX_VALUE;
    private double right = -Double.MAX_VALUE;
    private double top = Double.MAX_VALUE;
    private double foot = -Double.MAX_VALUE;

    private PartPainter(int width, int height) {
        this.width = width;
        this.height = height;
        colours = new int[width * height];
        near = new double[width * height];
        Arrays.fill(colours, Color.WHITE.getRGB());
        Arrays.fill(near, -Double.MAX_VALUE);
    }

    /**
     * PNG of so many px.
     *
     * @param progress learns that the work goes on, and may stop it
     */
    public static byte[] png(List<Part> parts, int width, int height, Progress progress) {
        PartPainter painter = new PartPainter(FINER * width, FINER * height);
        parts.forEach(part -> painter.bound(part.mesh()));
        parts.forEach(part -> painter.paint(part, progress));
        BufferedImage fine = new BufferedImage(painter.width, painter.height, BufferedImage.TYPE_INT_RGB);
        fine.setRGB(0, 0, painter.width, painter.height, painter.colours, 0, painter.width);
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        g.drawImage(fine, 0, 0, width, height, null);
        g.dispose();
        return Png.of(image);
    }

    private void bound(Mesh mesh) {
        for (int corner = 0; corner < 3 * mesh.triangles(); corner++) {
            left = Math.min(left, mesh.x(corner));
            right = Math.max(right, mesh.x(corner));
            top = Math.min(top, down(mesh, corner));
            foot = Math.max(foot, down(mesh, corner));
        }
    }

    private void paint(Part part, Progress progress) {
        Mesh mesh = part.mesh();
        double scale = MARGIN * Math.min(width / Math.max(1e-6, right - left), height / Math.max(1e-6, foot - top));
        double[] x = new double[3];
        double[] y = new double[3];
        double[] depth = new double[3];
        for (int t = 0; t < mesh.triangles() && looked < MOST; t++) {
            if ((t & BEAT) == 0) {
                progress.beat();
            }
            for (int c = 0; c < 3; c++) {
                int corner = 3 * t + c;
                x[c] = width / 2.0 + scale * (mesh.x(corner) - (left + right) / 2);
                y[c] = height / 2.0 + scale * (down(mesh, corner) - (top + foot) / 2);
                depth[c] = mesh.z(corner) / MICROMETRES * LEAN - mesh.y(corner) * UP;
            }
            fill(x, y, depth, colour(part, t));
        }
    }

    /** Points whose middle is in the triangle take its colour where nothing nearer has been there. */
    private void fill(double[] x, double[] y, double[] depth, int colour) {
        double area = (x[1] - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (y[1] - y[0]);
        if (area == 0) {
            return;
        }
        int fromX = Math.max(0, (int) Math.ceil(least(x) - 0.5));
        int toX = Math.min(width - 1, (int) Math.floor(most(x) - 0.5));
        int fromY = Math.max(0, (int) Math.ceil(least(y) - 0.5));
        int toY = Math.min(height - 1, (int) Math.floor(most(y) - 0.5));
        looked += (long) Math.max(0, toX - fromX + 1) * Math.max(0, toY - fromY + 1);
        for (int row = fromY; row <= toY; row++) {
            for (int column = fromX; column <= toX; column++) {
                double dx = column + 0.5 - x[0];
                double dy = row + 0.5 - y[0];
                double second = (dx * (y[2] - y[0]) - (x[2] - x[0]) * dy) / area;
                double third = ((x[1] - x[0]) * dy - dx * (y[1] - y[0])) / area;
                double here = depth[0] + second * (depth[1] - depth[0]) + third * (depth[2] - depth[0]);
                int at = row * width + column;
                if (second >= 0 && third >= 0 && second + third <= 1 && here > near[at]) {
                    near[at] = here;
                    colours[at] = colour;
                }
            }
        }
    }

    private static double least(double[] of) {
        return Math.min(of[0], Math.min(of[1], of[2]));
    }

    private static double most(double[] of) {
        return Math.max(of[0], Math.max(of[1], of[2]));
    }

    private static double down(Mesh mesh, int corner) {
        return -mesh.y(corner) * LEAN - mesh.z(corner) / MICROMETRES * UP;
    }

    private static int colour(Part part, int triangle) {
        double light = light(part.mesh(), triangle);
        Srgb own = own(part, triangle).orElse(BARE);
        return new Color(lit(own.red(), light), lit(own.green(), light), lit(own.blue(), light)).getRGB();
    }

    private static Optional<Srgb> own(Part part, int triangle) {
        return part.coat()
                .map(coat -> coat.hues().get(coat.hue(triangle)).colour())
                .orElse(part.colour());
    }

    private static double light(Mesh mesh, int triangle) {
        double[] normal = mesh.areaVector(3 * triangle);
        double length = Math.sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]);
        double light = length == 0 ? 0 : 0.62 + 0.26 * normal[2] / length - 0.1 * normal[0] / length;
        return Math.max(DIMMEST, light) / LEVEL;
    }

    private static int lit(int channel, double light) {
        return (int) Math.min(255, Math.round(Math.max(channel, DARKEST) * light));
    }
}
