package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.statistics.Statistics;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;

/** Cells as zones of one colour leave them: side by side, cut from one another. */
class SliversTest {
    private static final double LINE = 0.42;
    private static final double SPECK = 0.055;

    private static MultiPolygon box(double x, double y, double width, double height) {
        return Areas.of(Section.PLANE.toGeometry(new Envelope(x, x + width, y, y + height)));
    }

    private static int count(List<MultiPolygon> cells) {
        return Slivers.of(cells, LINE, SPECK).count();
    }

    @Test
    void a_strip_along_a_broad_piece_of_the_same_colour_prints_with_it() {
        assertThat(count(List.of(box(0, 0, 10, 5), box(3, 5, 4, 0.2)))).isZero();
        assertThat(count(List.of(box(0, 0, 10, 5), box(3, 5.1, 4, 0.2))))
                .as("a gap between them")
                .isOne();
        assertThat(count(List.of(box(0, 0, 10, 5), box(10, 5, 4, 0.2))))
                .as("they meet in a corner")
                .isOne();
        MultiPolygon askew = Areas.of(
                AffineTransformation.rotationInstance(Math.PI / 9, 10, 5).transform(box(10, 5, 4, 0.2)));
        assertThat(count(List.of(box(0, 0, 10, 5), box(10, 4.8, 4, 0.2), askew)))
                .as("and in a corner at an angle, of which one lies along the broad piece")
                .isOne();
    }

    @Test
    void strips_side_by_side_are_together_as_broad_as_they_are() {
        List<MultiPolygon> strips = List.of(box(0, 0, 4, 0.15), box(0, 0.15, 4, 0.15), box(0, 0.3, 4, 0.15));
        assertThat(count(strips.subList(0, 2))).isOne();
        assertThat(count(strips)).isZero();
        assertThat(Slivers.of(strips.subList(0, 2), LINE, SPECK).areAll()).isTrue();
        assertThat(Slivers.of(strips, LINE, SPECK).areAll()).isFalse();
    }

    @Test
    void specks_side_by_side_are_together_as_large_as_they_are() {
        List<MultiPolygon> specks = List.of(box(0, 0, 0.3, 0.1), box(0.3, 0, 0.3, 0.1));
        assertThat(count(specks.subList(0, 1))).isZero();
        assertThat(count(specks)).isOne();
    }

    @Test
    void what_hangs_on_a_broad_piece_by_another_strip_prints_with_it() {
        assertThat(count(List.of(box(0, 0, 10, 5), box(3, 5, 4, 0.2), box(4, 5.2, 0.2, 2))))
                .isZero();
    }

    /**
     * The reference is the union of all cells, each piece of it looked at by itself. It draws a piece in with JTS, which
     * moves corners by up to a hundredth of the way to have fewer: a line's width that near to what fits is left open.
     */
    @Property(tries = 300)
    void there_are_as_many_as_in_the_union(@ForAll Random random) {
        double turn = random.nextDouble();
        List<MultiPolygon> cells = new ArrayList<>();
        for (int i = 0; i < 2 + random.nextInt(6); i++) {
            MultiPolygon cell = box(
                    random.nextInt(40) / 10.0,
                    random.nextInt(40) / 10.0,
                    (1 + random.nextInt(25)) / 10.0,
                    (1 + random.nextInt(5)) / 10.0);
            cell = Areas.of(AffineTransformation.rotationInstance(random.nextInt(3) == 0 ? 1 : turn, 2, 2)
                    .transform(cell));
            for (MultiPolygon other : cells) {
                cell = Areas.difference(cell, other);
            }
            cells.add(cell);
        }
        List<Polygon> pieces = Areas.polygons(Areas.union(cells)).toList();
        int fewest = tooThin(pieces, LINE * 0.99);
        int most = tooThin(pieces, LINE * 1.01);
        Statistics.collect(fewest, most);
        Slivers slivers = Slivers.of(cells, LINE, SPECK);
        assertThat(slivers.count()).isBetween(fewest, most);
        boolean narrower = pieces.stream().anyMatch(p -> Thin.holdsLine(p, LINE * 0.99));
        boolean wider = pieces.stream().anyMatch(p -> Thin.holdsLine(p, LINE * 1.01));
        assertThat(slivers.areAll()).isIn(!narrower, !wider);
    }

    private static int tooThin(List<Polygon> pieces, double width) {
        return (int) pieces.stream()
                .filter(p -> p.getArea() > SPECK && !Thin.holdsLine(p, width))
                .count();
    }
}
