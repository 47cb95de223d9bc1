package dev.tranche.core.coat;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Areas;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.overlayng.CoverageUnion;

/** Rims of squares, against a geometry library that joins the same squares one by one. */
class RimsTest {
    private static final GeometryFactory PLANE = new GeometryFactory();

    private static MultiPolygon joined(Lattice lattice, boolean[] area) {
        List<Polygon> squares = new ArrayList<>();
        for (int at = 0; at < area.length; at++) {
            if (area[at]) {
                int c = at % lattice.columns();
                int r = at / lattice.columns();
                squares.add((Polygon)
                        PLANE.toGeometry(new Envelope(lattice.x(c), lattice.x(c + 1), lattice.y(r), lattice.y(r + 1))));
            }
        }
        return Areas.of(CoverageUnion.union(PLANE.buildGeometry(squares)));
    }

    private static boolean[] drawn(Lattice lattice, String... rows) {
        boolean[] area = new boolean[lattice.squares()];
        for (int r = 0; r < rows.length; r++) {
            for (int c = 0; c < rows[r].length(); c++) {
                area[(rows.length - r) * lattice.columns() + c + 1] = rows[r].charAt(c) == '#';
            }
        }
        return area;
    }

    @Test
    void squares_round_others_have_a_hole_and_what_stands_in_it_a_rim_of_its_own() {
        Lattice lattice = new Lattice(1, 0, 0, 0, 0, 9, 7);
        MultiPolygon rims = Rims.of(lattice, drawn(lattice, "#####..", "#...###", "#.#.#.#", "#...###", "#####.."));
        assertThat(rims)
                .hasToString("MULTIPOLYGON (((6 1, 6 2, 8 2, 8 5, 6 5, 6 6, 1 6, 1 1, 6 1), "
                        + "(7 4, 7 3, 6 3, 6 4, 7 4), (5 5, 5 2, 2 2, 2 5, 5 5)), ((4 3, 4 4, 3 4, 3 3, 4 3)))");
    }

    @Test
    void squares_that_meet_in_a_corner_hang_together_by_their_sides_alone() {
        Lattice lattice = new Lattice(1, 0, 0, 0, 0, 5, 5);
        assertThat(Rims.of(lattice, drawn(lattice, "#.", ".#")).getNumGeometries())
                .isEqualTo(2);
        assertThat(Rims.of(lattice, drawn(lattice, "###", "#.#", "##.")))
                .hasToString("MULTIPOLYGON (((3 1, 3 2, 4 2, 4 4, 1 4, 1 1, 3 1), (3 2, 2 2, 2 3, 3 3, 3 2)))");
    }

    /** Each hole used to ask its way through all those west of it: half a minute. */
    @Test
    @Timeout(value = 10, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void a_sieve_of_hundreds_of_thousands_of_holes_is_followed_at_once() {
        Lattice lattice = new Lattice(0.15, 0, 0, 0, 0, 1200, 1200);
        boolean[] area = new boolean[lattice.squares()];
        for (int at = 0; at < area.length; at++) {
            int c = at % 1200;
            int r = at / 1200;
            area[at] = c > 0 && c < 1199 && r > 0 && r < 1199 && (c % 2 == 1 || r % 2 == 1);
        }
        MultiPolygon rims = Rims.of(lattice, area);
        assertThat(rims.getNumGeometries()).isEqualTo(1);
        assertThat(((Polygon) rims.getGeometryN(0)).getNumInteriorRing()).isEqualTo(598 * 598);
    }

    /** As a corner that is touched twice is kept in mind: a quarter of a minute where forgetting looked at all of them. */
    @Test
    @Timeout(value = 10, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void squares_by_chance_are_followed_at_once() {
        Lattice lattice = new Lattice(0.15, 0, 0, 0, 0, 1200, 1200);
        boolean[] area = new boolean[lattice.squares()];
        Random chance = new Random(1);
        int squares = 0;
        for (int at = 0; at < area.length; at++) {
            boolean ring = at % 1200 % 1199 == 0 || at / 1200 % 1199 == 0;
            area[at] = !ring && chance.nextInt(10) < 6;
            squares += area[at] ? 1 : 0;
        }
        assertThat(Rims.of(lattice, area).getArea()).isCloseTo(squares * 0.15 * 0.15, within(1e-3));
    }

    @Property(tries = 200)
    void they_are_those_of_the_squares_joined_one_by_one(
            @ForAll @Size(168) List<Boolean> squares, @ForAll @IntRange(min = 0, max = 99) int denser) {
        Lattice lattice = new Lattice(0.125, -3, 2, -6, -6, 16, 14);
        boolean[] area = new boolean[lattice.squares()];
        for (int i = 0; i < squares.size(); i++) {
            area[(1 + i / 14) * 16 + 1 + i % 14] = squares.get(i) || i * 37 % 100 < denser;
        }
        MultiPolygon rims = Rims.of(lattice, area);
        MultiPolygon joined = joined(lattice, area);
        assertThat(rims.isValid()).isTrue();
        assertThat(rims.symDifference(joined).getArea()).isZero();
        assertThat(rims.getNumGeometries()).isEqualTo(joined.getNumGeometries());
    }
}
