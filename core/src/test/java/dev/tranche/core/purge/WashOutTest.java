package dev.tranche.core.purge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.Spools;
import dev.tranche.core.units.Volume;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class WashOutTest {
    private static final List<Spool> ALL = List.of(Spools.SOOT, Spools.CHALK, Spools.BURGUNDY);

    @Test
    void the_curve_falls_from_the_old_colour_and_is_clean_where_the_purge_ends() {
        Volume dead = new Volume(60);
        Volume purge =
                PurgeModel.usual(dead).between(Spools.BURGUNDY, Spools.CHALK).volume();
        WashOut curve = WashOut.of(Spools.BURGUNDY, Spools.CHALK, dead, 2, purge, 40);
        assertThat(curve.points().get(0).difference()).isGreaterThan(40);
        for (int i = 1; i < 40; i++) {
            assertThat(curve.points().get(i).difference())
                    .isLessThan(curve.points().get(i - 1).difference());
        }
        // The purge is rounded up to a whole mm³, so it ends a hair below the tolerance.
        assertThat(curve.points().get(39).difference()).isLessThanOrEqualTo(2).isCloseTo(2, within(0.05));
        assertThat(curve.points().get(38).difference()).isGreaterThan(2);
    }

    @Property
    void more_melt_and_a_sharper_eye_never_need_less(
            @ForAll @IntRange(max = 2) int out,
            @ForAll @IntRange(max = 2) int in,
            @ForAll @DoubleRange(min = 5, max = 500) double dead,
            @ForAll @DoubleRange(min = 0.2, max = 10) double tolerance) {
        double purge = purge(dead, tolerance, out, in);
        assertThat(purge(dead * 1.3, tolerance, out, in)).isGreaterThanOrEqualTo(purge);
        assertThat(purge(dead, tolerance * 0.8, out, in)).isGreaterThanOrEqualTo(purge);
    }

    private static double purge(double dead, double tolerance, int out, int in) {
        return new PurgeModel(new Volume(dead), new PurgeSettings(tolerance, 1), List.of())
                .between(ALL.get(out), ALL.get(in))
                .volume()
                .cubicMillimetres();
    }
}
