package dev.tranche.app.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.plan.Outline;
import dev.tranche.core.speech.Refusal;
import java.awt.geom.AffineTransform;
import java.awt.geom.PathIterator;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.junit.jupiter.api.Test;

class LetteringTest {
    private static final String FONT = "/net/sf/jasperreports/fonts/dejavu/DejaVuSans-Bold.ttf";

    private final Lettering lettering = new Lettering();

    /** Capital letters of this font are 1493 of 2048 units high; from its own tables. */
    @Test
    void a_capital_letter_is_as_high_as_was_asked_for() {
        Outline.Drawing letter = lettering.of("H", 14.93);
        assertThat(letter.silhouette().depth()).isCloseTo(14.93, within(0.002));
        assertThat(letter.area().getNumGeometries()).isEqualTo(1);
        assertThat(letter.title()).isEqualTo("H");
    }

    /** The shoelace formula over the font library's own outline; holes run the other way and count against it. */
    @Test
    void letters_have_the_area_that_the_font_librarys_outlines_enclose() throws Exception {
        try (var in = LetteringTest.class.getResourceAsStream(FONT)) {
            TrueTypeFont font = new TTFParser().parse(new RandomAccessReadBuffer(in));
            double scale = 10.0 / 1493;
            double wanted = 0;
            for (char letter : "SHED&8".toCharArray()) {
                int glyph = font.getUnicodeCmapLookup().getGlyphId(letter);
                wanted += Math.abs(enclosed(font.getGlyph()
                        .getGlyph(glyph)
                        .getPath()
                        .getPathIterator(AffineTransform.getScaleInstance(scale, scale), 0.001)));
            }
            assertThat(lettering.of("SHED&8", 10).area().getArea()).isCloseTo(wanted, within(0.005 * wanted));
        }
    }

    private static double enclosed(PathIterator path) {
        double[] p = new double[6];
        double twice = 0;
        double startX = 0, startY = 0, x = 0, y = 0;
        for (; !path.isDone(); path.next()) {
            int kind = path.currentSegment(p);
            double toX = kind == PathIterator.SEG_CLOSE ? startX : p[0];
            double toY = kind == PathIterator.SEG_CLOSE ? startY : p[1];
            if (kind == PathIterator.SEG_MOVETO) {
                startX = toX;
                startY = toY;
            } else {
                twice += x * toY - toX * y;
            }
            x = toX;
            y = toY;
        }
        return twice / 2;
    }

    @Test
    void holes_stay_open_and_accents_are_pieces_of_their_own() {
        assertThat(lettering.of("O", 10).area().getGeometryN(0).getBoundary().getNumGeometries())
                .isEqualTo(2);
        assertThat(lettering.of("ä", 10).area().getNumGeometries()).isEqualTo(3);
        assertThat(lettering.of("a b", 10).area().getNumGeometries()).isEqualTo(2);
    }

    @Test
    void what_cannot_be_laid_in_is_refused_with_a_sentence() {
        assertThatThrownBy(() -> lettering.of(" ", 8))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Type the text");
        assertThatThrownBy(() -> lettering.of("x".repeat(500), 8))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("500 letters is too long");
        assertThatThrownBy(() -> lettering.of("ab\uD83D\uDE80", 8))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is not among the letters");
        assertThatThrownBy(() -> lettering.of("a", 0.5)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> lettering.of("a", Double.NaN)).isInstanceOf(Refusal.class);
    }
}
