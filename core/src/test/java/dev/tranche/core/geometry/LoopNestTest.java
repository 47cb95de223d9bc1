package dev.tranche.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.speech.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.CoordinateXY;
import org.locationtech.jts.geom.MultiPolygon;

class LoopNestTest {
    private static Effort effort() {
        return new Effort(1_000_000, "Too many.", Progress.UNHEARD);
    }

    private static CoordinateXY[] loop(double x, double y, double... xy) {
        CoordinateXY[] corners = new CoordinateXY[xy.length / 2 + 1];
        for (int i = 0; i < xy.length; i += 2) {
            corners[i / 2] = new CoordinateXY(x + xy[i], y + xy[i + 1]);
        }
        corners[corners.length - 1] = corners[0];
        return corners;
    }

    /** A hundred squares of 1 mm apart from each other. */
    private static List<CoordinateXY[]> squares() {
        List<CoordinateXY[]> squares = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            squares.add(loop(2 * (i % 10), 2 * (i / 10), 0, 0, 1, 0, 1, 1, 0, 1));
        }
        return squares;
    }

    private static Optional<MultiPolygon> nested(List<CoordinateXY[]> loops) {
        return new LoopNest(loops, false, true, false).nested(effort());
    }

    @Test
    void of_many_loops_apart_each_is_a_piece() {
        assertThat(nested(squares()).orElseThrow().getNumGeometries()).isEqualTo(100);
    }

    @Test
    void one_loop_among_many_that_crosses_itself_is_not_merely_nested() {
        List<CoordinateXY[]> loops = squares();
        loops.add(loop(30, 30, 0, 0, 3, 3, 3, 0, 0, 1));

        assertThat(nested(loops)).isEmpty();
    }

    @Test
    void two_loops_among_many_that_cross_are_not_merely_nested() {
        List<CoordinateXY[]> loops = squares();
        loops.add(loop(4.5, 4.5, 0, 0, 1, 0, 1, 1, 0, 1));

        assertThat(nested(loops)).isEmpty();
    }

    /** Four-cornered loops at random, some of which cross themselves or another or lie within one. */
    @Property(tries = 200)
    void what_is_nested_is_sound_and_fills_what_arranging_would(@ForAll long seed) {
        Random random = new Random(seed);
        List<CoordinateXY[]> loops = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            double w = random.nextInt(8) == 0 ? 20 : 1;
            double dent = random.nextInt(60) == 0 ? -0.5 : 0.4;
            loops.add(loop(random.nextInt(200), random.nextInt(200), 0, 0, w, 0, dent * w, dent * w, 0, w));
        }
        LoopNest nest = new LoopNest(loops, false, true, false);

        nest.nested(effort()).ifPresent(filled -> {
            assertThat(filled.isValid()).isTrue();
            assertThat(filled.getArea()).isCloseTo(nest.arranged(effort()).getArea(), within(1e-6));
        });
    }
}
