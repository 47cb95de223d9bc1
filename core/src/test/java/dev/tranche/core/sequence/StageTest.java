package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What orders are sought in: stages of colours, and what each swap counts. */
class StageTest {
    @Test
    void stages_are_alike_where_colours_and_what_must_come_before_them_are() {
        Stage any = Stage.of(0b101);
        Stage bound = Stage.of(0b101, new int[] {0, 0, 0b001});
        assertThat(any).isEqualTo(Stage.of(0b101)).isEqualTo(Stage.of(0b101, new int[3]));
        assertThat(any).hasSameHashCodeAs(Stage.of(0b101, new int[3]));
        assertThat(bound).isEqualTo(Stage.of(0b101, new int[] {0, 0, 0b001}));
        assertThat(List.of(Stage.of(0b111), bound, Stage.of(0b101, new int[] {0b100, 0, 0})))
                .doesNotContain(any)
                .extracting(Stage::hashCode)
                .doesNotHaveDuplicates();
        assertThat(any.equals("101")).isFalse();
    }

    @Test
    void only_colours_of_the_stage_must_come_before() {
        Stage bound = Stage.of(0b101, new int[] {0b010, 0, 0b011});
        assertThat(bound.size()).isEqualTo(2);
        assertThat(bound.before(0)).isZero();
        assertThat(bound.before(2)).isEqualTo(0b001);
        assertThat(Stage.of(0b101).before(2)).isZero();
    }

    private static final List<SpoolId> SPOOLS = List.of(new SpoolId(1), new SpoolId(2), new SpoolId(3));

    /** From the first spool to the second, and to the third. */
    private static SwapCosts costs(Aim aim, Toll second, Toll third) {
        return SwapCosts.of(SPOOLS, aim, (out, in) -> in.equals(SPOOLS.get(1)) ? second : third);
    }

    @Test
    void a_swap_fewer_is_worth_any_purge_and_of_as_many_swaps_the_purge_decides() {
        SwapCosts costs = costs(Aim.SWAPS, new Toll(10, 5, true), new Toll(900, 0, true));
        assertThat(costs.of(0, 2)).isBetween(costs.of(0, 1) + 1, 2 * costs.of(0, 1));
        assertThat(costs.of(0, 0)).isZero();
        SwapCosts turned = costs(Aim.SWAPS, new Toll(0, 0, true), new Toll(900, 0, false));
        assertThat(100_000 * turned.of(0, 2)).isLessThan(turned.of(0, 1));
        assertThat(costs.spools()).isEqualTo(SPOOLS);
    }

    @Test
    void a_hundredth_less_purge_is_worth_any_swaps_and_of_equal_purge_they_decide() {
        SwapCosts purge = costs(Aim.PURGE, new Toll(0, 0, true), new Toll(0.01, 0, true));
        assertThat(purge.of(0, 1)).isPositive();
        assertThat(purge.of(0, 2)).isGreaterThan(99_999 * purge.of(0, 1));
        SwapCosts money = costs(Aim.MONEY, new Toll(500, 0, true), new Toll(0, 0.00001, true));
        assertThat(money.of(0, 1)).isPositive();
        assertThat(money.of(0, 2)).isGreaterThan(99_999 * money.of(0, 1));
    }
}
