package dev.tranche.app.pictures;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;
import org.locationtech.jts.awt.ShapeWriter;
import org.locationtech.jts.geom.MultiPolygon;

/** Paints a piece as PNG, for where no SVG is shown. */
public final class PiecePainter {
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
        return bytes(image);
    }

    private static byte[] bytes(BufferedImage image) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}
