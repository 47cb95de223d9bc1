package dev.tranche.app.drawing;

import dev.tranche.core.geometry.Mesh;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Paints a model as it stands, from the front and above, its triangles from the farthest to the nearest; enough to know it by. */
public final class MeshPainter {
    private static final double LEAN = Math.sin(Math.toRadians(42));
    private static final double UP = Math.cos(Math.toRadians(42));
    /** Of so many triangles some are left out, which is not seen at this size. */
    private static final int MOST = 120_000;

    private static final double MICROMETRES = 1000;

    private MeshPainter() {}

    /** PNG of so many px. */
    public static byte[] png(List<Mesh> meshes, int width, int height) {
        double[] box = {Double.MAX_VALUE, Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        for (Mesh mesh : meshes) {
            for (int corner = 0; corner < 3 * mesh.triangles(); corner++) {
                box[0] = Math.min(box[0], mesh.x(corner));
                box[1] = Math.min(box[1], down(mesh, corner));
                box[2] = Math.max(box[2], mesh.x(corner));
                box[3] = Math.max(box[3], down(mesh, corner));
            }
        }
        double scale =
                0.9 * Math.min(width / Math.max(1e-6, box[2] - box[0]), height / Math.max(1e-6, box[3] - box[1]));
        double left = (width - scale * (box[0] + box[2])) / 2;
        double top = (height - scale * (box[1] + box[3])) / 2;
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, width, height);
        for (Mesh mesh : meshes) {
            paint(g, mesh, scale, left, top);
        }
        g.dispose();
        return Png.of(image);
    }

    private static void paint(Graphics2D g, Mesh mesh, double scale, double left, double top) {
        int step = 1 + mesh.triangles() / MOST;
        IntStream.range(0, mesh.triangles() / step)
                .map(i -> i * step)
                .boxed()
                .sorted(Comparator.comparingDouble(t -> nearness(mesh, t)))
                .forEach(t -> {
                    Path2D path = new Path2D.Double();
                    for (int c = 0; c < 3; c++) {
                        double x = left + scale * mesh.x(3 * t + c);
                        double y = top + scale * down(mesh, 3 * t + c);
                        if (c == 0) {
                            path.moveTo(x, y);
                        } else {
                            path.lineTo(x, y);
                        }
                    }
                    path.closePath();
                    g.setColor(grey(mesh, t));
                    g.fill(path);
                    g.draw(path);
                });
    }

    private static double down(Mesh mesh, int corner) {
        return -mesh.y(corner) * LEAN - mesh.z(corner) / MICROMETRES * UP;
    }

    private static double nearness(Mesh mesh, int triangle) {
        double sum = 0;
        for (int c = 3 * triangle; c < 3 * triangle + 3; c++) {
            sum += mesh.z(c) / MICROMETRES * LEAN - mesh.y(c) * UP;
        }
        return sum;
    }

    private static Color grey(Mesh mesh, int triangle) {
        double[] normal = mesh.areaVector(3 * triangle);
        double length = Math.sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]);
        double light = length == 0 ? 0.5 : 0.62 + 0.26 * normal[2] / length - 0.1 * normal[0] / length;
        int level = (int) (255 * Math.max(0.2, Math.min(0.95, light)));
        return new Color(level, level, level);
    }
}
