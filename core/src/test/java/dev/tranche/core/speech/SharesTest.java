package dev.tranche.core.speech;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class SharesTest {
    @Test
    void nine_and_eight_make_sixteen_only_if_one_of_them_gives_way() {
        // 8.4 and 7.8 minutes are 16.2: 8 and 8, not 8 and 8 by luck nor 9 and 8.
        assertThat(Shares.of(new double[] {8.4, 7.8}, 1)).containsExactly(8, 8);
        assertThat(Shares.of(new double[] {8.5, 7.5}, 1)).containsExactly(9, 7);
        assertThat(Shares.of(new double[] {0.04, 0.04, 0.04}, 0.1)).containsExactly(1, 0, 0);
    }

    @Test
    void who_lost_most_gets_what_is_missing() {
        assertThat(Shares.of(10, new double[] {5.3, 3.4, 1.3}, 1)).containsExactly(5, 4, 1);
    }

    @Property
    void parts_add_up_to_their_rounded_sum_and_none_is_off_by_a_unit(
            @ForAll @Size(min = 1, max = 40) List<@DoubleRange(min = 0, max = 500) Double> parts) {
        double[] given = parts.stream().mapToDouble(Double::doubleValue).toArray();
        long[] shares = Shares.of(given, 0.1);
        assertThat(Arrays.stream(shares).sum())
                .isEqualTo(Math.round(Arrays.stream(given).sum() / 0.1));
        for (int i = 0; i < given.length; i++) {
            assertThat(shares[i] * 0.1).isCloseTo(given[i], within(0.1 + 1e-6));
        }
    }
}
