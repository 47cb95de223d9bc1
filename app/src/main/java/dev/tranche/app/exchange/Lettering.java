package dev.tranche.app.exchange;

import dev.tranche.core.geometry.Areas;
import dev.tranche.core.plan.Outline;
import dev.tranche.core.plan.Silhouette;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.awt.geom.AffineTransform;
import java.awt.geom.GeneralPath;
import java.awt.geom.PathIterator;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.GlyphData;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.locationtech.jts.awt.ShapeReader;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.springframework.stereotype.Component;

/** Lines of text as outlines, in the bold sans-serif that ships with Tranche. */
@Component
public class Lettering {
    private static final String FONT = "/net/sf/jasperreports/fonts/dejavu/DejaVuSans-Bold.ttf";
    private static final int LONGEST = 40;
    private static final double SMALLEST = 1;
    private static final double LARGEST = 500;
    /** Curves are drawn to this, mm. */
    private static final double FINE = 0.01;

    private final TrueTypeFont font;
    private final CmapLookup letters;
    /** Of a capital letter, in the font's units. */
    private final double capitals;

    Lettering() {
        try (InputStream in = Lettering.class.getResourceAsStream(FONT)) {
            font = new TTFParser().parse(new RandomAccessReadBuffer(in));
            letters = font.getUnicodeCmapLookup();
            capitals = outline('H').getBounds2D().getHeight();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * A line of text.
     *
     * @param height of capital letters, mm
     * @throws Refusal if there is none, it is too long, or the font lacks a letter of it
     */
    public Outline.Drawing of(String text, double height) {
        String line = Words.oneLine(text);
        if (line.isEmpty()) {
            throw new Refusal("Type the text that is to be laid in.");
        }
        if (line.codePointCount(0, line.length()) > LONGEST) {
            throw Refusal.of(
                    "A text of %d letters is too long; give at most %d, and another line as another text.",
                    line.codePointCount(0, line.length()), LONGEST);
        }
        if (!(height >= SMALLEST && height <= LARGEST)) {
            throw Refusal.of("Letters %s mm high are out of range; give %.0f to %.0f.", height, SMALLEST, LARGEST);
        }
        try {
            double scale = height / capitals;
            GeneralPath path = new GeneralPath(PathIterator.WIND_NON_ZERO);
            double x = 0;
            for (int letter : line.codePoints().toArray()) {
                path.append(outline(letter).getPathIterator(AffineTransform.getTranslateInstance(x, 0)), false);
                x += font.getAdvanceWidth(letters.getGlyphId(letter));
            }
            PathIterator flat = path.getPathIterator(AffineTransform.getScaleInstance(scale, scale), FINE);
            Silhouette silhouette = Silhouette.of(filled(flat));
            return new Outline.Drawing(line, silhouette, silhouette.width());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What rings enclose; one within another is a hole, whichever comes first. */
    private static MultiPolygon filled(PathIterator path) {
        GeometryFactory plane = new GeometryFactory();
        MultiPolygon filled = Areas.NOTHING;
        for (Object drawn : ShapeReader.toCoordinates(path)) {
            Coordinate[] ring = (Coordinate[]) drawn;
            if (ring.length > 3) {
                filled = Areas.either(filled, Areas.of(plane.createPolygon(ring)));
            }
        }
        return filled;
    }

    private GeneralPath outline(int letter) throws IOException {
        int glyph = letters.getGlyphId(letter);
        if (glyph == 0) {
            throw Refusal.of(
                    "“%s” is not among the letters Tranche can draw; use another.",
                    new String(Character.toChars(letter)));
        }
        GlyphData drawn = font.getGlyph().getGlyph(glyph);
        return drawn == null ? new GeneralPath() : drawn.getPath();
    }
}
