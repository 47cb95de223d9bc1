package dev.tranche.core.returns;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.plan.Spools;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.plate.Spot;
import dev.tranche.core.returns.ReturnPath.Stain;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.MultiPolygon;

/** A way that turns a corner: 30 mm to the right, then 40 mm up, measured by hand. */
class ReturnPathTest {
    private static ReturnPath path(Stain... stains) {
        return new ReturnPath(
                1,
                false,
                2,
                Spools.CHALK.id(),
                List.of(new Coordinate(10, 20), new Coordinate(40, 20), new Coordinate(40, 60)),
                OptionalDouble.empty(),
                List.of(stains));
    }

    private static Stain soot(double from, double to) {
        return new Stain(0, Spools.SOOT.id(), from, to);
    }

    private static MultiPolygon tower(double width, double depth, double x, double y) {
        return Footprint.rectangle(width, depth).at(new Spot(x, y, 0));
    }

    @Test
    void its_length_goes_round_the_corner() {
        assertThat(path().length()).isEqualTo(70);
        assertThat(path().start()).isEqualTo(new Coordinate(10, 20));
        assertThat(path().end()).isEqualTo(new Coordinate(40, 60));
        assertThat(path(soot(5, 12), soot(50, 53)).stained()).isEqualTo(10);
    }

    @Test
    void a_piece_of_it_is_cut_where_it_is_on_either_leg_and_over_the_corner() {
        assertThat(path().between(5, 12)).containsExactly(new Coordinate(15, 20), new Coordinate(22, 20));
        assertThat(path().between(50, 60)).containsExactly(new Coordinate(40, 40), new Coordinate(40, 50));
        assertThat(path().between(20, 45))
                .containsExactly(new Coordinate(30, 20), new Coordinate(40, 20), new Coordinate(40, 35));
        assertThat(path().between(0, 70)).containsExactlyElementsOf(path().places());
        // What begins where a leg ends has nothing of that leg.
        assertThat(path().between(30, 40)).containsExactly(new Coordinate(40, 20), new Coordinate(40, 30));
        assertThat(path().between(20, 30)).containsExactly(new Coordinate(30, 20), new Coordinate(40, 20));
        assertThat(path().between(80, 90)).containsExactly(path().start(), path().start());
    }

    @Test
    void it_is_followed_until_it_is_stained_first() {
        assertThat(path(soot(35, 50)).untilStained())
                .containsExactly(new Coordinate(10, 20), new Coordinate(40, 20), new Coordinate(40, 25));
        assertThat(path().untilStained()).containsExactlyElementsOf(path().places());
    }

    @Test
    void what_comes_after_the_tower_is_wiped_off_there() {
        // 10 mm wide about the second leg's 15th to 27th mm, which are the 45th to 57th of the way.
        ReturnPath past = path(soot(5, 12), soot(40, 50), soot(50, 70)).past(tower(10, 12, 40, 41));
        assertThat(past.tower().orElseThrow()).isCloseTo(45, within(1e-9));
        assertThat(past.stains()).containsExactly(soot(5, 12), soot(40, 45));
        assertThat(past.isClean()).isFalse();
        assertThat(path(soot(50, 70)).past(tower(10, 12, 40, 41)).isClean()).isTrue();
        // On the first leg.
        assertThat(path(soot(20, 30)).past(tower(6, 6, 18, 20)).tower().orElseThrow())
                .isCloseTo(5, within(1e-9));
    }

    @Test
    void a_tower_that_is_grazed_for_less_than_2_mm_wipes_nothing() {
        assertThat(path(soot(20, 30)).past(tower(1.9, 6, 18, 20)).tower()).isEmpty();
        assertThat(path(soot(20, 30)).past(tower(2.1, 6, 18, 20)).tower()).isPresent();
        // It ends in the tower, 1 mm of it or 3.
        assertThat(path(soot(20, 30)).past(tower(10, 6, 40, 62)).tower()).isEmpty();
        assertThat(path(soot(20, 30)).past(tower(10, 6, 40, 60)).tower()).isPresent();
        // A tower behind the nozzle, or beyond the end, is not on its way.
        assertThat(path().past(tower(6, 6, 4, 20)).tower()).isEmpty();
        assertThat(path().past(tower(6, 6, 40, 70)).tower()).isEmpty();
    }
}
