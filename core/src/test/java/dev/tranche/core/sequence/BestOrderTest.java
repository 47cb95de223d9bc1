package dev.tranche.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.plan.Ordering.Aim;
import dev.tranche.core.plan.SpoolId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;

/** Orders of colours as bare sets of numbers. */
class BestOrderTest {

    /** What the layers hold, and mm³ of purge from each to each. */
    record Case(List<Integer> layers, int[][] purge, Aim aim) {
        SwapCosts costs() {
            return BestOrderTest.costs(purge, aim);
        }

        List<Stage> stages() {
            return layers.stream().map(Stage::of).toList();
        }
    }

    private static SwapCosts costs(int[][] purge, Aim aim) {
        List<SpoolId> spools =
                IntStream.range(0, purge.length).mapToObj(SpoolId::new).toList();
        return SwapCosts.of(spools, aim, (out, in) -> {
            int mm3 = purge[(int) out.value()][(int) in.value()];
            return new Toll(mm3, mm3 * (in.value() + 1) * 0.0003);
        });
    }

    private static int[][] alike(int colours) {
        int[][] purge = new int[colours][colours];
        Arrays.stream(purge).forEach(row -> Arrays.fill(row, 100));
        return purge;
    }

    private static long cost(List<int[]> orders, SwapCosts costs) {
        long sum = 0;
        int loaded = -1;
        for (int[] order : orders) {
            for (int c : order) {
                sum += loaded < 0 ? 0 : costs.of(loaded, c);
                loaded = c;
            }
        }
        return sum;
    }

    private static int swaps(List<int[]> orders) {
        return (int) Math.round(cost(orders, costs(alike(26), Aim.PURGE)) / (100.0 * 100 * 100_000));
    }

    private static List<int[]> numbered(List<Stage> stages, int colours) {
        return new NumberedOrder(IntStream.range(0, colours).toArray()).orders(stages);
    }

    @Provide
    Arbitrary<Case> cases() {
        Arbitrary<Integer> colours = Arbitraries.integers().between(2, 4);
        return colours.flatMap(n -> Combinators.combine(
                        Arbitraries.integers()
                                .between(0, (1 << n) - 1)
                                .list()
                                .ofMinSize(1)
                                .ofMaxSize(5),
                        Arbitraries.integers()
                                .between(0, 500)
                                .array(int[].class)
                                .ofSize(n)
                                .array(int[][].class)
                                .ofSize(n),
                        Arbitraries.of(Aim.class))
                .as(Case::new));
    }

    @Property(tries = 3000)
    void no_order_is_cheaper_than_the_best(@ForAll("cases") Case c) {
        BestOrder best = BestOrder.of(c.stages(), c.costs());
        assertThat(best.proven()).isTrue();
        assertThat(cost(best.orders(), c.costs())).isEqualTo(best.cost());
        assertThat(best.cost()).isEqualTo(cheapest(c.stages(), 0, -1, c.costs()));
        for (int i = 0; i < c.layers().size(); i++) {
            int[] order = best.orders().get(i);
            assertThat(Arrays.stream(order).map(x -> 1 << x).sum())
                    .isEqualTo(c.layers().get(i));
            assertThat(order).doesNotHaveDuplicates();
        }
    }

    /** Every order there is, one after the other. */
    private static long cheapest(List<Stage> stages, int at, int loaded, SwapCosts costs) {
        return at == stages.size() ? 0 : through(stages, at, stages.get(at).colours(), loaded, costs);
    }

    private static long through(List<Stage> stages, int at, int left, int loaded, SwapCosts costs) {
        if (left == 0) {
            return cheapest(stages, at + 1, loaded, costs);
        }
        long best = Long.MAX_VALUE;
        for (int c = 0; c < costs.size(); c++) {
            if ((left >> c & 1) == 1) {
                long step = loaded < 0 ? 0 : costs.of(loaded, c);
                best = Math.min(best, step + through(stages, at, left & ~(1 << c), c, costs));
            }
        }
        return best;
    }

    @Property(tries = 1000)
    void no_numbering_is_cheaper_than_the_best_numbering(@ForAll("cases") Case c) {
        int n = c.purge().length;
        int[] now = IntStream.range(0, n).toArray();
        long floor = BestOrder.of(c.stages(), c.costs()).cost();
        int[] best = new Numberings(c.stages(), now, c.costs(), Numberings.EXACT).best(floor);
        long found = cost(new NumberedOrder(best).orders(c.stages()), c.costs());
        long least = permutations(n).stream()
                .mapToLong(p -> cost(new NumberedOrder(p).orders(c.stages()), c.costs()))
                .min()
                .orElse(0);
        assertThat(found).isEqualTo(least).isGreaterThanOrEqualTo(floor);
    }

    private static List<int[]> permutations(int n) {
        List<int[]> all = new ArrayList<>(List.of(new int[0]));
        for (int c = 0; c < n; c++) {
            List<int[]> longer = new ArrayList<>();
            for (int[] p : all) {
                for (int at = 0; at <= p.length; at++) {
                    int[] q = new int[p.length + 1];
                    System.arraycopy(p, 0, q, 0, at);
                    q[at] = c;
                    System.arraycopy(p, at, q, at + 1, p.length - at);
                    longer.add(q);
                }
            }
            all = longer;
        }
        return all;
    }

    @Property(tries = 500)
    void what_must_come_before_comes_before(@ForAll("cases") Case c, @ForAll Random random) {
        int n = c.purge().length;
        int[] before = new int[n];
        for (int i = 1; i < n; i++) {
            before[i] = random.nextInt(1 << i);
        }
        int all = (1 << n) - 1;
        int[] order =
                BestOrder.of(List.of(Stage.of(all, before)), c.costs()).orders().get(0);
        assertThat(order).hasSize(n);
        int done = 0;
        for (int colour : order) {
            assertThat(before[colour] & ~done).isZero();
            done |= 1 << colour;
        }
    }

    /** A B ∣ B A ∣ A: common practice; beginning with B would cost three. */
    @Test
    void an_inlay_in_the_first_two_layers_is_best_begun_with_the_base() {
        List<Stage> stages = List.of(Stage.of(0b11), Stage.of(0b11), Stage.of(0b01));
        BestOrder best = BestOrder.of(stages, costs(alike(2), Aim.SWAPS));
        assertThat(best.orders()).containsExactly(new int[] {0, 1}, new int[] {1, 0}, new int[] {0});
        assertThat(swaps(best.orders())).isEqualTo(2);
        assertThat(swaps(new NumberedOrder(new int[] {1, 0}).orders(stages))).isEqualTo(3);
    }

    /** 1 2 3 4 ∣ 4 1: common practice. */
    @Test
    void the_numbered_order_begins_a_layer_with_the_loaded_colour() {
        List<Stage> stages = List.of(Stage.of(0b1111), Stage.of(0b1001));
        List<int[]> orders = numbered(stages, 4);
        assertThat(orders).containsExactly(new int[] {0, 1, 2, 3}, new int[] {3, 0});
        assertThat(swaps(orders)).isEqualTo(4);
    }

    @Test
    void where_swaps_are_equal_the_order_that_purges_less_is_taken() {
        // From 1 to 0 costs five times what 0 to 1 does, so 1 goes first, though both ways are one swap.
        int[][] purge = {{0, 50}, {10, 0}};
        assertThat(BestOrder.of(List.of(Stage.of(0b11)), costs(purge, Aim.SWAPS))
                        .orders())
                .containsExactly(new int[] {1, 0});
    }

    @Test
    void a_hundredth_of_a_cubic_millimetre_and_of_a_cent_decide_between_orders_and_then_swaps_do() {
        List<SpoolId> two = List.of(new SpoolId(0), new SpoolId(1));
        for (Aim aim : Aim.values()) {
            SwapCosts costs = SwapCosts.of(
                    two, aim, (out, in) -> out.value() == 0 ? new Toll(10.02, 0.0102) : new Toll(10.01, 0.0101));
            assertThat(BestOrder.of(List.of(Stage.of(0b11)), costs).orders()).containsExactly(new int[] {1, 0});
            SwapCosts free = SwapCosts.of(two, aim, (out, in) -> new Toll(0, 0));
            assertThat(BestOrder.of(List.of(Stage.of(0b11), Stage.of(0b01)), free)
                            .orders())
                    .containsExactly(new int[] {1, 0}, new int[] {0});
        }
    }

    @Test
    void least_purge_may_take_more_swaps() {
        // Straight from 0 to 2 needs 900, by way of 1 only 20: but 1 is not on the last layer.
        int[][] purge = {{0, 10, 900}, {900, 0, 10}, {10, 900, 0}};
        List<Stage> stages = List.of(Stage.of(0b011), Stage.of(0b101));
        long swaps = BestOrder.of(stages, costs(purge, Aim.SWAPS)).cost() / 10_000_000_000_000L;
        int purged = swaps(BestOrder.of(stages, costs(purge, Aim.PURGE)).orders());
        assertThat(swaps).isEqualTo(2);
        assertThat(purged).isGreaterThanOrEqualTo(2);
        assertThat(BestOrder.of(stages, costs(purge, Aim.PURGE)).cost())
                .isEqualTo(cheapest(stages, 0, -1, costs(purge, Aim.PURGE)));
    }

    @Test
    void sixteen_colours_on_a_layer_get_a_good_order_that_is_not_called_the_best() {
        Random random = new Random(5);
        int[][] purge = new int[16][16];
        for (int[] row : purge) {
            Arrays.setAll(row, i -> 20 + random.nextInt(480));
        }
        List<Stage> stages = List.of(Stage.of(0xFFFF), Stage.of(0xFFFF), Stage.of(0x00FF));
        BestOrder good = BestOrder.of(stages, costs(purge, Aim.PURGE));
        assertThat(good.proven()).isFalse();
        assertThat(good.orders().get(0)).hasSize(16).doesNotHaveDuplicates();
        assertThat(good.cost()).isLessThan(cost(numbered(stages, 16), costs(purge, Aim.PURGE)) * 2 / 3);
    }

    private static int[][] random(Random random, int colours) {
        int[][] purge = new int[colours][colours];
        for (int[] row : purge) {
            Arrays.setAll(row, i -> 20 + random.nextInt(480));
        }
        return purge;
    }

    /** The reference tries every order there is. */
    @Property(tries = 12)
    void nine_and_ten_colours_too_get_the_best_order_there_is(@ForAll Random random) {
        for (int colours = 9; colours <= 10; colours++) {
            SwapCosts costs = costs(random(random, colours), Aim.PURGE);
            BestOrder best = BestOrder.of(List.of(Stage.of((1 << colours) - 1)), costs);
            assertThat(best.proven()).isTrue();
            assertThat(cost(best.orders(), costs)).isEqualTo(best.cost());
            assertThat(best.cost()).isEqualTo(cheapest(new int[colours], 0, 0, 0, costs, Long.MAX_VALUE));
        }
    }

    private static long cheapest(int[] order, int placed, int used, long spent, SwapCosts costs, long least) {
        if (placed == order.length) {
            return Math.min(least, spent);
        }
        long best = least;
        for (int c = 0; c < order.length; c++) {
            long cost = placed == 0 ? 0 : spent + costs.of(order[placed - 1], c);
            if ((used >> c & 1) == 0 && cost < best) {
                order[placed] = c;
                best = cheapest(order, placed + 1, used | 1 << c, cost, costs, best);
            }
        }
        return best;
    }

    @Property(tries = 40)
    void no_colour_of_many_is_better_off_elsewhere(@ForAll Random random) {
        SwapCosts costs = costs(random(random, 12), Aim.PURGE);
        int[] order = BestOrder.of(List.of(Stage.of(0xFFF)), costs).orders().get(0);
        long now = cost(List.of(order), costs);
        for (int from = 1; from < order.length - 1; from++) {
            for (int to = 1; to < order.length - 1; to++) {
                List<Integer> moved =
                        new ArrayList<>(Arrays.stream(order).boxed().toList());
                moved.add(to, moved.remove(from));
                assertThat(cost(List.of(moved.stream().mapToInt(c -> c).toArray()), costs))
                        .isGreaterThanOrEqualTo(now);
            }
        }
    }

    @Property(tries = 40)
    void of_many_colours_too_what_must_come_before_comes_before(@ForAll Random random) {
        int[] before = new int[11];
        for (int c = 1; c < before.length; c++) {
            before[c] = random.nextInt(3) == 0 ? 1 << random.nextInt(c) : 0;
        }
        SwapCosts costs = costs(random(random, 11), Aim.SWAPS);
        List<Stage> stages = List.of(Stage.of(0x7FF, before), Stage.of(0b11), Stage.of(0x7FF, before));
        BestOrder good = BestOrder.of(stages, costs);
        assertThat(cost(good.orders(), costs)).isEqualTo(good.cost());
        for (int[] order : List.of(good.orders().get(0), good.orders().get(2))) {
            assertThat(order).hasSize(11).doesNotHaveDuplicates();
            int done = 0;
            for (int c : order) {
                assertThat(before[c] & ~done).isZero();
                done |= 1 << c;
            }
        }
    }

    @Test
    void layers_without_plastic_keep_what_is_loaded() {
        BestOrder best = BestOrder.of(
                List.of(Stage.of(0), Stage.of(0b10), Stage.of(0), Stage.of(0b10)), costs(alike(2), Aim.SWAPS));
        assertThat(best.cost()).isZero();
        assertThat(best.orders().get(2)).isEmpty();
    }
}
