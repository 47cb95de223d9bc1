package dev.tranche.app.pictures;

import dev.tranche.app.drawing.Png;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Tint;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import org.locationtech.jts.awt.ShapeWriter;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;

/** Paints a piece as PNG, for where no SVG is shown. */
public final class PiecePainter {
    private static final int WIDTH = 820;
    private static final int HEIGHT = 590;
    private static final int EDGE = 40;
    public static final Color BOOTH = new Color(0xD4D6D8);
    /** The piece is turned by this, rad, and seen from so far above that depth and height shrink by these. */
    private static final double TURN = Math.toRadians(-28);

    private static final double LEAN = Math.sin(Math.toRadians(42));
    private static final double UP = Math.cos(Math.toRadians(42));
    /** Light on upright faces, that on level ones being 1. */
    private static final double SIDE = 0.72;

    private PiecePainter() {}

    /** @param times as many px as the drawing */
    public static byte[] png(PieceDrawing drawing, int times) {
        BufferedImage image =
                new BufferedImage(drawing.width() * times, drawing.height() * times, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setColor(Color.decode(drawing.ground()));
        g.fillRect(0, 0, image.getWidth(), image.getHeight());
        g.scale(times, times);
        AffineTransform toPixels = new AffineTransform(
                drawing.frame().scaleX(),
                0,
                0,
                -drawing.frame().scaleY(),
                drawing.frame().x(0),
                drawing.frame().y(0));
        g.setStroke(new BasicStroke(0.5f));
        for (PieceDrawing.Stain stain : drawing.stains()) {
            g.setColor(Color.decode(stain.hex()));
            for (MultiPolygon area : stain.areas()) {
                Shape shape = toPixels.createTransformedShape(new ShapeWriter().toShape(area));
                g.fill(shape);
                g.draw(shape);
            }
        }
        g.dispose();
        return Png.of(image);
    }

    /**
     * The piece as it stands, a little turned and from above, layer on layer; for where no body can be turned.
     *
     * @param size of the picture, 1 being as large as a page has it
     * @param behind it
     */
    public static byte[] standing(Workpiece work, double size, Color behind) {
        LayerGrid grid = work.grid();
        Envelope box = work.cut().model().footprint();
        double across = Math.hypot(box.getWidth(), box.getHeight());
        double high = grid.printedHeight().millimetres();
        int width = (int) (WIDTH * size);
        int height = (int) (HEIGHT * size);
        double edge = EDGE * size;
        double scale = Math.min((width - 2 * edge) / across, (height - 2 * edge) / (across * LEAN + high * UP));
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(behind);
        g.fillRect(0, 0, width, height);
        double foot = height / 2.0 + high * UP * scale / 2;
        for (int layer = 1; layer <= grid.count(); layer++) {
            double top = grid.top(layer).millimetres() * UP * scale;
            for (double up = grid.bottom(layer).millimetres() * UP * scale; up < top; up++) {
                layer(g, work, layer, place(box, width, scale, foot - up), SIDE);
            }
            // What the next layer leaves of it is seen from above.
            if (layer == grid.count()
                    || work.colouring().layer(layer + 1) != work.colouring().layer(layer)) {
                layer(g, work, layer, place(box, width, scale, foot - top), 1);
            }
        }
        g.dispose();
        return Png.of(image);
    }

    private static AffineTransform place(Envelope box, int width, double scale, double y) {
        AffineTransform place = new AffineTransform();
        place.translate(width / 2.0, y);
        place.scale(scale, -scale * LEAN);
        place.rotate(TURN);
        place.translate(-box.centre().x, -box.centre().y);
        return place;
    }

    private static void layer(Graphics2D g, Workpiece work, int layer, AffineTransform place, double light) {
        for (Tint tint : work.colouring().layer(layer).tints()) {
            Srgb c = work.paints().at(tint.spool(), layer).colour();
            g.setColor(new Color((int) (c.red() * light), (int) (c.green() * light), (int) (c.blue() * light)));
            tint.cells().forEach(cell -> g.fill(place.createTransformedShape(new ShapeWriter().toShape(cell))));
        }
    }
}
