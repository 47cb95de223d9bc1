package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Envelope;

/**
 * Examples of W3C, "Scalable Vector Graphics (SVG) 1.1 (Second Edition)", with areas by closed form. User units are
 * drawn as millimetres where a view box as large as the width in mm says so.
 */
class SvgTest {
    private static final double PI = Math.PI;

    private static Svg read(String text) {
        return Svg.read(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), Progress.UNHEARD);
    }

    private static Svg inMillimetres(String inside) {
        return read("<svg xmlns='http://www.w3.org/2000/svg' width='1200mm' height='600mm' viewBox='0 0 1200 600'>"
                + inside + "</svg>");
    }

    private static double area(String inside) {
        return inMillimetres(inside).area().getArea();
    }

    private static void refuses(String text, String words) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(Refusal.class).hasMessageContaining(words);
    }

    /** Chapter 8: triangle01, the filled quarter and three-quarter pies of arcs01, and the forms of its grammar. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "M 100 100 L 300 100 L 200 300 z | 20000",
                "M100 100h200l-100 200z | 20000",
                "M 100,100 300,100 200,300 Z | 20000",
                "m100-100 200 0-100 200z | 20000",
                "M1e2 1E2L300 100 2.0e+2 300.z | 20000",
                "M0 0H10V10H0Z M2 2V8H8V2Z | 64",
                "M0,0 h10 v10 h-10 z m20,0 h5 v5 h-5 z | 125",
            })
    void path_data_is_read_by_its_grammar(String d, double area) {
        assertThat(area("<path d='" + d + "'/>")).isCloseTo(area, within(1e-6));
    }

    @Test
    void arcs_are_those_of_the_specifications_pie() {
        double r = 150;
        assertThat(area("<path d='M300,200 h-150 a150,150 0 1,0 150,-150 z'/>"))
                .isCloseTo(0.75 * PI * r * r, within(30.0));
        assertThat(area("<path d='M275,175 v-150 a150,150 0 0,0 -150,150 z'/>"))
                .isCloseTo(0.25 * PI * r * r, within(10.0));
        // Implementation note F.6.2: radii too small are scaled up until the arc reaches.
        assertThat(area("<path d='M0,0 a1,1 0 0,0 20,0 z'/>")).isCloseTo(PI * 100 / 2, within(1.0));
    }

    @Test
    void curves_have_the_areas_of_their_polynomials() {
        // A cubic from (0,0) over (0,h), (w,h) to (w,0) encloses 3/5 w h; a quadratic over (w/2, h) 1/3 w h.
        assertThat(area("<path d='M100,200 C100,100 250,100 250,200'/>")).isCloseTo(0.6 * 150 * 100, within(3.0));
        assertThat(area("<path d='M200,300 Q400,50 600,300'/>")).isCloseTo(400 * 250 / 3.0, within(8.0));
        // Smooth forms mirror the last control point: the same curve again, turned over.
        assertThat(area("<path d='M100,200 C100,100 250,100 250,200 S400,300 400,200'/>"))
                .isCloseTo(2 * 0.6 * 150 * 100, within(6.0));
        assertThat(area("<path d='M200,300 Q400,50 600,300 T1000,300'/>")).isCloseTo(2 * 400 * 250 / 3.0, within(16.0));
    }

    /** Chapter 11: the star of the fill-rule figures, whose middle is filled or not, and its nested triangles. */
    @Test
    void the_star_is_filled_by_its_rule() {
        String star = "d='M 250,75 L 323,301 131,161 369,161 177,301 z'";
        double nonzero = area("<path fill-rule='nonzero' " + star + "/>");
        double evenodd = area("<path style='fill:red; fill-rule: evenodd' " + star + "/>");
        double middle = nonzero - evenodd;
        assertThat(area("<path " + star + "/>")).isEqualTo(nonzero);
        // Of a regular star, whose lower points lie cos 36° below its middle and whose arms sin 18° above it; the
        // figure's corners are whole numbers, hence a percent.
        double r = (301 - 161) / (Math.cos(PI / 5) + Math.sin(PI / 10));
        double inner = r * Math.cos(2 * PI / 5) / Math.cos(PI / 5);
        assertThat(middle).isCloseTo(2.5 * inner * inner * Math.sin(2 * PI / 5), within(60.0));
        assertThat(nonzero).isCloseTo(5 * r * inner * Math.sin(PI / 5), within(250.0));
    }

    @Test
    void rings_wound_one_way_are_filled_and_wound_both_ways_are_holes() {
        String outer = "M0,0 H30 V30 H0 z ";
        assertThat(area("<path d='" + outer + "M10,10 H20 V20 H10 z'/>")).isCloseTo(900, within(1e-6));
        assertThat(area("<path d='" + outer + "M10,10 V20 H20 V10 z'/>")).isCloseTo(800, within(1e-6));
        assertThat(area("<g fill-rule='evenodd'><path d='" + outer + "M10,10 H20 V20 H10 z'/></g>"))
                .isCloseTo(800, within(1e-6));
    }

    @Test
    void basic_shapes_have_their_areas() {
        assertThat(area("<rect x='1' y='2' width='30' height='20'/>")).isCloseTo(600, within(1e-6));
        assertThat(area("<rect width='30' height='20' rx='5'/>")).isCloseTo(600 - (4 - PI) * 25, within(0.3));
        assertThat(area("<circle cx='50' cy='50' r='20'/>")).isCloseTo(PI * 400, within(2.0));
        assertThat(area("<ellipse cx='50' cy='50' rx='20' ry='10'/>")).isCloseTo(PI * 200, within(2.0));
        // Chapter 9: the hexagon of polygon01.
        assertThat(area("<polygon points='850,75 958,137.5 958,262.5 850,325 742,262.6 742,137.5'/>"))
                .isCloseTo(216 * 125 + 216 * 62.5, within(12.0));
    }

    /** Chapter 7: nested transforms apply from the inside out; a skew keeps areas. */
    @Test
    void transforms_nest_as_in_the_specification() {
        Svg svg = inMillimetres(
                "<g transform='translate(50,90)'><g transform='rotate(-45)'><g transform='translate(130,160)'>"
                        + "<rect width='10' height='4'/></g></g></g>");
        // The matrix the chapter gives for it: [.707 −.707 .707 .707 255.03 111.21].
        Envelope box = svg.area().getEnvelopeInternal();
        assertThat(box.getMinX()).isCloseTo(255.03, within(0.05));
        assertThat(box.getMaxY()).isCloseTo(-(111.21 - 10 * Math.sqrt(0.5)), within(0.05));
        assertThat(svg.area().getArea()).isCloseTo(40, within(1e-6));
        assertThat(area("<rect transform='skewX(30) scale(2 3)' width='10' height='4'/>"))
                .isCloseTo(240, within(1e-6));
        assertThat(area("<rect transform='matrix(1 2 3 4 5 6)' width='1' height='1'/>"))
                .isCloseTo(2, within(1e-9));
    }

    @Test
    void units_become_millimetres_and_y_points_up() {
        Svg inches =
                read("<svg width='1in' height='1in' viewBox='0 0 10 10'><rect y='8' width='10' height='2'/></svg>");
        Envelope box = inches.area().getEnvelopeInternal();
        assertThat(box.getWidth()).isCloseTo(25.4, within(1e-6));
        assertThat(box.getMaxY()).isCloseTo(-0.8 * 25.4, within(1e-6));
        assertThat(read("<svg><rect width='96' height='96'/></svg>").area().getArea())
                .as("96 px an inch")
                .isCloseTo(25.4 * 25.4, within(1e-6));
        assertThat(read("<svg width='100%' viewBox='0 0 96 96'><rect width='1cm' height='10mm'/></svg>")
                        .area()
                        .getArea())
                .isCloseTo(100, within(1e-6));
    }

    @Test
    void overlapping_shapes_are_one_area() {
        assertThat(area("<rect width='10' height='10'/><rect x='5' width='10' height='10'/>"))
                .isCloseTo(150, within(1e-6));
    }

    @Test
    void what_is_not_filled_is_passed_over_and_counted() {
        Svg svg = inMillimetres("<defs><rect width='500' height='500'/></defs><text>Beans</text>"
                + "<path fill='none' stroke='black' d='M0 0L50 50L0 50z'/><g display='none'><circle r='9'/></g>"
                + "<rect width='4' height='4'/>");
        assertThat(svg.area().getArea()).isCloseTo(16, within(1e-9));
        assertThat(svg.passedOver()).isEqualTo(2);
    }

    @Test
    void what_is_no_drawing_is_refused_in_a_sentence() {
        refuses("a recipe", "cannot be read as SVG, on line 1");
        refuses("<html><body/></html>", "<html> and is no SVG drawing");
        refuses("<svg><text>Leek</text></svg>", "convert text and strokes to filled paths");
        refuses("<svg><g/></svg>", "fills nothing");
        refuses("<svg><path d='M0 0 L1 1 banana'/></svg>", "path data");
        refuses("<svg><rect width='wide' height='3'/></svg>", "“wide”, cannot be read");
        refuses("<svg viewBox='0 0 0 0'><rect width='1' height='1'/></svg>", "viewBox");
        refuses("<svg><g transform='spin(3)'><rect width='1' height='1'/></g></svg>", "transform");
        refuses("<svg>" + "<g>".repeat(400) + "</svg>", "nests groups over 256 deep");
        refuses("<svg><path d='M0 0" + " L1 1 2 0".repeat(150_000) + "z'/></svg>", "too many corners");
    }

    @Test
    void nothing_outside_the_file_is_looked_up() {
        refuses(
                "<?xml version='1.0'?><!DOCTYPE svg [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><svg><text>&e;</text></svg>",
                "");
    }
}
